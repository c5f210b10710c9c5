package lychnos.core.proof;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

class VerdictTest {

    /** One letter a rung: h holds, b broken, n not reached, m not measured. */
    private static List<Outcome> outcomes(String letters) {
        List<Outcome> outcomes = new ArrayList<>();
        for (Rung rung : Rung.values()) {
            outcomes.add(
                    switch (letters.charAt(rung.ordinal())) {
                        case 'h' -> Outcome.holds(rung, "seen");
                        case 'b' -> Outcome.broken(rung, Trouble.PORT_REFUSED, "443");
                        case 'm' -> Outcome.notMeasured(rung, "loopback");
                        default -> Outcome.notReached(rung);
                    });
        }
        return outcomes;
    }

    @Tag("wording")
    @ParameterizedTest
    @CsvSource({
        "hhhhhhh, 7, , true",
        "bnnnnnn, 0, ANSWERS, false",
        "hbnnnnn, 1, PORT, false",
        "hhbnnnn, 2, TLS, false",
        "hhhbnnn, 3, SERVICE, false",
        "hhhhbnn, 4, IDENTITY, false",
        "hhhhhbn, 5, AS_PLANNED, false",
        "hhhhhhb, 6, SAFE, false",
        "mhhhhhh, 6, , true",
        "hhhhhhm, 6, , true",
        "mhhhbnn, 3, IDENTITY, false",
        "hhhhmhh, 6, , false",
        "hhnnnnn, 2, , false",
        "nnnnnnn, 0, , false",
    })
    void comesToTheHighestRungThatHoldsAndTheFirstThatDoesNot(
            String letters, int height, String broken, boolean proven) {
        Verdict verdict = Verdict.of(outcomes(letters));
        assertEquals(height, verdict.height());
        assertEquals(broken, verdict.broken() == null ? null : verdict.broken().name());
        assertEquals(proven, verdict.proven());
        assertTrue(verdict.sentence().endsWith("."));
    }

    @Test
    void aRungThatIsMissingIsNotTakenForGranted() {
        List<Outcome> six = outcomes("hhhhhhh").subList(0, 6);
        assertThrows(IllegalArgumentException.class, () -> Verdict.of(six));
    }

    @Tag("wording")
    @ParameterizedTest
    @EnumSource(Trouble.class)
    void everyTroubleSaysWhatItIsAndWhatToDo(Trouble trouble) {
        assertTrue(trouble.sentence("this was seen").endsWith("."), trouble.sentence("this was seen"));
        assertTrue(trouble.press().endsWith("."));
    }
}
