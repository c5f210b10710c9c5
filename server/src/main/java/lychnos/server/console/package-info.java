/**
 * Setup on console lines: opening them, following and answering, keeping what happened, showing it on screens.
 */
package lychnos.server.console;
