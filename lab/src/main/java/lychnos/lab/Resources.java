package lychnos.lab;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.UUID;

/** The resources that a stand-in shows, made from the state of its {@link Controller} at each request. */
final class Resources {

    private static final ObjectMapper JSON = new ObjectMapper();

    private static final String ENCLOSURE = Paths.ROOT + "Managers/em";
    private static final String CHASSIS = Paths.ROOT + "Chassis/sled";

    private final MachineSpec spec;
    private final Controller state;
    private final PortSettings port;

    Resources(MachineSpec spec, Controller state, PortSettings port) {
        this.spec = spec;
        this.state = state;
        this.port = port;
    }

    ObjectNode node(String id, String type, String name) {
        return JSON.createObjectNode()
                .put("@odata.id", id)
                .put("@odata.type", type)
                .put("Id", id.substring(id.lastIndexOf('/') + 1))
                .put("Name", name);
    }

    private ObjectNode link(String id) {
        return JSON.createObjectNode().put("@odata.id", id);
    }

    private ObjectNode collection(String id, String type, String... members) {
        ObjectNode node = node(id, "#" + type + "." + type, type).put("Members@odata.count", members.length);
        var list = node.putArray("Members");
        for (String member : members) {
            list.add(link(member));
        }
        return node;
    }

    ObjectNode versions() {
        return JSON.createObjectNode().put("v1", Paths.ROOT);
    }

    ObjectNode root() {
        ObjectNode root = node(Paths.ROOT, "#ServiceRoot.v1_16_1.ServiceRoot", "Root Service")
                .put("RedfishVersion", "1.17.0")
                .put("Product", "Brackenfell C4 controller")
                .put(
                        "UUID",
                        UUID.nameUUIDFromBytes(spec.serial().getBytes(StandardCharsets.UTF_8))
                                .toString());
        root.set("Managers", link(Paths.ROOT + "Managers"));
        root.set("Systems", link(Paths.ROOT + "Systems"));
        root.set("AccountService", link(Paths.ROOT + "AccountService"));
        root.set("SessionService", link(Paths.ROOT + "SessionService"));
        if (!spec.quirks().contains(Quirk.NO_CERTIFICATE_SERVICE)) {
            root.set("CertificateService", link(Paths.CERTIFICATES));
        }
        if (!spec.quirks().contains(Quirk.NO_SESSIONS)) {
            root.putObject("Links").set("Sessions", link(Paths.SESSIONS));
        }
        return root;
    }

    /** The resource at a path, or null. */
    ObjectNode find(String path) {
        return switch (path) {
            case Paths.ROOT + "Managers" ->
                spec.quirks().contains(Quirk.SECOND_MANAGER)
                        ? collection(path, "ManagerCollection", ENCLOSURE, Paths.MANAGER)
                        : collection(path, "ManagerCollection", Paths.MANAGER);
            case ENCLOSURE -> enclosure();
            case ENCLOSURE + "/EthernetInterfaces" -> collection(path, "EthernetInterfaceCollection", path + "/uplink");
            case ENCLOSURE + "/EthernetInterfaces/uplink" ->
                node(path, "#EthernetInterface.v1_12_1.EthernetInterface", "Uplink")
                        .put("MACAddress", "02:4c:59:ff:00:02")
                        .put("InterfaceEnabled", true);
            case CHASSIS ->
                spec.quirks().contains(Quirk.MISSING_CHASSIS)
                        ? null
                        : with(
                                node(path, "#Chassis.v1_25_1.Chassis", "Sled"),
                                "SerialNumber",
                                shown(Quirk.CHASSIS_SERIAL));
            case Paths.ROOT + "Systems" -> collection(path, "ComputerSystemCollection", Paths.ROOT + "Systems/node");
            case Paths.ROOT + "Systems/node" ->
                with(node(path, "#ComputerSystem.v1_22_1.ComputerSystem", "Node"), "SerialNumber", shown(null))
                        .put("Model", "Brackenfell C4");
            case Paths.ROOT + "AccountService" ->
                service(path, "#AccountService.v1_15_1.AccountService", "Accounts", Paths.ACCOUNTS);
            case Paths.ROOT + "SessionService" ->
                service(path, "#SessionService.v1_1_9.SessionService", "Sessions", Paths.SESSIONS);
            case Paths.ACCOUNTS -> collection(path, "ManagerAccountCollection", Paths.ACCOUNTS + "/3", Paths.ACCOUNT);
            case Paths.ACCOUNTS + "/3" -> account(path, "spare", false);
            case Paths.ACCOUNT -> account(path, spec.user(), true);
            case Paths.MANAGER -> manager();
            case Paths.PORTS -> collection(path, "EthernetInterfaceCollection", Paths.PORTS + "/host", Paths.OOB);
            case Paths.PORTS + "/host" ->
                node(path, "#EthernetInterface.v1_12_1.EthernetInterface", "Host side")
                        .put("MACAddress", "02:4c:59:ff:00:01")
                        .put("InterfaceEnabled", false);
            case Paths.OOB -> oob();
            case Paths.PROTOCOL -> protocol();
            case Paths.CERTIFICATES -> certificates(path);
            case Paths.WEB_CERTIFICATES -> collection(path, "CertificateCollection", Paths.WEB_CERTIFICATE);
            case Paths.WEB_CERTIFICATE ->
                node(path, "#Certificate.v1_8_0.Certificate", "Web service").put("CertificateType", "PEM");
            default -> null;
        };
    }

    private static ObjectNode with(ObjectNode node, String name, String value) {
        return value == null ? node : node.put(name, value);
    }

