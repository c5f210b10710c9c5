package lychnos.core.proof;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.util.EnumSet;
import java.util.List;
import lychnos.core.address.Address;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

class SettingsTest {

    private static Settings settings(String address, boolean dhcp, String name, List<String> dns, List<String> ntp) {
        return new Settings(
                Address.parse(address),
                Address.parse("255.255.255.0"),
                Address.parse("10.40.8.1"),
                dhcp,
                name,
                name + ".ardal.example",
                dns,
                ntp,
                true);
    }

    private static List<String> differing(Settings found) {
        Settings plan = settings(
                "10.40.8.101",
                false,
                "ard-srv-001-oob",
                List.of("10.40.8.3", "10.40.8.4"),
                List.of("10.40.8.6", "10.40.8.7"));
        return plan.compare(found).stream()
                .filter(field -> !field.agrees())
                .map(Settings.Field::name)
                .toList();
    }

    @Test
    void spellingAndTheOrderOfTimeServersDoNotMatter() {
        assertEquals(
                List.of(),
                differing(settings(
                        "10.40.8.101",
                        false,
                        "ARD-SRV-001-OOB",
                        List.of("10.40.8.3", "10.40.8.4"),
                        List.of("10.40.8.7", "10.40.8.6"))));
    }

    @Test
    void everyDifferenceIsNamed() {
        assertEquals(
                List.of("address", "DHCP", "host name", "full name", "name servers", "time servers"),
                differing(settings(
                        "10.40.8.12", true, "lc-unset", List.of("10.40.8.4", "10.40.8.3"), List.of("10.40.8.6"))));
    }

    @Tag("wording")
    @Test
    void ipv6IsComparedOnlyWherePlanned() {
        Settings bare = settings("10.40.8.101", false, "a", List.of(), List.of());
        Settings.Ipv6 fixed = new Settings.Ipv6(Address.parse("fd40:a4da:1:8::65"), 64, null);
        Settings both = bare.withIpv6(fixed);
        assertEquals("", Settings.differences(bare.compare(both)));
        assertEquals(
                ProofText.SETTING_DIFFERS.text("IPv6 address", "none", "fd40:a4da:1:8::65/64"),
                Settings.differences(both.compare(bare)));
        assertEquals(
                ProofText.SETTING_DIFFERS.text("IPv6 address", "fd40:a4da:1:8::65/48", "fd40:a4da:1:8::65/64"),
                Settings.differences(
                        both.compare(bare.withIpv6(new Settings.Ipv6(fixed.address(), 48, Address.parse("fe80::1"))))));
        Settings gateway = bare.withIpv6(new Settings.Ipv6(fixed.address(), 64, Address.parse("fd40:a4da:1:8::1")));
        assertEquals("IPv6 gateway is none, planned fd40:a4da:1:8::1", Settings.differences(gateway.compare(both)));
    }

    @Test
    void whatAMachineDoesNotShowIsNotCompared() {
        Settings plan = settings("10.40.8.101", false, "a", List.of(), List.of("10.40.8.6"));
        Settings found = new Settings(
                        plan.address(), plan.mask(), plan.gateway(), false, "a", "", List.of(), List.of(), false)
                .without(EnumSet.allOf(Settings.OptionalValue.class));
        assertEquals("", Settings.differences(plan.compare(found)));
        assertEquals("full name, time servers, NTP", found.notShownTitles());
    }

    @Test
    void whatIsMissingIsADifferenceNotAFailure() {
        assertEquals(
                List.of("address", "mask", "gateway", "host name", "full name", "name servers", "time servers", "NTP"),
                differing(new Settings(null, null, null, false, "", "", List.of(), List.of(), false)));
    }
}
