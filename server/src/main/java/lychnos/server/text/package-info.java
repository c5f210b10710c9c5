/** What the server says to people: one catalogue for each stage of the work. */
package lychnos.server.text;
