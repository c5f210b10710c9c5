/**
 * Setup on console lines: opening them, following and answering, keeping what happened, showing it to whoever looks.
 */
package lychnos.server.console;
