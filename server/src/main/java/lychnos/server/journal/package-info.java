/** Who did what, and when. */
package lychnos.server.journal;
