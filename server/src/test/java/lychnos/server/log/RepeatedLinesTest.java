package lychnos.server.log;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.time.Instant;
import java.util.logging.Level;
import java.util.logging.LogRecord;
import org.junit.jupiter.api.Test;

class RepeatedLinesTest {

    private static final Instant NOON = Instant.parse("2026-11-02T12:00:00Z");

    private final RepeatedLines filter = new RepeatedLines();

    private static LogRecord line(String message, int second, Throwable thrown) {
        LogRecord line = new LogRecord(Level.WARNING, message);
        line.setLoggerName("door");
        line.setInstant(NOON.plusSeconds(second));
        line.setThrown(thrown);
        return line;
    }

    @Test
    void aFloodOfOneMessageLeavesTenLinesAMinuteAndSaysHowManyWereLeftOut() {
        int passed = 0;
        for (int i = 0; i < 5000; i++) {
            passed += filter.isLoggable(line("unexpected, %s", i / 100, new IllegalStateException(String.valueOf(i))))
                    ? 1
                    : 0;
        }
        assertEquals(RepeatedLines.A_MINUTE, passed);
        LogRecord later = line("unexpected, %s", 60, new IllegalStateException("again"));
        assertTrue(filter.isLoggable(later));
        assertEquals("unexpected, %s (4990 more like this were left out before)", later.getMessage());
    }

    @Test
    void anotherMessageOrAnotherSortOfExceptionIsItsOwn() {
        for (int i = 0; i < RepeatedLines.A_MINUTE; i++) {
            assertTrue(filter.isLoggable(line("unexpected, %s", 0, new IllegalStateException("x"))));
        }
        assertFalse(filter.isLoggable(line("unexpected, %s", 1, new IllegalStateException("x"))));
        assertTrue(filter.isLoggable(line("unexpected, %s", 1, new IllegalArgumentException("x"))));
        assertTrue(filter.isLoggable(line("the database: %s", 1, null)));
    }
}
