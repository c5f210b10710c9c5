/** What the database keeps of a setup on a console, written under the fence of the unit's job. */
package lychnos.server.configure.model;
