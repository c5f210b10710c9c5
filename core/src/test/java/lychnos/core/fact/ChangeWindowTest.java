package lychnos.core.fact;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.time.Instant;
import lychnos.core.text.Texts;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ChangeWindowTest {

    private static final ChangeWindow NIGHT = ChangeWindow.parse("2026-12-05T22:00Z/2026-12-06T04:00Z");

    @Test
    void holdsItsFirstMomentAndNotItsEnd() {
        assertFalse(NIGHT.contains(Instant.parse("2026-12-05T21:59:59Z")));
        assertTrue(NIGHT.contains(Instant.parse("2026-12-05T22:00:00Z")));
        assertTrue(NIGHT.contains(Instant.parse("2026-12-06T03:59:59Z")));
        assertFalse(NIGHT.contains(Instant.parse("2026-12-06T04:00:00Z")));
    }

    @Test
    void momentsWithAnOffsetAreTheSameMoments() {
        ChangeWindow local = ChangeWindow.parse(" 2026-12-05T23:00+01:00 / 2026-12-06T05:00:00+01:00 ");
        assertEquals(NIGHT, local);
        assertEquals("2026-12-05T22:00Z/2026-12-06T04:00Z", local.toString());
        assertEquals(local, ChangeWindow.parse(local.toString()));
    }

    @ParameterizedTest
    @CsvSource({
        "tomorrow night, NOT_A_CHANGE_WINDOW",
        "2026-12-05T22:00Z, NOT_A_CHANGE_WINDOW",
        "2026-12-05T22:00/2026-12-06T04:00, NOT_A_CHANGE_WINDOW",
        "2026-12-05T22:00Z/2026-12-06T04:00Z/2026-12-07T04:00Z, NOT_A_CHANGE_WINDOW",
        "2026-12-32T22:00Z/2027-01-06T04:00Z, NOT_A_CHANGE_WINDOW",
        "2026-12-06T04:00Z/2026-12-05T22:00Z, CHANGE_WINDOW_REVERSED",
        "2026-12-06T04:00Z/2026-12-06T05:00+01:00, CHANGE_WINDOW_REVERSED",
    })
    void whatIsNoWindowIsRefusedWithAReason(String text, FactText why) {
        String reason = assertThrows(IllegalArgumentException.class, () -> ChangeWindow.parse(text))
                .getMessage();
        assertTrue(Texts.says(why, reason), reason);
    }
}
