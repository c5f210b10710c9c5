package lychnos.core.proof;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import lychnos.core.proof.NameMarks.Said;
import lychnos.core.proof.Outcome.Standing;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What stands beside the ladder, and what several endpoints have in common. */
class MarksTest {

    /** One word a server: the planned address, another one, {@code none} or {@code silent}. */
    private static Map<String, Said> said(String words) {
        Map<String, Said> said = new LinkedHashMap<>();
        for (String word : words.split(" ")) {
            said.put(
                    "ns" + (said.size() + 1),
                    switch (word) {
                        case "none" -> Said.of(List.of());
                        case "silent" -> Said.nothing("does not answer");
                        default -> Said.of(List.of(word.split("\\+")));
                    });
        }
        return said;
    }

    @Tag("wording")
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                ".102 .102         |                    | .102 at ns1 and ns2",
                "none none         | NAME_MISSING       | No name server has a record for a.ardal.example.",
                "none              | NAME_MISSING       | No name server has a record for a.ardal.example.",
                ".102 none         | NAME_LAGS          | ns2 does not have a.ardal.example yet, ns1 does.",
                "none .102 .102    | NAME_LAGS          | ns1 does not have a.ardal.example yet, ns2 and ns3 do.",
                ".102 .9           | NAME_ELSEWHERE     | a.ardal.example: ns2 answers .9, expected .102.",
                ".102+.9 .102      | NAME_ELSEWHERE     | a.ardal.example: ns1 answers .102 and .9, expected .102.",
                "none .9           | NAME_ELSEWHERE     | a.ardal.example: ns2 answers .9, expected .102.",
                ".102 silent       | NAME_SERVER_SILENT | ns2 does not answer.",
                "silent silent     | NAME_SERVER_SILENT | ns1 and ns2 do not answer.",
                "silent none       | NAME_MISSING       | No name server has a record for a.ardal.example.",
            })
    void aNameIsRightWhereEveryServerSaysSo(String words, Trouble trouble, String sentence) {
        Beside mark = NameMarks.forward("a.ardal.example", ".102", said(words.strip()));
        assertEquals(trouble, mark.trouble());
        assertEquals(sentence, trouble == null ? mark.seen() : trouble.sentence(mark.seen()));
        assertEquals(words.strip().split(" ").length, mark.parts().size(), "each server is shown");
    }

    @Test
    void anAddressLeadsBackToItsName() {
        assertEquals(
                Trouble.REVERSE_MISSING,
                NameMarks.reverse("10.40.8.102", "a.ardal.example", said("none none"))
                        .trouble());
        assertEquals(
                Trouble.REVERSE_ELSEWHERE,
                NameMarks.reverse("10.40.8.102", "a.ardal.example", said("b.ardal.example"))
                        .trouble());
        assertEquals(
                Standing.HOLDS,
                NameMarks.reverse("10.40.8.102", "a.ardal.example", said("a.ardal.example"))
                        .standing());
        assertEquals(
                Standing.NOT_MEASURED,
                NameMarks.reverse("10.40.8.102", "a.ardal.example", Map.of()).standing());
    }

    @Tag("wording")
    @ParameterizedTest
    @CsvSource({
        "0, correct",
        "2400, correct",
        "-2400, correct",
        "2600, 2 s ahead",
        "-90000, 90 s behind",
        "-3600000, 60 min behind",
        "86400000000, 1000 days ahead"
    })
    void aClockIsCorrectToTheSecond(long millis, String says) {
        Beside mark = ClockMark.of(java.util.Optional.of(Duration.ofMillis(millis)), List.of());
        assertTrue(mark.seen().startsWith(says), mark.seen());
        assertEquals(says.equals("correct") ? null : Trouble.CLOCK_OFF, mark.trouble());
    }

    @ParameterizedTest
    @CsvSource({
        "2026-11-23T02:14:00Z, 2026-11-23T02:14:00Z",
        "2026-11-23 03:14:00+01:00, 2026-11-23T02:14:00Z",
        "2026-11-23 02:14:00 UTC, 2026-11-23T02:14:00Z",
        "2026-11-23 02:14:00,",
        "half past two,",
    })
    void aClockIsReadWhereItTellsItsZone(String shown, Instant instant) {
        assertEquals(java.util.Optional.ofNullable(instant), ClockMark.read(shown));
    }

    /** Asked at 100 s, answered at 110 s. */
    @ParameterizedTest
    @CsvSource({"100, 0", "105, 0", "110, 0", "113, 3", "90, -10"})
    void anExchangeThatTookAWhileIsNoFaultOfAClock(long told, long ahead) {
        assertEquals(
                Duration.ofSeconds(ahead),
                ClockMark.ahead(Instant.ofEpochSecond(told), Instant.ofEpochSecond(100), Instant.ofEpochSecond(110)));
    }

    private static List<Outcome> allHold() {
        List<Outcome> outcomes = new ArrayList<>();
        for (Rung rung : Rung.values()) {
            outcomes.add(Outcome.holds(rung, "seen"));
        }
        return outcomes;
    }

    @Test
    void aMarkThatDoesNotHoldKeepsAMachineFromBeingProven() {
        Beside reverse = NameMarks.reverse("10.40.8.102", "a.ardal.example", said("none none"));
        Verdict verdict =
                Verdict.of(allHold(), List.of(NameMarks.forward("a.ardal.example", ".102", said(".102")), reverse));
        assertEquals(7, verdict.height());
        assertEquals(SideMark.REVERSE, verdict.beside());
        assertNull(verdict.broken());
        assertEquals(Trouble.REVERSE_MISSING.sentence("10.40.8.102"), verdict.sentence());
        assertTrue(!verdict.proven());
        assertTrue(
                Verdict.of(allHold(), List.of(Beside.notMeasured(SideMark.TIME, "not told")))
                        .proven(),
                "what cannot be told is left out");
    }

    @Test
    void aBrokenRungComesBeforeAMark() {
        List<Outcome> outcomes = allHold();
        outcomes.set(6, Outcome.broken(Rung.SAFE, Trouble.MUST_BE_SHUT, "23"));
        Verdict verdict = Verdict.of(outcomes, List.of(NameMarks.forward("a", ".1", said("none"))));
        assertEquals(Rung.SAFE, verdict.broken());
        assertNull(verdict.beside());
    }

    @Test
    void anAddressForDataAnswersAndNoMore() {
        List<Outcome> outcomes = new ArrayList<>();
        for (Rung rung : Rung.values()) {
            outcomes.add(rung == Rung.ANSWERS ? Outcome.holds(rung, "ping") : Outcome.notMeasured(rung, "data"));
        }
        assertTrue(Verdict.ofAnswer(outcomes, List.of()).proven());
        assertTrue(!Verdict.of(outcomes).proven(), "for any other it is too little");
        outcomes.set(0, Outcome.broken(Rung.ANSWERS, Trouble.SILENT, "10.40.16.9"));
        assertTrue(!Verdict.ofAnswer(outcomes, List.of()).proven());
        outcomes.set(0, Outcome.notMeasured(Rung.ANSWERS, "loopback"));
        assertTrue(!Verdict.ofAnswer(outcomes, List.of()).proven(), "nothing was seen");
    }

    // --- shared causes ---

    private static SharedCause.Off off(
            String name, String unit, String rack, Trouble trouble, String seen, Part... parts) {
        return new SharedCause.Off(
                name,
                unit,
                rack,
                "Management",
                "10.40.8.1",
                "8.40.10.in-addr.arpa",
                trouble,
                seen,
                List.of(parts),
                List.of());
    }

    private static SharedCause.Off differs(String name, Settings.Field... fields) {
        return new SharedCause.Off(
                name,
                name,
                "R1",
                "Management",
                "10.40.8.1",
                "8.40.10.in-addr.arpa",
                Trouble.NOT_AS_PLANNED,
                "it differs",
                List.of(),
                List.of(fields));
    }

    private static List<String> titles(List<SharedCause> causes) {
        return causes.stream().map(SharedCause::title).toList();
    }

    @Test
    void aGatewayThatIsDownExplainsWhatIsSilentBehindIt() {
        List<SharedCause.Off> silent = List.of(
                off("a", "a", "R1", Trouble.SILENT, ".1"),
                off("b", "b", "R2", Trouble.SILENT, ".2"),
                off("c", "c", "R2", Trouble.PORT_REFUSED, "443"));
        assertEquals(
                List.of(ProofText.GATEWAY_SILENT.text("10.40.8.1")),
                titles(SharedCause.of(silent, Set.of("10.40.8.1"), Map.of("a", 3, "b", 3))));
        assertEquals(
                List.of("a", "b"),
                SharedCause.of(silent, Set.of("10.40.8.1"), Map.of()).get(0).endpoints());
        assertEquals(
                List.of(),
                SharedCause.of(silent, Set.of(), Map.of("a", 3, "b", 3)),
                "two machines that are silent may have two causes");
    }

    @Test
    void aUnitAndARackWithoutPowerAreTold() {
        List<SharedCause.Off> unit =
                List.of(off("p-l", "p", "R1", Trouble.SILENT, ".1"), off("p-r", "p", "R1", Trouble.SILENT, ".2"));
        assertEquals(List.of(ProofText.UNIT_SILENT.text("p")), titles(SharedCause.of(unit, Set.of(), Map.of("p", 2))));
        assertEquals(List.of(), SharedCause.of(unit, Set.of(), Map.of("p", 3)), "one of it answers");
        List<SharedCause.Off> rack = new ArrayList<>(unit);
        rack.add(off("q", "q", "R1", Trouble.SILENT, ".3"));
        assertEquals(
                List.of(ProofText.RACK_SILENT.text(2, "R1")),
                titles(SharedCause.of(rack, Set.of(), Map.of("p", 2, "q", 1))));
    }

    @Tag("wording")
    @Test
    void nameServersAreToldByWhatTheyDo() {
        Part second = Part.broken("10.40.8.4", "does not answer");
        assertEquals(
                List.of(ProofText.NAME_SERVER_SILENT.text("10.40.8.4")),
                titles(SharedCause.of(
                        List.of(
                                off("a", "a", "R1", Trouble.NAME_SERVER_SILENT, "", second),
                                off("b", "b", "R1", Trouble.NAME_SERVER_SILENT, "", second)),
                        Set.of(),
                        Map.of())));
        assertEquals(
                List.of(ProofText.NAME_SERVER_LAGS.text("10.40.8.4")),
                titles(SharedCause.of(
                        List.of(
                                off("a", "a", "R1", Trouble.NAME_LAGS, "", second),
                                off("b", "b", "R1", Trouble.NAME_LAGS, "", second)),
                        Set.of(),
                        Map.of())));
        assertEquals(
                List.of(ProofText.REVERSE_MISSING.text("8.40.10.in-addr.arpa")),
                titles(SharedCause.of(
                        List.of(
                                off("a", "a", "R1", Trouble.REVERSE_MISSING, ".1"),
                                off("b", "b", "R1", Trouble.REVERSE_MISSING, ".2")),
                        Set.of(),
                        Map.of())));
        assertEquals(
                List.of("Records are missing in ardal.example"),
                titles(SharedCause.of(
                        List.of(
                                off("a", "a", "R1", Trouble.NAME_MISSING, "a.ardal.example"),
                                off("b", "b", "R1", Trouble.NAME_MISSING, "b.ardal.example")),
                        Set.of(),
                        Map.of())));
    }

    @Test
    void oneWrongMaskIsOneCause() {
        Settings.Field name = new Settings.Field("host name", "a", "x", false);
        Settings.Field mask = new Settings.Field("mask", "255.255.254.0", "255.255.255.0", false);
        Settings.Field gateway = new Settings.Field("gateway", "10.40.8.1", "10.40.8.1", true);
        List<SharedCause.Off> off =
                List.of(differs("a", name, gateway, mask), differs("b", mask), differs("c", name, gateway));
        List<SharedCause> causes = SharedCause.of(off, Set.of(), Map.of());
        assertEquals(
                List.of(ProofText.SAME_SETTING.text(
                        ProofText.SETTING_DIFFERS.text("mask", "255.255.255.0", "255.255.254.0"))),
                titles(causes));
        assertEquals(List.of("a", "b"), causes.get(0).endpoints());
    }
}
