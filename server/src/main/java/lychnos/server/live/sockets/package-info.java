/** The sockets that screens listen at. */
package lychnos.server.live.sockets;
