package lychnos.core.proof;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.stream.Collectors;
import lychnos.core.address.Address;

/**
 * The management settings of one machine: as planned, or as read back.
 *
 * @param address its IPv4 address, null where none was read
 * @param mask the mask
 * @param gateway the gateway, null for none
 * @param dhcp whether it still takes its address from DHCP
 * @param hostName the name without the domain
 * @param fqdn the name with the domain
 * @param nameServers addresses, order matters
 * @param timeServers addresses or names, order does not matter
 * @param ntp whether it keeps time by NTP
 * @param vlan the VLAN that its own port is tagged with (IEEE 802.1Q, 1 to 4094); null for untagged, and in a plan that
 *     leaves it as it is
 */
public record Settings(
        Address address,
        Address mask,
        Address gateway,
        boolean dhcp,
        String hostName,
        String fqdn,
        List<String> nameServers,
        List<String> timeServers,
        boolean ntp,
        Integer vlan) {

    /** Settings of an untagged port. */
    public Settings(
            Address address,
            Address mask,
            Address gateway,
            boolean dhcp,
            String hostName,
            String fqdn,
            List<String> nameServers,
            List<String> timeServers,
            boolean ntp) {
        this(address, mask, gateway, dhcp, hostName, fqdn, nameServers, timeServers, ntp, null);
    }

    /** The same settings with a port that is tagged with a VLAN, or is left as it is (null). */
    public Settings withVlan(Integer tag) {
        return new Settings(address, mask, gateway, dhcp, hostName, fqdn, nameServers, timeServers, ntp, tag);
    }

    /**
     * One value, planned and found.
     *
     * @param name what it is
     * @param agrees whether the two mean the same
     */
    public record Field(String name, String planned, String found, boolean agrees) {

        /** Both values, in a few words. */
        String difference() {
            return name + " is " + (found.isEmpty() ? "empty" : found) + ", planned " + planned;
        }
    }

    /** Names of the values that are the same at every endpoint of a network; the others are each machine's own. */
    public static final Set<String> OF_THE_NETWORK =
            Set.of("mask", "gateway", "name servers", "time servers", "NTP", "VLAN");

    /**
     * Compares what was read back with this plan, value by value. Names are compared without regard to case (RFC 4343).
     */
    public List<Field> compare(Settings found) {
        List<Field> fields = new ArrayList<>();
        fields.add(field("address", address, found.address));
        fields.add(field("mask", mask, found.mask));
        fields.add(field("gateway", gateway, found.gateway));
        fields.add(field("DHCP", onOff(dhcp), onOff(found.dhcp)));
        fields.add(field("host name", lower(hostName), lower(found.hostName)));
        fields.add(field("full name", lower(fqdn), lower(found.fqdn)));
        fields.add(field("name servers", String.join(", ", nameServers), String.join(", ", found.nameServers)));
        boolean sameTime = new HashSet<>(timeServers).equals(new HashSet<>(found.timeServers));
        fields.add(new Field(
                "time servers", String.join(", ", timeServers), String.join(", ", found.timeServers), sameTime));
        fields.add(field("NTP", onOff(ntp), onOff(found.ntp)));
        if (vlan != null) {
            fields.add(field("VLAN", vlan, found.vlan));
        }
        return fields;
    }

    /** What differs, in one sentence without its full stop; empty where all agree. */
    public static String differences(List<Field> fields) {
        return fields.stream()
                .filter(field -> !field.agrees())
                .map(Field::difference)
                .collect(Collectors.joining("; "));
    }

    private static String lower(String text) {
        return text == null ? "" : text.toLowerCase(Locale.ROOT);
    }

    private static String onOff(boolean on) {
        return on ? "on" : "off";
    }

    private static Field field(String name, Object planned, Object found) {
        String wanted = planned == null ? "none" : planned.toString();
        String got = found == null ? "none" : found.toString();
        return new Field(name, wanted, got, wanted.equals(got));
    }
}
