package lychnos.core.dialogue;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import lychnos.core.fact.Secret;
import lychnos.core.kind.Kind;
import lychnos.core.kind.KindFaults;
import lychnos.core.kind.KindReader;
import lychnos.core.proof.OwnValue;
import lychnos.core.proof.Settings;
import lychnos.core.text.Texts;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

class LookAgainTest {

    /** Answers every name with the name itself, but for those that are given. */
    private record Known(Map<String, String> given) implements Values {

        @Override
        public Optional<String> text(String name) {
            return Optional.of(given.getOrDefault(name, name));
        }

        @Override
        public Optional<Secret> secret(String name) {
            return Optional.empty();
        }

        @Override
        public Collection<Secret> secrets() {
            return List.of();
        }

        @Override
        public String unitName() {
            return "ard-1";
        }

        @Override
        public AgreedTerms terms() {
            return AgreedTerms.NONE;
        }
    }

    private static final Known PLAN = new Known(Map.of(
            "address",
            "10.40.8.20",
            "length",
            "24",
            "gateway",
            "10.40.8.1",
            "name-server-1",
            "10.40.8.3",
            "names-used",
            "yes"));

    private static Kind kind(String id) {
        return KindReader.shipped(id);
    }

    private static LookAgain pair(boolean shared) {
        return LookAgain.of(kind("interconnect-pair").dialogue().orElseThrow(), "left", PLAN, shared);
    }

    static Stream<Kind> signedInTo() {
        return KindReader.allShipped().stream()
                .filter(kind -> kind.checks().signsIn().isPresent());
    }

    @ParameterizedTest
    @MethodSource("signedInTo")
    void everyKindThatIsSignedInToIsAskedForValues(Kind kind) {
        List<LookAgain.Command> commands = LookAgain.of(
                        kind.dialogue().orElseThrow(),
                        kind.members().labels().stream().findFirst().orElse(""),
                        PLAN,
                        false)
                .commands();
        assertTrue(commands.stream().anyMatch(command -> !command.planned().isEmpty()), kind.id());
    }

    @Test
    void twelveKindsAreSignedInTo() {
        assertEquals(12, signedInTo().count());
    }

    @Test
    void whatIsShownIsComparedValueByValue() {
        LookAgain.Command shows = pair(false).commands().get(0);
        assertEquals("net show", shows.sends());
        LookAgain.Told same = shows.judge("   oob   10.40.8.20/24\n   hop   10.40.8.1\n   dns   10.40.8.3");
        assertTrue(
                same.fields().size() == 3 && same.fields().stream().allMatch(Settings.Field::agrees), same::toString);
        LookAgain.Told other = shows.judge("   oob   10.40.8.20/24\n   hop   10.40.8.9");
        assertEquals(
                List.of("gateway", "name server 1"),
                other.fields().stream()
                        .filter(field -> !field.agrees())
                        .map(Settings.Field::name)
                        .toList());
    }

    @Test
    void aStateThatMustBeThereIsMissed() {
        LookAgain.Command leads = pair(false).commands().get(1);
        LookAgain.Told well = leads.judge("left: leads\nright: stands by\npaired, no downlinks");
        assertTrue(well.missing().isEmpty());
        assertEquals(3, well.state().size());
        LookAgain.Told turned = leads.judge("left: stands by\nright: leads");
        assertEquals(
                List.of("left: leads", "right: stands by"),
                turned.missing().stream().sorted().toList());
        assertFalse(turned.state().contains("paired, no downlinks"));
    }

    @Test
    void atAnAddressThatMembersShareNobodysOwnValuesAreCompared() {
        assertEquals(
                List.of("name server 1"),
                List.copyOf(pair(true).commands().get(0).names().values()));
    }

    @Test
    void onlyWhatChangesNothingIsAskedAgain() {
        String yaml = KindReader.asWritten("interconnect-pair")
                .replace("answer: \"store\"", "answer: \"store\", again: yes")
                .replace("answer: store", "answer: store, again: yes");
        KindFaults faults = assertThrows(KindFaults.class, () -> KindReader.read(yaml));
        assertTrue(Texts.says("core.kind.KindFaultText.AGAIN", faults.getMessage()), faults::getMessage);
    }

    @Test
    void outputTellsWhatTheMachineRuns() {
        LookAgain asks = pair(false).showing(kind("interconnect-pair").checks().shows());
        assertEquals(
                Map.of(OwnValue.FIRMWARE, "2.6.1", OwnValue.CLOCK, "2026-11-23T02:14:00Z"),
                asks.shown(List.of("   runs  2.6.1\n   utc   2026-11-23T02:14:00Z", "left: leads")));
        assertEquals(Map.of(), asks.shown(List.of("left: leads")), "what is not shown is not made up");
    }
}
