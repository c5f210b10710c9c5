package lychnos.wire.ladder;

import java.time.Duration;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;

/**
 * How long to wait for an echo, learnt from those that came (the estimate of RFC 6298, section 2), network by network:
 * where answers take a millisecond, a second is not spent on each silent address. Safe for use by many threads.
 */
public final class Patience {

    /** Where nothing is known of a network. */
    public static final Duration LONGEST = Duration.ofSeconds(1);

    private static final Duration SHORTEST = Duration.ofMillis(250);
    private static final int V4_NETWORK = 24;
    private static final int V6_NETWORK = 64;
    private static final int MOST_NETWORKS = 20_000;

    private final Map<Prefix, Estimate> estimates = new ConcurrentHashMap<>();

    private record Estimate(double smoothed, double variation) {

        static Estimate first(double nanos) {
            return new Estimate(nanos, nanos / 2);
        }

        Estimate with(double nanos) {
            return new Estimate(smoothed * 7 / 8 + nanos / 8, variation * 3 / 4 + Math.abs(smoothed - nanos) / 4);
        }
    }

    private static Prefix network(Address address) {
        return Prefix.around(address, address.isV4() ? V4_NETWORK : V6_NETWORK);
    }

    /** How long to wait for an address. */
    public Duration of(Address address) {
        Estimate estimate = estimates.get(network(address));
        if (estimate == null) {
            return LONGEST;
        }
        Duration learnt = Duration.ofNanos((long) (estimate.smoothed + 4 * estimate.variation));
        return learnt.compareTo(SHORTEST) < 0 ? SHORTEST : learnt.compareTo(LONGEST) > 0 ? LONGEST : learnt;
    }

    /** Learns from an echo that came. */
    public void answered(Address address, Duration after) {
        if (estimates.size() > MOST_NETWORKS) {
            estimates.clear();
        }
        estimates.merge(
                network(address), Estimate.first(after.toNanos()), (before, first) -> before.with(after.toNanos()));
    }
}
