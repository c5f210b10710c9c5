package lychnos.wire.redfish;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import lychnos.core.fact.Mac;
import lychnos.core.fact.Secret;
import lychnos.core.proof.Settings;
import lychnos.wire.fault.WireFault;
import lychnos.wire.fault.WireText;

/**
 * A server's management controller over Redfish: reads what it says of itself and what is set, and sets it. Uses the
 * schemas Manager, EthernetInterface, ManagerNetworkProtocol, ManagerAccount, ComputerSystem and Chassis (DMTF
 * DSP2046). Of several managers behind one service the one is used that has the interface with the MAC address of the
 * label.
 */
public final class Controller {

    private static final ObjectMapper JSON = new ObjectMapper();
    /** Properties of the interface without which the rest is still set. */
    private static final Set<String> MAY_BE_REFUSED =
            Set.of("HostName", "FQDN", "StaticNameServers", "IPv6StaticDefaultGateways");

    private final RedfishClient client;
    private final Mac mac;

    /**
     * @param client logged in
     * @param mac of its management interface, as on the label
     */
    public Controller(RedfishClient client, Mac mac) {
        this.client = client;
        this.mac = mac;
    }

    /**
     * What a machine says of itself.
     *
     * @param serials its own, and of the systems and chassis it manages, as given; empty if it shows none
     * @param macs of its interfaces
     * @param firmware its version, or an empty text
     * @param clock what time it says it is, where it does
     */
    public record Identity(List<String> serials, List<Mac> macs, String firmware, Optional<Instant> clock) {

        /**
         * What shows that it is another machine than the label says; nothing where it is the one. A machine that shows
         * no serial, or whose label has none, is recognized by its MAC address alone.
         *
         * @param serial as on the label; empty where the label has none
         */
        public Optional<String> differsFrom(String serial, Mac mac) {
            if (comparesSerial(serial) && !serials.contains(serial)) {
                return Optional.of(WireText.SERIAL_DIFFERS.text(String.join(", ", serials), serial));
            }
            return macs.contains(mac) ? Optional.empty() : Optional.of(WireText.MAC_MISSING.text(mac));
        }

        private boolean comparesSerial(String serial) {
            return !serials.isEmpty() && !serial.isEmpty();
        }

        /** What it was recognized by, for the record; to be asked only if nothing {@link #differsFrom} the label. */
        public String evidence(String serial, Mac mac) {
            if (comparesSerial(serial)) {
                return WireText.KNOWN_BY_BOTH.text(serial, mac);
            }
            return (serial.isEmpty() ? WireText.KNOWN_BY_MAC_NO_LABEL_SERIAL : WireText.KNOWN_BY_MAC).text(mac);
        }
    }

    public Identity identity() throws WireFault, RedfishFault {
        Found found = find();
        JsonNode manager = found.manager;
        List<String> serials = new ArrayList<>();
        for (String owner : List.of("ManagerForServers", "ManagerForChassis")) {
            for (JsonNode link : manager.path("Links").path(owner)) {
                read(link)
                        .ifPresent(resource -> addText(serials, resource.json().path("SerialNumber")));
            }
        }
        addText(serials, manager.path("SerialNumber"));
        List<Mac> macs =
                found.ports.stream().flatMap(port -> mac(port).stream()).toList();
        return new Identity(
                serials.stream().distinct().toList(),
                macs,
                manager.path("FirmwareVersion").asText(),
                clock(manager.path("DateTime").asText()));
    }

    /** Reads the resource that a property links to; nothing where there is no link, or nothing behind it. */
    private Optional<Resource> read(JsonNode property) throws WireFault, RedfishFault {
        if (property.path("@odata.id").asText().isEmpty()) {
            return Optional.empty();
        }
        try {
            return Optional.of(client.follow(property));
        } catch (RedfishFault e) {
            if (e.absent()) {
                return Optional.empty();
            }
            throw e;
        }
    }

    /** A date-time with its offset (DSP0266, section 9.6.5; RFC 3339). */
    private static Optional<Instant> clock(String text) {
        try {
            return Optional.of(OffsetDateTime.parse(text).toInstant());
        } catch (DateTimeParseException e) {
            return Optional.empty();
        }
    }

