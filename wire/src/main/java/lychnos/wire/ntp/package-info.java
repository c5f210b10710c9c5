/** Time servers. */
package lychnos.wire.ntp;
