/** What machines tell over SNMP without being asked who one is. */
package lychnos.wire.snmp;
