package lychnos.lab;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.UUID;

/** The resources that a stand-in shows, made from the state of its {@link Controller} at each request. */
final class Resources {

    private static final ObjectMapper JSON = new ObjectMapper();

    private static final String ENCLOSURE = Controller.ROOT + "Managers/em";
    private static final String CHASSIS = Controller.ROOT + "Chassis/sled";

    private final MachineSpec spec;
    private final Controller state;

    Resources(MachineSpec spec, Controller state) {
        this.spec = spec;
        this.state = state;
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
        return JSON.createObjectNode().put("v1", Controller.ROOT);
    }

    ObjectNode root() {
        ObjectNode root = node(Controller.ROOT, "#ServiceRoot.v1_16_1.ServiceRoot", "Root Service")
                .put("RedfishVersion", "1.17.0")
                .put("Product", "Brackenfell C4 controller")
                .put(
                        "UUID",
                        UUID.nameUUIDFromBytes(spec.serial().getBytes(StandardCharsets.UTF_8))
                                .toString());
        root.set("Managers", link(Controller.ROOT + "Managers"));
        root.set("Systems", link(Controller.ROOT + "Systems"));
        root.set("AccountService", link(Controller.ROOT + "AccountService"));
        root.set("SessionService", link(Controller.ROOT + "SessionService"));
        if (!spec.quirks().contains(Quirk.NO_CERTIFICATE_SERVICE)) {
            root.set("CertificateService", link(Controller.CERTIFICATES));
        }
        if (!spec.quirks().contains(Quirk.NO_SESSIONS)) {
            root.putObject("Links").set("Sessions", link(Controller.SESSIONS));
        }
        return root;
    }

    /** The resource at a path, or null. */
    ObjectNode find(String path) {
        return switch (path) {
            case Controller.ROOT + "Managers" ->
                spec.quirks().contains(Quirk.SECOND_MANAGER)
                        ? collection(path, "ManagerCollection", ENCLOSURE, Controller.MANAGER)
                        : collection(path, "ManagerCollection", Controller.MANAGER);
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
            case Controller.ROOT + "Systems" ->
                collection(path, "ComputerSystemCollection", Controller.ROOT + "Systems/node");
            case Controller.ROOT + "Systems/node" ->
                with(node(path, "#ComputerSystem.v1_22_1.ComputerSystem", "Node"), "SerialNumber", shown(null))
                        .put("Model", "Brackenfell C4");
            case Controller.ROOT + "AccountService" ->
                service(path, "#AccountService.v1_15_1.AccountService", "Accounts", Controller.ACCOUNTS);
            case Controller.ROOT + "SessionService" ->
                service(path, "#SessionService.v1_1_9.SessionService", "Sessions", Controller.SESSIONS);
            case Controller.ACCOUNTS ->
                collection(path, "ManagerAccountCollection", Controller.ACCOUNTS + "/3", Controller.ACCOUNT);
            case Controller.ACCOUNTS + "/3" -> account(path, "spare", false);
            case Controller.ACCOUNT -> account(path, spec.user(), true);
            case Controller.MANAGER -> manager();
            case Controller.PORTS ->
                collection(path, "EthernetInterfaceCollection", Controller.PORTS + "/host", Controller.OOB);
            case Controller.PORTS + "/host" ->
                node(path, "#EthernetInterface.v1_12_1.EthernetInterface", "Host side")
                        .put("MACAddress", "02:4c:59:ff:00:01")
                        .put("InterfaceEnabled", false);
            case Controller.OOB -> oob();
            case Controller.PROTOCOL -> protocol();
            case Controller.CERTIFICATES -> certificates(path);
            case Controller.WEB_CERTIFICATES -> collection(path, "CertificateCollection", Controller.WEB_CERTIFICATE);
            case Controller.WEB_CERTIFICATE ->
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
        actions.putObject("#CertificateService.GenerateCSR").put("target", Controller.REQUEST_CERTIFICATE);
        actions.putObject("#CertificateService.ReplaceCertificate").put("target", Controller.REPLACE_CERTIFICATE);
        return service;
    }

    private ObjectNode manager() {
        ObjectNode manager = node(Controller.MANAGER, "#Manager.v1_19_1.Manager", "Controller")
                .put("ManagerType", "BMC")
                .put("FirmwareVersion", state.firmware())
                .put(
                        "DateTime",
                        Instant.now()
                                .plusSeconds(state.ahead())
                                .truncatedTo(ChronoUnit.SECONDS)
                                .toString());
        manager.set("EthernetInterfaces", link(Controller.PORTS));
        if (!spec.quirks().contains(Quirk.NO_PROTOCOL_SETTINGS)) {
            manager.set("NetworkProtocol", link(Controller.PROTOCOL));
        }
        ObjectNode links = manager.putObject("Links");
        links.putArray("ManagerForServers").add(link(Controller.ROOT + "Systems/node"));
        links.putArray("ManagerForChassis").add(link(CHASSIS));
        return manager;
    }

    ObjectNode oob() {
        ObjectNode port = node(Controller.OOB, "#EthernetInterface.v1_12_1.EthernetInterface", "Management")
                .put("MACAddress", spec.mac().toUpperCase(java.util.Locale.ROOT))
                .put("InterfaceEnabled", true)
                .put("HostName", state.hostName);
        putFullName(port);
        port.putObject("DHCPv4").put("DHCPEnabled", state.dhcp);
        port.putArray("IPv4Addresses")
                .addObject()
                .put("Address", state.address)
                .put("SubnetMask", state.mask)
                .put("Gateway", state.gateway)
                .put("AddressOrigin", state.dhcp ? "DHCP" : "Static");
        if (!spec.quirks().contains(Quirk.NO_VLAN)) {
            ObjectNode vlan = port.putObject("VLAN").put("VLANEnable", state.vlan != 0);
            vlan.put("VLANId", state.vlan);
        }
        ipv6(port);
        port.set("NameServers", state.list(state.nameServers));
        port.set("StaticNameServers", state.list(state.nameServers));
        return port;
    }

    private void putFullName(ObjectNode node) {
        if (!spec.quirks().contains(Quirk.NO_FULL_NAME)) {
            node.put("FQDN", state.fqdn);
        }
    }

    private void ipv6(ObjectNode port) {
        var fixed = port.putArray("IPv6StaticAddresses");
        var all = port.putArray("IPv6Addresses");
        if (!state.address6.isEmpty()) {
            fixed.addObject().put("Address", state.address6).put("PrefixLength", state.length6);
            all.addObject()
                    .put("Address", state.address6)
                    .put("PrefixLength", state.length6)
                    .put("AddressOrigin", "Static")
                    .put("AddressState", "Preferred");
        }
        var gateways = port.putArray("IPv6StaticDefaultGateways");
        if (!state.gateway6.isEmpty()) {
            gateways.addObject().put("Address", state.gateway6);
        }
    }

    ObjectNode protocol() {
        ObjectNode protocol = node(
                        Controller.PROTOCOL,
                        "#ManagerNetworkProtocol.v1_10_1.ManagerNetworkProtocol",
                        "Network protocol")
                .put("HostName", state.hostName);
        putFullName(protocol);
        if (!spec.quirks().contains(Quirk.NO_TIME_SERVICE)) {
            ObjectNode ntp = protocol.putObject("NTP").put("ProtocolEnabled", state.ntp);
            ntp.set("NTPServers", state.list(state.timeServers));
        }
        protocol.putObject("HTTPS").put("ProtocolEnabled", true).set("Certificates", link(Controller.WEB_CERTIFICATES));
        return protocol;
    }
}
