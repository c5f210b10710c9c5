package lychnos.core.kind;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What the short form writes is a kind that can be used at once. */
class KindFormTest {

    private static KindForm form(List<String> members, int each, int shared) {
        return new KindForm(
                "power-meter",
                "Power meter: \"hall\" edition",
                "pwm",
                members,
                each,
                shared,
                List.of("Asset number"),
                "owner",
                "o: w#ner",
                8443,
                List.of(5900),
                List.of(23, 80),
                "http://192.0.2.7/",
                List.of());
    }

    @ParameterizedTest
    @CsvSource({"1, 0", "3, 0", "1, 1", "2, 3", "0, 2", "8, 8"})
    void everyNumberOfMembersAndAddressesIsAKind(int each, int shared) {
        for (List<String> members : List.of(List.<String>of(), List.of("left", "right"), List.of("a", "b", "c"))) {
            Kind kind = KindReader.read(form(members, each, shared).text());
            assertEquals(
                    Math.max(1, members.size()) * each + shared,
                    kind.needs(kind.members().most(), Map.of()).get(0).roles().size());
            assertEquals(
                    kind.needs(kind.members().most(), Map.of()).get(0).roles().size(),
                    kind.hostNames("ard-pwm-01", kind.members().most(), Map.of()).values().stream()
                            .distinct()
                            .count(),
                    "every address has a name of its own");
        }
    }

    @Test
    void whatIsTypedStandsInTheKindAsItIs() {
        Kind kind = KindReader.read(form(List.of("left", "right"), 1, 1).text());
        assertEquals("Power meter: \"hall\" edition", kind.title());
        assertEquals("owner", kind.factory().user());
        assertEquals("o: w#ner", kind.factory().phrase().use(text -> text));
        assertEquals(8443, kind.port());
        assertEquals(List.of(5900), kind.checks().open());
        assertEquals(List.of(23, 80), kind.shut());
        assertTrue(kind.fact("asset-number").isPresent());
        assertTrue(kind.dialogue().orElseThrow().needed("left").contains("address"));
    }

    @Test
    void aUnitWithoutAnAddressIsRefused() {
        KindForm none = form(List.of(), 0, 0);
        assertThrows(IllegalArgumentException.class, none::text);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {"Power meter|power-meter", "  3rd Generation PDU! |rd-generation-pdu", "é|''"})
    void aTitleGivesAWord(String title, String word) {
        assertEquals(word, KindForm.word(title));
    }
}
