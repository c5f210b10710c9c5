/** The bench: the lines that this server holds, and what screens show of them. */
package lychnos.server.configure.bench;
