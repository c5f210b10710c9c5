/** Mail relays: talked to, never mailed through. */
package lychnos.wire.smtp;
