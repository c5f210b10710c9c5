package lychnos.core.fact;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class RackPositionTest {

    @ParameterizedTest
    @ValueSource(strings = {"R1 u7", "r1-U07", "R1/7", " R1:u7 ", "R1, u7"})
    void readsWhatStandsOnLabels(String text) {
        assertEquals(new RackPosition("R1", 7), RackPosition.parse(text));
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "R1", "u7", "R1 u0", "R1 u100", "1 u7", "R1 u7 left", "R1 seven"})
    void refusesEverythingElse(String text) {
        assertThrows(IllegalArgumentException.class, () -> RackPosition.parse(text));
    }

    @Test
    void sortsRacksAsPeopleCountThem() {
        List<String> sorted = List.of("R10 u1", "R2 u10", "R2 u9", "R1 u40").stream()
                .map(RackPosition::parse)
                .sorted()
                .map(RackPosition::toString)
                .toList();
        assertEquals(List.of("R1 u40", "R2 u9", "R2 u10", "R10 u1"), sorted);
    }
}
