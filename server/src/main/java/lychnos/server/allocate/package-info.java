/** Addresses and names: what is free, what is proposed, what is allocated and recorded. */
package lychnos.server.allocate;
