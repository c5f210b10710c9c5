package lychnos.wire.tcp;

/** What a TCP port does when it is asked for a connection (RFC 9293 section 3.5). */
public enum PortState {
    OPEN,
    REFUSED,
    SILENT
}
