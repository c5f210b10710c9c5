/** The chain that journal and records are linked in. */
package lychnos.server.handover.chain;
