/** The person or program that makes a request, and what they may do. */
package lychnos.server.identity.caller;
