/** Time as the server measures it; everything else is given it. */
package lychnos.server.time;
