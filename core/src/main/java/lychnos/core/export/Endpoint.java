package lychnos.core.export;

import java.time.Instant;
import java.util.List;

/**
 * An address with everything that other teams need. Empty texts and null stand for what is not known.
 *
 * @param unit what its unit is called
 * @param place where that is mounted, such as {@code R1 u14}
 * @param role what the address is for within the unit
 * @param name the full name
 * @param length of its network's prefix
 * @param mac the MAC address that answers there, as IEEE 802 writes it, with colons
 * @param certificate SHA-256 of the certificate, in hexadecimal
 * @param chain certificates in PEM, from its own upwards
 * @param hostKey type and key of its SSH host key, as a line of known hosts has them
 * @param port TCP port of its management service; 0 where people do not sign in
 * @param provenAt when everything was seen to hold, in UTC; null while it is not proven
 * @param provenFrom the place that it was looked at from
 */
public record Endpoint(
        String unit,
        String kind,
        String place,
        String role,
        String name,
        String address,
        String network,
        String prefix,
        int length,
        Integer vlan,
        String gateway,
        List<String> nameServers,
        List<String> timeServers,
        String serial,
        String mac,
        String firmware,
        String certificate,
        List<String> chain,
        String hostKey,
        int port,
        Instant provenAt,
        String provenFrom) {

    public Endpoint {
        nameServers = List.copyOf(nameServers);
        timeServers = List.copyOf(timeServers);
        chain = List.copyOf(chain);
    }

    /** Whether the address is one of IPv4. */
    public boolean v4() {
        return address.indexOf(':') < 0;
    }

    /** The name without its domain. */
    public String shortName() {
        int dot = name.indexOf('.');
        return dot < 0 ? name : name.substring(0, dot);
    }
}
