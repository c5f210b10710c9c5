/** The program that runs at a remote vantage point. */
package lychnos.server.outpost;
