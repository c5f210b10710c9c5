/** Time that is measured, and time that is left. */
package lychnos.wire.time;
