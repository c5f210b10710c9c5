/** The overview of a bring-up. */
package lychnos.server.board;
