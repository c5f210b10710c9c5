/** What is set up over the network: controllers, and pages after the console. */
package lychnos.server.configure.network;