    /** The serial where it is shown: on the system, unless a quirk moves it. */
    private String shown(Quirk elsewhere) {
        boolean none = spec.quirks().contains(Quirk.NO_SERIAL);
        boolean here = elsewhere == null
                ? !spec.quirks().contains(Quirk.CHASSIS_SERIAL)
                : spec.quirks().contains(elsewhere);
        return here && !none ? serial() : null;
    }

    private ObjectNode enclosure() {
        ObjectNode manager =
                node(ENCLOSURE, "#Manager.v1_19_1.Manager", "Enclosure").put("ManagerType", "BMC");
        manager.set("EthernetInterfaces", link(ENCLOSURE + "/EthernetInterfaces"));
        return manager;
    }

    private String serial() {
        return spec.quirks().contains(Quirk.OTHER_SERIAL) ? spec.serial() + "-X" : spec.serial();
    }

    private ObjectNode service(String path, String type, String name, String members) {
        ObjectNode service = node(path, type, name);
        service.set(name, link(members));
        return service;
    }

    private ObjectNode account(String path, String user, boolean enabled) {
        return node(path, "#ManagerAccount.v1_12_1.ManagerAccount", "Account")
                .put("UserName", user)
                .put("Enabled", enabled)
                .put("RoleId", "Administrator")
                .putNull("Password");
    }

    private ObjectNode certificates(String path) {
        ObjectNode service = node(path, "#CertificateService.v1_0_5.CertificateService", "Certificates");
        ObjectNode actions = service.putObject("Actions");
        actions.putObject("#CertificateService.GenerateCSR").put("target", Paths.REQUEST_CERTIFICATE);
        actions.putObject("#CertificateService.ReplaceCertificate").put("target", Paths.REPLACE_CERTIFICATE);
        return service;
    }

    private ObjectNode manager() {
        ObjectNode manager = node(Paths.MANAGER, "#Manager.v1_19_1.Manager", "Controller")
                .put("ManagerType", "BMC")
                .put("FirmwareVersion", state.firmware())
                .put(
                        "DateTime",
                        Instant.now()
                                .plusSeconds(state.ahead())
                                .truncatedTo(ChronoUnit.SECONDS)
                                .toString());
        manager.set("EthernetInterfaces", link(Paths.PORTS));
        if (!spec.quirks().contains(Quirk.NO_PROTOCOL_SETTINGS)) {
            manager.set("NetworkProtocol", link(Paths.PROTOCOL));
        }
        ObjectNode links = manager.putObject("Links");
        links.putArray("ManagerForServers").add(link(Paths.ROOT + "Systems/node"));
        links.putArray("ManagerForChassis").add(link(CHASSIS));
        return manager;
    }

    ObjectNode oob() {
        ObjectNode shown = node(Paths.OOB, "#EthernetInterface.v1_12_1.EthernetInterface", "Management")
                .put("MACAddress", spec.mac().toUpperCase(java.util.Locale.ROOT))
                .put("InterfaceEnabled", true)
                .put("HostName", port.hostName);
        putFullName(shown);
        shown.putObject("DHCPv4").put("DHCPEnabled", port.dhcp);
        shown.putArray("IPv4Addresses")
                .addObject()
                .put("Address", port.address)
                .put("SubnetMask", port.mask)
                .put("Gateway", port.gateway)
                .put("AddressOrigin", port.dhcp ? "DHCP" : "Static");
        if (!spec.quirks().contains(Quirk.NO_VLAN)) {
            ObjectNode vlan = shown.putObject("VLAN").put("VLANEnable", port.vlan != 0);
            vlan.put("VLANId", port.vlan);
        }
        ipv6(shown);
        shown.set("NameServers", list(port.nameServers));
        shown.set("StaticNameServers", list(port.nameServers));
        return shown;
    }

    private void putFullName(ObjectNode node) {
        if (!spec.quirks().contains(Quirk.NO_FULL_NAME)) {
            node.put("FQDN", port.fqdn);
        }
    }

    private void ipv6(ObjectNode shown) {
        var fixed = shown.putArray("IPv6StaticAddresses");
        var all = shown.putArray("IPv6Addresses");
        if (!port.address6.isEmpty()) {
            fixed.addObject().put("Address", port.address6).put("PrefixLength", port.length6);
            all.addObject()
                    .put("Address", port.address6)
                    .put("PrefixLength", port.length6)
                    .put("AddressOrigin", "Static")
                    .put("AddressState", "Preferred");
        }
        var gateways = shown.putArray("IPv6StaticDefaultGateways");
        if (!port.gateway6.isEmpty()) {
            gateways.addObject().put("Address", port.gateway6);
        }
    }

    ObjectNode protocol() {
        ObjectNode protocol = node(
                        Paths.PROTOCOL, "#ManagerNetworkProtocol.v1_10_1.ManagerNetworkProtocol", "Network protocol")
                .put("HostName", port.hostName);
        putFullName(protocol);
        if (!spec.quirks().contains(Quirk.NO_TIME_SERVICE)) {
            ObjectNode ntp = protocol.putObject("NTP").put("ProtocolEnabled", port.ntp);
            ntp.set("NTPServers", list(port.timeServers));
        }
        protocol.putObject("HTTPS").put("ProtocolEnabled", true).set("Certificates", link(Paths.WEB_CERTIFICATES));
        return protocol;
    }

    private ArrayNode list(List<String> texts) {
        ArrayNode array = JSON.createArrayNode();
        texts.forEach(array::add);
        while (spec.quirks().contains(Quirk.PADDED_LISTS) && array.size() < 4) {
            array.add("");
        }
        return array;
    }
}
