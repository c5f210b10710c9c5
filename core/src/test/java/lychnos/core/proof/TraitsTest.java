package lychnos.core.proof;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What endpoints show of themselves, compared with what was accepted; and names on certificates. */
class TraitsTest {

    @Test
    void whatCouldNotBeSeenIsNoChange() {
        Map<String, String> accepted = Map.of(Traits.CERTIFICATE, "aa", Traits.FIRMWARE, "4.18.2");
        assertEquals(List.of(), Traits.changes(accepted, Map.of(Traits.CERTIFICATE, "aa")));
        assertEquals(
                List.of(),
                Traits.changes(accepted, Map.of(Traits.HOST_KEY, "SHA256:new")),
                "what was never accepted has not changed");
        assertEquals(
                List.of(new Traits.Change(Traits.FIRMWARE, "4.18.2", "4.19.0")),
                Traits.changes(accepted, Map.of(Traits.FIRMWARE, "4.19.0", Traits.CERTIFICATE, "aa")));
    }

    @Test
    void whatIsSeenForTheFirstTimeIsAcceptedWithTheRest() {
        assertEquals(
                Map.of(Traits.FIRMWARE, "4.18.2", Traits.CLOCK, "in step"),
                Traits.grown(
                        Map.of(Traits.FIRMWARE, "4.18.2"), Map.of(Traits.FIRMWARE, "4.19.0", Traits.CLOCK, "in step")));
    }

    @ParameterizedTest
    @CsvSource({
        "certificate, true",
        "host key, true",
        "firmware, true",
        "setting: mask, true",
        "state: Into service, true",
        "factory password, false",
        "port 23, false",
        "name, false",
        "reverse name, false",
        "clock, false"
    })
    void whoElseIsLetInIsNeverAccepted(String what, boolean acceptable) {
        assertEquals(acceptable, Traits.acceptable(what));
    }

    @Test
    void anAcceptedSettingCountsAsLongAsItStays() {
        List<Settings.Field> fields = List.of(
                new Settings.Field("mask", "255.255.255.0", "255.255.0.0", false),
                new Settings.Field("NTP", "on", "off", false));
        Map<String, String> accepted = Map.of("setting: mask", "255.255.0.0", "setting: NTP", "on");
        assertEquals(
                List.of(true, false),
                Accepted.apply(fields, accepted).stream()
                        .map(Settings.Field::agrees)
                        .toList());
    }

    @Test
    void aFaultThatSomebodyHoldsKeepsItFromBeingProven() {
        Verdict proven = new Verdict(7, null, ProofText.ALL_RUNGS_PASS.text(), "", true, null, true);
        Verdict held = proven.heldForFault("firmware was 4.18.2, is 4.17.0 (too old)");
        assertFalse(held.proven());
        assertEquals(ProofText.REJECTED.text("firmware was 4.18.2, is 4.17.0 (too old)"), held.sentence());
    }

    /** RFC 9525, section 6.3. */
    @ParameterizedTest
    @CsvSource({
        "a.ardal.example, a.ardal.example, true",
        "A.Ardal.Example., a.ardal.example, true",
        "*.ardal.example, a.ardal.example, true",
        "*.ardal.example, a.hall.ardal.example, false",
        "*.ardal.example, ardal.example, false",
        "a*.ardal.example, ab.ardal.example, false",
        "b.ardal.example, a.ardal.example, false",
        "10.40.8.7, a.ardal.example, false",
    })
    void aNameCoversAMachine(String name, String fqdn, boolean covers) {
        assertEquals(covers, CertificateNames.cover(List.of(name), fqdn, "10.40.8.7"));
    }

    @Test
    void anAddressCoversWhatHasNoName() {
        assertTrue(CertificateNames.cover(List.of("10.40.8.7"), "", "10.40.8.7"));
        assertFalse(CertificateNames.cover(List.of(), "", "10.40.8.7"));
    }
}
