/** Stage 1 as its screen shows it, over sites, units and addresses. */
package lychnos.server.prepare;
