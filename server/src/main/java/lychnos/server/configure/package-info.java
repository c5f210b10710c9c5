/** Stage 3: rounds of setups, started, cancelled and decided on. */
package lychnos.server.configure;
