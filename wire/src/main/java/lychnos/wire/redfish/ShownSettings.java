package lychnos.wire.redfish;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import lychnos.core.address.Address;
import lychnos.core.proof.Settings;
import lychnos.core.proof.Settings.OptionalValue;

/** The settings that an interface and the protocol settings of a controller show (DMTF DSP2046). */
final class ShownSettings {

    /** How services write an address that is not set (RFC 4291 section 2.5.2 for the second). */
    private static final Set<String> UNSET = Set.of("0.0.0.0", "::");

    private ShownSettings() {}

    /**
     * Reads them.
     *
     * @param port an EthernetInterface
     * @param protocol a ManagerNetworkProtocol, or an empty object
     */
    static Settings of(JsonNode port, JsonNode protocol) {
        JsonNode ntp = protocol.path("NTP");
        JsonNode address = port.path("IPv4Addresses").path(0);
        return new Settings(
                address(address.path("Address")),
                address(address.path("SubnetMask")),
                address(address.path("Gateway")),
                port.path("DHCPv4").path("DHCPEnabled").asBoolean(),
                shown("HostName", port, protocol).asText(),
                shown("FQDN", port, protocol).asText(),
                texts(port.has("StaticNameServers") ? port.path("StaticNameServers") : port.path("NameServers")),
                texts(ntp.path("NTPServers")),
                ntp.path("ProtocolEnabled").asBoolean(),
                vlan(port.path("VLAN")),
                ipv6(port),
                notShown(port, protocol));
    }

    /** A property of the interface, or of the same name in the protocol settings. */
    private static JsonNode shown(String name, JsonNode port, JsonNode protocol) {
        return port.hasNonNull(name) ? port.path(name) : protocol.path(name);
    }

    private static Set<OptionalValue> notShown(JsonNode port, JsonNode protocol) {
        Set<OptionalValue> notShown = EnumSet.noneOf(OptionalValue.class);
        if (shown("FQDN", port, protocol).isMissingNode()) {
            notShown.add(OptionalValue.FULL_NAME);
        }
        if (!protocol.path("NTP").has("NTPServers")) {
            notShown.add(OptionalValue.TIME_SERVERS);
        }
        if (!protocol.path("NTP").has("ProtocolEnabled")) {
            notShown.add(OptionalValue.NTP);
        }
        return notShown;
    }

    /** The first fixed address; a gateway that a router has advertised is not its own. */
    private static Settings.Ipv6 ipv6(JsonNode port) {
        JsonNode fixed = port.path("IPv6StaticAddresses").path(0);
        Address address = address(fixed.path("Address"));
        return address == null
                ? null
                : new Settings.Ipv6(
                        address,
                        fixed.path("PrefixLength").asInt(),
                        address(port.path("IPv6StaticDefaultGateways").path(0).path("Address")));
    }

    private static Integer vlan(JsonNode vlan) {
        return vlan.path("VLANEnable").asBoolean()
                ? Integer.valueOf(vlan.path("VLANId").asInt())
                : null;
    }

    private static Address address(JsonNode value) {
        return Address.tryParse(value.asText())
                .filter(address -> !UNSET.contains(address.toString()))
                .orElse(null);
    }

    private static List<String> texts(JsonNode array) {
        List<String> texts = new ArrayList<>();
        array.forEach(item -> Controller.addText(texts, item));
        texts.removeIf(UNSET::contains);
        return texts;
    }
}
