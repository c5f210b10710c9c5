/** The program that runs at a remote vantage point, and carries on lines there. */
package lychnos.server.configure.remote;
