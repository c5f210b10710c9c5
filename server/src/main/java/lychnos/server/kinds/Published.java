package lychnos.server.kinds;

import lychnos.core.kind.Kind;

/**
 * A published version of a kind, read.
 *
 * @param digest SHA-256 of its text, in hexadecimal
 */
public record Published(String id, int version, String digest, String text, Kind kind) {}
