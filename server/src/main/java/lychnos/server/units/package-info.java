/** Bring-ups and their units: labels, facts, and the version of the kind that each is set up with. */
package lychnos.server.units;
