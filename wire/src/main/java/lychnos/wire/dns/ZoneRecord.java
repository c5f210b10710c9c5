package lychnos.wire.dns;

/**
 * One record of a zone.
 *
 * @param owner the full name, lower case, without the closing dot
 * @param type A, AAAA, PTR, CNAME
 * @param data an address, or a full name without the closing dot
 */
public record ZoneRecord(String owner, String type, String data) {}
