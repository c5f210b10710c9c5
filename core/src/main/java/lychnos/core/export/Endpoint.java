package lychnos.core.export;

import java.time.Instant;
import java.util.List;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;
import org.jspecify.annotations.Nullable;

/**
 * An address with everything that other teams need. Empty texts and null stand for what is not known.
 *
 * @param machine the machine that has the address
 * @param role what the address is for within the unit
 * @param name the full name
 * @param network where the address is
 * @param seen what the machine showed at this address
 * @param port TCP port of its management service; 0 where people do not sign in
 * @param provenAt when every check passed, in UTC; null while the endpoint is not proven
 * @param provenFrom the vantage point of that check
 */
public record Endpoint(
        EndpointMachine machine,
        String role,
        String name,
        Address address,
        EndpointNetwork network,
        EndpointTraits seen,
        int port,
        @Nullable Instant provenAt,
        String provenFrom) {

    /**
     * The machine that has an address.
     *
     * @param unit the name of its unit
     * @param kind the id of its kind
     * @param place where it is mounted, such as {@code R1 u14}
     * @param serial of the member that has the address
     */
    public record EndpointMachine(String unit, String kind, String place, String serial) {}

    /** The network of an address, and the servers that it has. */
    public record EndpointNetwork(
            String name,
            Prefix prefix,
            @Nullable Integer vlan,
            @Nullable Address gateway,
            List<String> nameServers,
            List<String> timeServers) {

        public EndpointNetwork {
            nameServers = List.copyOf(nameServers);
            timeServers = List.copyOf(timeServers);
        }

        /** The gateway as text; empty where the network has none. */
        String gatewayText() {
            return gateway == null ? "" : gateway.toString();
        }
    }

    /**
     * What a machine showed.
     *
     * @param mac the MAC address that answers, with colons (IEEE 802)
     * @param certificate SHA-256 of the certificate, in hexadecimal
     * @param chain certificates in PEM, from the machine's own upwards
     * @param hostKey type and key of the SSH host key, as in a line of known hosts
     */
    public record EndpointTraits(String mac, String firmware, String certificate, List<String> chain, String hostKey) {

        public EndpointTraits {
            chain = List.copyOf(chain);
        }
    }

    /** The address with the length of its network's prefix, such as {@code 10.40.8.40/24}. */
    public String addressWithLength() {
        return address + "/" + network.prefix.length();
    }

    /** The name without its domain. */
    public String shortName() {
        int dot = name.indexOf('.');
        return dot < 0 ? name : name.substring(0, dot);
    }
}
