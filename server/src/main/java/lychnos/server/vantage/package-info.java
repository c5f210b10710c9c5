/** Places in other networks: who they are, their links, and which network each is for. */
package lychnos.server.vantage;
