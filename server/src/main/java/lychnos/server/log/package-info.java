/** What goes into the log, and how often. */
package lychnos.server.log;
