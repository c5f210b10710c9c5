/** The place from which machines are reached: its interface, and the one that is this machine. */
package lychnos.wire.vantage;
