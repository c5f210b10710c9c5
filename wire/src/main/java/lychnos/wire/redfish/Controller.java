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
import lychnos.core.address.Address;
import lychnos.core.fact.Mac;
import lychnos.core.fact.Secret;
import lychnos.core.proof.Settings;
import lychnos.wire.fault.WireFault;

/**
 * A server's management controller over Redfish: reads who it is and what is set, and sets it. Uses the schemas
 * Manager,
 * EthernetInterface, ManagerNetworkProtocol, ManagerAccount and ComputerSystem.
 */
public final class Controller {

    private static final ObjectMapper JSON = new ObjectMapper();

    private final RedfishClient client;

    /** @param client logged in */
    public Controller(RedfishClient client) {
        this.client = client;
    }

    /**
     * Who a machine says it is.
     *
     * @param serials of the systems it manages and its own, as given
     * @param macs of its interfaces
     * @param firmware its version, or an empty text
     * @param clock what time it says it is, where it does
     */
    public record Identity(List<String> serials, List<Mac> macs, String firmware, Optional<Instant> clock) {

        /** What shows that it is another machine than the label says; nothing where it is the one. */
        public Optional<String> differsFrom(String serial, Mac mac) {
            if (!serials.contains(serial)) {
                return Optional.of("its serial is " + String.join(", ", serials) + ", the label says " + serial);
            }
            return macs.contains(mac)
                    ? Optional.empty()
                    : Optional.of("none of its interfaces has " + mac + " as the label says");
        }
    }

    public Identity identity() throws WireFault, RedfishFault {
        JsonNode manager = manager();
        List<String> serials = new ArrayList<>();
        JsonNode servers = manager.path("Links").path("ManagerForServers");
        for (JsonNode server : servers) {
            addText(serials, client.follow(server).json().path("SerialNumber"));
        }
        addText(serials, manager.path("SerialNumber"));
        List<Mac> macs = new ArrayList<>();
        for (Resource port : client.members(manager.path("EthernetInterfaces"))) {
            mac(port).ifPresent(macs::add);
        }
        return new Identity(
                serials,
                macs,
                manager.path("FirmwareVersion").asText(),
                clock(manager.path("DateTime").asText()));
    }

    /** A date-time with its offset (DSP0266, section 9.6.5; RFC 3339). */
    private static Optional<Instant> clock(String text) {
        try {
            return Optional.of(OffsetDateTime.parse(text).toInstant());
        } catch (DateTimeParseException e) {
            return Optional.empty();
        }
    }

    private static void addText(List<String> texts, JsonNode value) {
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

    private JsonNode manager() throws WireFault, RedfishFault {
        List<Resource> managers = client.members(client.root().json().path("Managers"));
        for (Resource manager : managers) {
            if (manager.json().path("ManagerType").asText("BMC").equals("BMC")) {
                return manager.json();
            }
        }
        throw new WireFault(WireFault.Kind.GARBAGE, "there is no manager of type BMC");
    }

    /** The interface that bears this hardware address: never its look-alike on the host's side. */
    private Resource port(JsonNode manager, Mac mac) throws WireFault, RedfishFault {
        for (Resource port : client.members(manager.path("EthernetInterfaces"))) {
            if (mac(port).filter(mac::equals).isPresent()) {
                return port;
            }
        }
        throw new WireFault(WireFault.Kind.GARBAGE, "no interface has hardware address " + mac);
    }

    /** Finds the account of this name. */
    private Resource account(String user) throws WireFault, RedfishFault {
        Resource service = client.follow(client.root().json().path("AccountService"));
        for (Resource account : client.members(service.json().path("Accounts"))) {
            if (account.json().path("UserName").asText().equals(user)) {
                return account;
            }
        }
        throw new WireFault(WireFault.Kind.GARBAGE, "there is no account " + user);
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
     * Sets the time servers and turns NTP on.
     *
     * @return the service's warnings
     */
    public List<String> setTime(List<String> servers) throws WireFault, RedfishFault {
        Resource protocol = client.follow(manager().path("NetworkProtocol"));
        ObjectNode change = JSON.createObjectNode();
        ObjectNode ntp = change.putObject("NTP").put("ProtocolEnabled", true);
        ntp.set(
                "NTPServers",
                array(servers, protocol.json().path("NTP").path("NTPServers").size()));
        return client.patch(protocol, change);
    }

    /**
     * Sets names, name servers and the fixed address, and turns DHCP off. Where a service wants DHCP off beforehand
     * (400), that is done in a request of its own. When this throws {@link WireFault.Kind#UNKNOWN_OUTCOME} the address
     * may have changed: look for the machine at the new one.
     *
     * @return the service's warnings
     */
    public List<String> setNetwork(Mac mac, Settings plan) throws WireFault, RedfishFault {
        Resource port = port(manager(), mac);
        ObjectNode off = JSON.createObjectNode();
        off.putObject("DHCPv4").put("DHCPEnabled", false);
        try {
            return client.patch(port, network(plan, port, true));
        } catch (RedfishFault e) {
            if (e.status() != 400) {
                throw e;
            }
        }
        client.patch(port, off);
        return client.patch(client.get(port.path()), network(plan, port, false));
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
        ObjectNode fixed = change.putArray("IPv4StaticAddresses").addObject();
        fixed.put("Address", plan.address().toString())
                .put("SubnetMask", plan.mask().toString());
        if (plan.gateway() != null) {
            fixed.put("Gateway", plan.gateway().toString());
        }
        return change;
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
    public Settings settings(Mac mac) throws WireFault, RedfishFault {
        JsonNode manager = manager();
        JsonNode port = port(manager, mac).json();
        JsonNode ntp = client.follow(manager.path("NetworkProtocol")).json().path("NTP");
        JsonNode address = port.path("IPv4Addresses").path(0);
        return new Settings(
                address(address.path("Address")),
                address(address.path("SubnetMask")),
                address(address.path("Gateway")),
                port.path("DHCPv4").path("DHCPEnabled").asBoolean(),
                port.path("HostName").asText(),
                port.path("FQDN").asText(),
                texts(port.has("StaticNameServers") ? port.path("StaticNameServers") : port.path("NameServers")),
                texts(ntp.path("NTPServers")),
                ntp.path("ProtocolEnabled").asBoolean());
    }

    private static Address address(JsonNode value) {
        return Address.tryParse(value.asText())
                .filter(address -> !address.toString().equals("0.0.0.0"))
                .orElse(null);
    }

    private static List<String> texts(JsonNode array) {
        List<String> texts = new ArrayList<>();
        array.forEach(item -> addText(texts, item));
        texts.removeIf(text -> text.equals("0.0.0.0") || text.equals("::"));
        return texts;
    }
}
