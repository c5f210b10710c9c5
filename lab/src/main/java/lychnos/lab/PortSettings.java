package lychnos.lab;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.List;

/** How a stand-in's management port is set, and its time servers. Guarded by the controller it belongs to. */
final class PortSettings {

    boolean dhcp = true;
    String address;
    String mask = "255.255.255.0";
    String gateway = "";
    String hostName = "lc-unset";
    String fqdn = "lc-unset";
    List<String> nameServers = List.of();
    List<String> timeServers = List.of();
    boolean ntp;
    /** The VLAN that it is tagged with, 0 for untagged. */
    int vlan;
    /** The fixed IPv6 address, or an empty text. */
    String address6 = "";

    int length6 = 64;
    String gateway6 = "";

    PortSettings(String address) {
        this.address = address;
    }

    /** A fixed address in place of DHCP. */
    void fix(String fixed, String fixedMask, String fixedGateway) {
        dhcp = false;
        address = fixed;
        mask = fixedMask;
        gateway = fixedGateway;
    }

    void patchFixed(JsonNode fixed) {
        address = fixed.path("Address").asText();
        mask = fixed.path("SubnetMask").asText(mask);
        gateway = fixed.path("Gateway").asText(gateway);
    }

    void keep(ObjectNode kept) {
        kept.put("dhcp", dhcp)
                .put("address", address)
                .put("mask", mask)
                .put("gateway", gateway)
                .put("hostName", hostName)
                .put("fqdn", fqdn)
                .put("ntp", ntp)
                .put("vlan", vlan)
                .put("address6", address6)
                .put("length6", length6)
                .put("gateway6", gateway6);
        nameServers.forEach(kept.putArray("nameServers")::add);
        timeServers.forEach(kept.putArray("timeServers")::add);
    }

    void recall(JsonNode kept) {
        dhcp = kept.path("dhcp").asBoolean();
        address = kept.path("address").asText();
        mask = kept.path("mask").asText();
        gateway = kept.path("gateway").asText();
        hostName = kept.path("hostName").asText();
        fqdn = kept.path("fqdn").asText();
        ntp = kept.path("ntp").asBoolean();
        vlan = kept.path("vlan").asInt();
        address6 = kept.path("address6").asText();
        length6 = kept.path("length6").asInt(64);
        gateway6 = kept.path("gateway6").asText();
        nameServers = texts(kept.path("nameServers"));
        timeServers = texts(kept.path("timeServers"));
    }

    void patchNames(JsonNode body) {
        hostName = body.path("HostName").asText(hostName);
        fqdn = body.path("FQDN").asText(fqdn);
        if (body.has("StaticNameServers")) {
            nameServers = texts(body.get("StaticNameServers"));
        }
    }

    void patchVlan(JsonNode tag) {
        vlan = tag.path("VLANEnable").asBoolean(vlan != 0) ? tag.path("VLANId").asInt(vlan) : 0;
    }

    void patchTime(JsonNode protocol) {
        if (protocol.has("NTPServers")) {
            timeServers = texts(protocol.get("NTPServers"));
        }
        if (protocol.has("ProtocolEnabled")) {
            ntp = protocol.get("ProtocolEnabled").asBoolean();
        }
    }

    void patchIpv6(JsonNode body) {
        JsonNode fixed = body.path("IPv6StaticAddresses").path(0);
        if (fixed.isObject()) {
            address6 = fixed.path("Address").asText();
            length6 = fixed.path("PrefixLength").asInt(64);
        }
        JsonNode way = body.path("IPv6StaticDefaultGateways").path(0);
        if (way.isObject()) {
            gateway6 = way.path("Address").asText();
        }
    }

    static List<String> texts(JsonNode array) {
        List<String> texts = new ArrayList<>();
        array.forEach(item -> {
            if (item.isTextual() && !item.asText().isEmpty()) {
                texts.add(item.asText());
            }
        });
        return List.copyOf(texts);
    }
}
