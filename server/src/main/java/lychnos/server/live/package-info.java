/** What screens are told, and the views that they share. */
package lychnos.server.live;
