/** How a machine or a service on the wire fails to answer as it should. */
package lychnos.wire.fault;