    static void addText(List<String> texts, JsonNode value) {
        if (value.isTextual() && !value.asText().isBlank()) {
            texts.add(value.asText().strip());
        }
    }

    private static Optional<Mac> mac(Resource port) {
        try {
            return Optional.of(Mac.parse(port.json().path("MACAddress").asText()));
        } catch (IllegalArgumentException e) {
            return Optional.empty();
        }
    }

    /** A manager and the interfaces it has. */
    private record Found(JsonNode manager, List<Resource> ports) {}

    /**
     * The manager with the interface of this MAC address; where none shows that one, the first of type BMC, so that
     * the comparison can say which addresses it has.
     */
    private Found find() throws WireFault, RedfishFault {
        List<Found> all = new ArrayList<>();
        for (Resource manager : client.members(client.root().json().path("Managers"))) {
            JsonNode json = manager.json();
            JsonNode ports = json.path("EthernetInterfaces");
            Found found = new Found(json, ports.isMissingNode() ? List.of() : client.members(ports));
            if (found.ports.stream()
                    .anyMatch(port -> mac(port).filter(mac::equals).isPresent())) {
                return found;
            }
            all.add(found);
        }
        return all.stream()
                .filter(found -> found.manager.path("ManagerType").asText("BMC").equals("BMC"))
                .findFirst()
                .orElseThrow(() -> new WireFault(WireFault.Kind.GARBAGE, WireText.NO_MANAGER.text()));
    }

    /** The interface with this MAC address: never its look-alike on the host's side. */
    private Resource port(Found found) throws WireFault {
        return found.ports.stream()
                .filter(port -> mac(port).filter(mac::equals).isPresent())
                .findFirst()
                .orElseThrow(() -> new WireFault(WireFault.Kind.GARBAGE, WireText.NO_INTERFACE.text(mac)));
    }

    /** Finds the account of this name. */
    private Resource account(String user) throws WireFault, RedfishFault {
        Resource service = read(client.root().json().path("AccountService"))
                .orElseThrow(() -> new RedfishFault(501, "", List.of(), WireText.NO_ACCOUNT_SERVICE.text()));
        for (Resource account : client.members(service.json().path("Accounts"))) {
            if (account.json().path("UserName").asText().equals(user)) {
                return account;
            }
        }
        throw new WireFault(WireFault.Kind.GARBAGE, WireText.NO_ACCOUNT.text(user));
    }

    /**
     * Replaces a password. Sessions usually die with it.
     *
     * @param accountPath where the service said the account lies, or null to look it up by name
     */
    public void setPassword(String user, String accountPath, Secret phrase) throws WireFault, RedfishFault {
        Resource account = accountPath == null ? account(user) : client.get(accountPath);
        client.patch(account, phrase.use(text -> JSON.createObjectNode().put("Password", text)));
    }

    /**
     * Sets the time servers and turns NTP on, where the controller has such settings.
     *
     * @return the service's warnings
     */
    public List<String> setTime(List<String> servers) throws WireFault, RedfishFault {
        Optional<Resource> settings = read(find().manager.path("NetworkProtocol"));
        if (settings.isEmpty()) {
            return List.of(WireText.NO_TIME_SETTINGS.text());
        }
        Resource protocol = settings.get();
        ObjectNode change = JSON.createObjectNode();
        ObjectNode ntp = change.putObject("NTP").put("ProtocolEnabled", true);
        ntp.set(
                "NTPServers",
                array(servers, protocol.json().path("NTP").path("NTPServers").size()));
        return patch(protocol, change, Set.of("NTP"));
    }

