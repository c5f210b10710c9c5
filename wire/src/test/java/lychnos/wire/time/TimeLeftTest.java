package lychnos.wire.time;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.time.Duration;
import java.util.concurrent.atomic.AtomicLong;
import org.junit.jupiter.api.Test;

class TimeLeftTest {

    private final AtomicLong now = new AtomicLong(Long.MAX_VALUE - 5_000_000); // it may run over, as nanoTime may

    @Test
    void growsShorterAndIsNeverNoLimitToASocket() {
        TimeLeft left = TimeLeft.of(Duration.ofMillis(20), now::get);
        assertEquals(20, left.millis());
        now.addAndGet(15_500_000);
        assertEquals(4, left.millis());
        assertFalse(left.over());
        now.addAndGet(4_000_000);
        assertTrue(left.over());
        assertEquals(1, left.millis());
        assertEquals(Duration.ofNanos(500_000), left.duration());
        now.addAndGet(4_000_000);
        assertTrue(left.over());
        assertEquals(Duration.ZERO, left.duration());
        assertEquals(1, left.millis());
    }

    @Test
    void aLimitOfMonthsFitsIntoASocket() {
        assertEquals(
                Integer.MAX_VALUE, TimeLeft.of(Duration.ofDays(90), now::get).millis());
    }
}
