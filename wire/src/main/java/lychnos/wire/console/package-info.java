/** Console lines: raw TCP, Telnet, RFC 2217, SSH and local serial devices. */
package lychnos.wire.console;