    /**
     * Changes a resource; what may be missing on a controller and is refused is left out, and the rest is sent again.
     *
     * @param optional names of properties without which the rest is still worth setting
     * @return the service's warnings, and what was refused
     */
    private List<String> patch(Resource resource, ObjectNode change, Set<String> optional)
            throws WireFault, RedfishFault {
        List<String> warnings = new ArrayList<>();
        Resource current = resource;
        while (!change.isEmpty()) {
            try {
                warnings.addAll(client.patch(current, change));
                return warnings;
            } catch (RedfishFault e) {
                List<String> refused = e.properties().stream()
                        .filter(optional::contains)
                        .filter(change::has)
                        .toList();
                if (e.status() != 400 || refused.isEmpty()) {
                    throw e;
                }
                change.remove(refused);
                warnings.add(WireText.NOT_WRITTEN.text(String.join(", ", refused), e.getMessage()));
                current = client.get(resource.path());
            }
        }
        return warnings;
    }

    /**
     * Sets names, name servers, the fixed addresses and the VLAN if one is planned, and turns DHCP off. Where a service
     * requires DHCP to be off first (400), that is done in a request of its own. A name, a list of name servers or an
     * IPv6 gateway that it refuses is left out: reading back shows what is missing. When this throws
     * {@link WireFault.Kind#UNKNOWN_OUTCOME} the address may have changed: look for the machine at the new one.
     *
     * @return the service's warnings
     */
    public List<String> setNetwork(Settings plan) throws WireFault, RedfishFault {
        Resource port = port(find());
        ObjectNode off = JSON.createObjectNode();
        off.putObject("DHCPv4").put("DHCPEnabled", false);
        try {
            return patch(port, network(plan, port, true), MAY_BE_REFUSED);
        } catch (RedfishFault e) {
            if (e.status() != 400) {
                throw e;
            }
        }
        client.patch(port, off);
        return patch(client.get(port.path()), network(plan, port, false), MAY_BE_REFUSED);
    }

    private static ObjectNode network(Settings plan, Resource port, boolean withDhcp) {
        ObjectNode change =
                JSON.createObjectNode().put("HostName", plan.hostName()).put("FQDN", plan.fqdn());
        if (withDhcp) {
            change.putObject("DHCPv4").put("DHCPEnabled", false);
        }
        change.set(
                "StaticNameServers",
                array(plan.nameServers(), port.json().path("StaticNameServers").size()));
        if (plan.vlan() != null) {
            change.putObject("VLAN").put("VLANEnable", true).put("VLANId", plan.vlan());
        }
        ObjectNode fixed = change.putArray("IPv4StaticAddresses").addObject();
        fixed.put("Address", plan.address().toString())
                .put("SubnetMask", plan.mask().toString());
        if (plan.gateway() != null) {
            fixed.put("Gateway", plan.gateway().toString());
        }
        if (plan.ipv6() != null) {
            setIpv6(change, plan.ipv6(), port.json());
        }
        return change;
    }

    private static void setIpv6(ObjectNode change, Settings.Ipv6 plan, JsonNode port) {
        ObjectNode fixed = JSON.createObjectNode()
                .put("Address", plan.address().toString())
                .put("PrefixLength", plan.length());
        change.set("IPv6StaticAddresses", first(fixed, port.path("IPv6StaticAddresses")));
        if (plan.gateway() != null) {
            ObjectNode gateway =
                    JSON.createObjectNode().put("Address", plan.gateway().toString());
            change.set("IPv6StaticDefaultGateways", first(gateway, port.path("IPv6StaticDefaultGateways")));
        }
    }

    /** The only entry of a list; what else the list has is cleared. */
    private static ArrayNode first(ObjectNode entry, JsonNode list) {
        ArrayNode array = JSON.createArrayNode().add(entry);
        while (array.size() < list.size()) {
            array.addNull();
        }
        return array;
    }

    /** A list as long as the one there was: what is left over is cleared with null, as DSP0266 section 7.8 has it. */
    private static ArrayNode array(List<String> texts, int length) {
        ArrayNode array = JSON.createArrayNode();
        texts.forEach(array::add);
        while (array.size() < length) {
            array.addNull();
        }
        return array;
    }

    /** Reads back what is set. */
    public Settings settings() throws WireFault, RedfishFault {
        Found found = find();
        JsonNode port = port(found).json();
        JsonNode protocol =
                read(found.manager.path("NetworkProtocol")).map(Resource::json).orElse(JSON.createObjectNode());
        return ShownSettings.of(port, protocol);
    }
}
