package lychnos.core.sheet;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import lychnos.core.dialogue.AgreedTerms;
import lychnos.core.fact.Secret;
import lychnos.core.kind.Kind;
import lychnos.core.kind.KindReader;
import lychnos.core.sheet.ValueList.PlannedValue;
import org.junit.jupiter.api.Test;

class ValueListTest {

    private static List<PlannedValue> listed(String id, String member, Map<String, String> known) {
        Kind kind = KindReader.shipped(id);
        return ValueList.of(
                kind,
                new MemberValues(
                        UnitFacts.resolve(kind, kind.members().labels().size(), Map.of(), Map.of()),
                        member,
                        "ard-one-1",
                        List.of(),
                        known,
                        Map.of(),
                        Map.of("factory.phrase", Secret.of("tarnbeck")),
                        AgreedTerms.NONE));
    }

    private static Optional<PlannedValue> of(List<PlannedValue> all, String name) {
        return all.stream().filter(value -> value.name().equals(name)).findFirst();
    }

    @Test
    void whatEveryMachineIsAskedComesFirstAndPasswordsLastWithoutTheirText() {
        List<PlannedValue> all = listed(
                "console-manager",
                "",
                Map.of("serial", "CM-1", "address", "10.40.8.41", "gateway", "10.40.8.1", "name", "ard-one-1"));
        assertEquals("address", all.get(0).name());
        assertEquals(Optional.of("10.40.8.41"), all.get(0).text());
        PlannedValue last = all.get(all.size() - 1);
        assertEquals("factory.phrase", last.name());
        assertEquals(Optional.empty(), last.text());
        assertTrue(of(all, "serial").isPresent());
    }

    @Test
    void aValueWithTwoNamesIsListedOnceAndTheNumberOfASingleMachineNotAtAll() {
        List<PlannedValue> all = listed(
                "console-manager",
                "",
                Map.of("name", "ard-one-1", "address", "10.40.8.41", "management.address", "10.40.8.41"));
        assertEquals(
                1,
                all.stream()
                        .filter(value -> value.text().equals(Optional.of("10.40.8.41")))
                        .count(),
                all::toString);
        assertEquals(Optional.empty(), of(all, "member-number"));
        assertEquals(Optional.empty(), of(all, "unit"));
    }
}
