/** Setups on consoles before they begin: what is answered, in which order, on which lines. */
package lychnos.server.configure.plan;
