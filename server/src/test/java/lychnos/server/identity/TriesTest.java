package lychnos.server.identity;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import org.junit.jupiter.api.Test;

class TriesTest {

    private Instant now = Instant.parse("2026-11-28T02:00:00Z");

    private final Tries tries = new Tries(new Clock() {
        @Override
        public ZoneId getZone() {
            return ZoneOffset.UTC;
        }

        @Override
        public Clock withZone(ZoneId zone) {
            return this;
        }

        @Override
        public Instant instant() {
            return now;
        }
    });

    private void fail(int times, String login, String source) {
        for (int i = 0; i < times; i++) {
            tries.failed(login, source);
        }
    }

    @Test
    void aFewMistakesCostNothing() {
        fail(4, "ane", "10.40.8.20");
        assertEquals(Duration.ZERO, tries.wait("ane", "10.40.8.20"));
    }

    @Test
    void moreOfThemAreHeldBackForLongerAndNeverForGood() {
        fail(5, "ane", "10.40.8.20");
        assertEquals(Duration.ofMillis(250), tries.wait("ane", "10.40.8.99"), "from wherever the next one comes");
        fail(1, "ane", "10.40.8.20");
        assertEquals(Duration.ofMillis(500), tries.wait("ane", "10.40.8.99"));
        fail(500, "ane", "10.40.8.20");
        assertEquals(
                Duration.ofSeconds(5), tries.wait("ane", "10.40.8.99"), "the right password is looked at after this");
    }

    @Test
    void oneSourceThatTriesManyLoginsIsHeldBack() {
        for (int i = 0; i < 25; i++) {
            tries.failed("guess-" + i, "10.40.8.66");
        }
        assertTrue(tries.wait("another", "10.40.8.66").toMillis() >= 250);
        assertEquals(Duration.ZERO, tries.wait("another", "10.40.8.20"), "others are not");
    }

    @Test
    void theRightPasswordAndTimeForget() {
        fail(10, "ane", "10.40.8.20");
        tries.succeeded("ane");
        assertEquals(Duration.ZERO, tries.wait("ane", "10.40.8.20"));
        fail(10, "ane", "10.40.8.20");
        now = now.plus(Duration.ofMinutes(16));
        assertEquals(Duration.ZERO, tries.wait("ane", "10.40.8.20"));
    }
}
