/** Lines that are open: followed and answered, here or at a vantage point. */
package lychnos.server.configure.line;
