/**
 * Stand-in machines that are first set up on a serial console, and the line server that their consoles are plugged
 * into.
 */
package lychnos.lab.console;
