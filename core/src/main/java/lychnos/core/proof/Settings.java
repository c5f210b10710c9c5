package lychnos.core.proof;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
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
 * @param ipv6 its fixed IPv6 address; null for none, and in a plan that leaves it as it is
 * @param notShown what the machine does not show, and what is therefore not compared; empty in a plan
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
        Integer vlan,
        Ipv6 ipv6,
        Set<OptionalValue> notShown) {

    /** What the standards leave to the machine: a machine that does not have it is no fault of its setup. */
    public enum OptionalValue {
        FULL_NAME("full name"),
        TIME_SERVERS("time servers"),
        NTP("NTP");

        private final String title;

        OptionalValue(String title) {
            this.title = title;
        }

        public String title() {
            return title;
        }
    }

    /**
     * A fixed IPv6 address (RFC 4291).
     *
     * @param length of its prefix, 0 to 128
     * @param gateway a fixed default gateway; null for none, and in a plan that leaves it to router advertisements
     */
    public record Ipv6(Address address, int length, Address gateway) {

        @Override
        public String toString() {
            return address + "/" + length;
        }
    }

    public Settings {
        notShown = Set.copyOf(notShown);
    }

    /** Settings of an untagged port without IPv6. */
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
        this(address, mask, gateway, dhcp, hostName, fqdn, nameServers, timeServers, ntp, null, null, Set.of());
    }

    /** The same settings with a port that is tagged with a VLAN, or is left as it is (null). */
    public Settings withVlan(Integer tag) {
        return new Settings(
                address, mask, gateway, dhcp, hostName, fqdn, nameServers, timeServers, ntp, tag, ipv6, notShown);
    }

    /** The same settings with a fixed IPv6 address, or without one (null). */
    public Settings withIpv6(Ipv6 fixed) {
        return new Settings(
                address, mask, gateway, dhcp, hostName, fqdn, nameServers, timeServers, ntp, vlan, fixed, notShown);
    }

    /** The same settings with other name servers. */
    public Settings withNameServers(List<String> servers) {
        return new Settings(
                address, mask, gateway, dhcp, hostName, fqdn, servers, timeServers, ntp, vlan, ipv6, notShown);
    }

    /** The same settings, of which a machine does not show these. */
    public Settings without(Set<OptionalValue> values) {
        return new Settings(
                address, mask, gateway, dhcp, hostName, fqdn, nameServers, timeServers, ntp, vlan, ipv6, values);
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
            return ProofText.SETTING_DIFFERS.text(
                    name, found.isEmpty() ? ProofText.EMPTY_VALUE.text() : found, planned);
        }
    }

    /** Names of the values that are the same at every endpoint of a network; the others are each machine's own. */
    public static final Set<String> OF_THE_NETWORK =
            Set.of("mask", "gateway", "IPv6 gateway", "name servers", "time servers", "NTP", "VLAN");

    /**
     * Compares what was read back with this plan, value by value. Names are compared without regard to case (RFC 4343).
     * What the machine does not show is left out.
     */
    public List<Field> compare(Settings found) {
        List<Field> fields = new ArrayList<>();
        fields.add(field("address", address, found.address));
        fields.add(field("mask", mask, found.mask));
        fields.add(field("gateway", gateway, found.gateway));
        fields.add(field("DHCP", onOff(dhcp), onOff(found.dhcp)));
        fields.add(field("host name", lower(hostName), lower(found.hostName)));
        if (found.shows(OptionalValue.FULL_NAME)) {
            fields.add(field(OptionalValue.FULL_NAME.title, lower(fqdn), lower(found.fqdn)));
        }
        fields.add(field("name servers", String.join(", ", nameServers), String.join(", ", found.nameServers)));
        if (found.shows(OptionalValue.TIME_SERVERS)) {
            boolean sameTime = new HashSet<>(timeServers).equals(new HashSet<>(found.timeServers));
            fields.add(new Field(
                    OptionalValue.TIME_SERVERS.title,
                    String.join(", ", timeServers),
                    String.join(", ", found.timeServers),
                    sameTime));
        }
        if (found.shows(OptionalValue.NTP)) {
            fields.add(field(OptionalValue.NTP.title, onOff(ntp), onOff(found.ntp)));
        }
        if (vlan != null) {
            fields.add(field("VLAN", vlan, found.vlan));
        }
        if (ipv6 != null) {
            fields.add(field("IPv6 address", ipv6, found.ipv6));
            if (ipv6.gateway != null) {
                fields.add(field("IPv6 gateway", ipv6.gateway, found.ipv6 == null ? null : found.ipv6.gateway));
            }
        }
        return fields;
    }

    private boolean shows(OptionalValue value) {
        return !notShown.contains(value);
    }

    /** What a machine does not show, for people: {@code full name, NTP}; empty where it shows everything. */
    public String notShownTitles() {
        return Stream.of(OptionalValue.values())
                .filter(notShown::contains)
                .map(OptionalValue::title)
                .collect(Collectors.joining(", "));
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
