package lychnos.core.dialogue;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import lychnos.core.fact.Version;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class VersionTest {

    private static final List<String> OLDEST_FIRST =
            List.of("3", "4.2-alpha", "4.2-rc1", "4.2-rc2", "4.2", "4.2.1", "4.2(11)", "4.10", "10.0b", "10.0");

    @Test
    void ordersNumbersAsNumbers() {
        for (int seed = 0; seed < 50; seed++) {
            List<Version> shuffled =
                    new ArrayList<>(OLDEST_FIRST.stream().map(Version::parse).toList());
            Collections.shuffle(shuffled, new Random(seed));
            Collections.sort(shuffled);
            assertEquals(OLDEST_FIRST, shuffled.stream().map(Version::toString).toList(), "seed " + seed);
        }
    }

    @Test
    void aVersionThatEndsEarlierIsTheSameAsWithZeros() {
        assertEquals(Version.parse("4.2"), Version.parse("4.2.0"));
        assertEquals(Version.parse("4.2").hashCode(), Version.parse("4.2.0").hashCode());
        assertEquals(Version.parse("4.2"), Version.parse("04.02"));
        assertEquals(Version.parse("4.2").hashCode(), Version.parse("04.02").hashCode());
    }

    @Test
    void isFoundInWhatAMachineShows() {
        assertEquals(Optional.of(Version.parse("4.2(1)")), Version.find("firmware 4.2(1) of May"));
        assertEquals(Optional.empty(), Version.find("no firmware"));
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "latest", "4 2", "v4.2"})
    void aTextThatBeginsWithNoDigitIsNone(String text) {
        assertThrows(IllegalArgumentException.class, () -> Version.parse(text));
    }

    @Tag("wording")
    @ParameterizedTest
    @CsvSource({
        "4.2, , , 4.2.1, true",
        "4.2, , , 4.1.9, false",
        ", 4.2, , 4.2.9, true",
        ", 4.2, , 4.3, false",
        ", , 5, 4.99, true",
        ", , 5, 5.0, false",
        "4.2, , 6, 5, true",
        "4.2, , 6, none, false"
    })
    void aConditionBoundsIt(String from, String upTo, String before, String shown, boolean passes) {
        Condition.Test test = Condition.between("firmware", from, upTo, before);
        assertEquals(passes, test.passes(Optional.of(shown)), test.wants());
        assertFalse(test.passes(Optional.empty()));
        assertTrue(test.wants().startsWith("is "));
    }
}
