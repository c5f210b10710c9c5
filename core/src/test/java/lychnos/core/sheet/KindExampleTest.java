package lychnos.core.sheet;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.HashSet;
import java.util.List;
import java.util.stream.Stream;
import lychnos.core.kind.Kind;
import lychnos.core.kind.KindReader;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

class KindExampleTest {

    static Stream<String> shipped() {
        return KindReader.shippedIds().stream();
    }

    @ParameterizedTest
    @MethodSource("shipped")
    void everyShippedKindHasAddressesNamesAndAnswers(String id) {
        Kind kind = KindReader.shipped(id);
        KindExample example = KindExample.of(kind);
        assertTrue(example.unit().startsWith("ard-" + kind.shortName()), example.unit());
        List<String> addresses =
                example.places().stream().map(KindExample.ExamplePlace::address).toList();
        assertFalse(addresses.isEmpty());
        assertEquals(addresses.size(), new HashSet<>(addresses).size(), "no address is given twice");
        assertEquals(
                kind.members().of(kind.members().least()),
                example.members().stream().map(KindExample.ExampleMember::label).toList());
        example.members().stream()
                .flatMap(member -> member.steps().stream())
                .filter(KindExample.ExampleStep::asked)
                .flatMap(step -> Stream.concat(Stream.of(step.answer()), step.fields().values().stream()))
                .filter(answer -> answer.contains("{address}") || answer.contains("{name}"))
                .forEach(answer -> assertEquals("", answer, "every value that is allocated is filled in"));
    }

    @Test
    void showsNoPassword() {
        KindExample example = KindExample.of(KindReader.shipped("interconnect-pair"));
        String all = example.toString();
        assertTrue(all.contains("••••••••"));
        assertFalse(all.contains("orrel]") || all.contains("answer=orrel"), all);
    }
}
