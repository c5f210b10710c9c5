/** Asks a directory service, as machines will that let people in by it (RFC 4511). */
package lychnos.wire.ldap;
