/** Endpoint checks and what they found. */
package lychnos.server.prove;
