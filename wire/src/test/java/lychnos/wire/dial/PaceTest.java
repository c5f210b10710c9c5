package lychnos.wire.dial;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import lychnos.core.address.Address;
import org.junit.jupiter.api.Test;

/** How fast exchanges begin in one network, by a clock that stands until somebody waits. */
class PaceTest {

    private long now;
    private final Pace pace = new Pace(100, 10, () -> now, nanos -> now += nanos);

    private double seconds(int exchanges, String... addresses) {
        long begun = now;
        for (int i = 0; i < exchanges; i++) {
            pace.enter(Address.parse(addresses[i % addresses.length]));
        }
        return (now - begun) / 1e9;
    }

    @Test
    void aNetworkGetsSoManyASecondAndFewAtOnce() {
        assertEquals(0, seconds(10, "10.40.8.7", "10.40.8.9"), "a handful waits for nobody");
        assertEquals(10, seconds(1000, "10.40.8.7", "10.40.8.9", "10.40.8.200"), 0.2);
    }

    @Test
    void oneNetworkWaitsForNoOther() {
        seconds(200, "10.40.8.7");
        assertEquals(0, seconds(10, "10.40.9.7"));
        assertEquals(0, seconds(10, "fd40:a4da:1:8::7"));
    }

    @Test
    void afterAPauseAFewMayComeAtOnceAndNoMore() {
        seconds(50, "10.40.8.7");
        now += 60_000_000_000L;
        assertTrue(seconds(10, "10.40.8.7") < 0.02);
        assertEquals(1, seconds(100, "10.40.8.7"), 0.1);
    }
}
