package lychnos.server.prove.notices;

import static org.junit.jupiter.api.Assertions.assertEquals;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class DatedItemsTest {

    /** Told again at each step, and not between two. */
    @ParameterizedTest
    @CsvSource({"14, 14", "13, 14", "4, 14", "3, 3", "2, 3", "1, 1", "0, 1", "-5, 1"})
    void theNearestStepThatHasComeIsTold(long days, int step) {
        assertEquals(step, DatedItems.step(days));
    }
}
