package lychnos.core.name;

import lychnos.core.address.Address;

/**
 * The two records that a management address needs: name to address (A, RFC 1035, or AAAA, RFC 3596) and back (PTR).
 *
 * @param fqdn the full name, without the closing dot
 * @param type {@code A} or {@code AAAA}
 * @param reverseName the owner of the PTR record, without the closing dot
 */
public record Records(String fqdn, Address address, String type, String reverseName) {

    public static Records of(String host, String domain, Address address) {
        return new Records(host + "." + domain, address, address.isV4() ? "A" : "AAAA", address.reverseName());
    }

    /** The forward record as a line of a zone file (RFC 1035 section 5). */
    public String forwardLine() {
        return fqdn + ". IN " + type + " " + address;
    }

    /** The reverse record as a line of a zone file. */
    public String reverseLine() {
        return reverseName + ". IN PTR " + fqdn + ".";
    }
}
