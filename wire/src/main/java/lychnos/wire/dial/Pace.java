package lychnos.wire.dial;

import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.locks.LockSupport;
import java.util.function.LongConsumer;
import java.util.function.LongSupplier;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;

/**
 * Keeps a network from being flooded: so many exchanges a second are begun in each, and exchanges that come too early
 * wait. A network here is a /24 or a /64, whatever is stated, since that is what one switch or one router's interface
 * carries. Safe for use by many threads.
 */
public final class Pace {

    private static final int V4_NETWORK = 24;
    private static final int V6_NETWORK = 64;
    private static final int MOST_NETWORKS = 20_000;
    private static final long SECOND = 1_000_000_000L;

    private final long between;
    private final long ahead;
    private final LongSupplier nanos;
    private final LongConsumer wait;
    private final Map<Prefix, Long> next = new ConcurrentHashMap<>();

    /**
     * A pace.
     *
     * @param perSecond exchanges in each network
     * @param atOnce how many may come at one moment after a pause
     */
    public Pace(int perSecond, int atOnce) {
        this(perSecond, atOnce, System::nanoTime, LockSupport::parkNanos);
    }

    Pace(int perSecond, int atOnce, LongSupplier nanos, LongConsumer wait) {
        this.between = SECOND / perSecond;
        this.ahead = between * atOnce;
        this.nanos = nanos;
        this.wait = wait;
    }

    /** Returns once an exchange with this address may begin; at once where its network was left alone. */
    void enter(Address address) {
        if (next.size() > MOST_NETWORKS) {
            next.clear();
        }
        long now = nanos.getAsLong();
        // the generic cell rate algorithm: each exchange moves the time at which the network is at rest again
        long rest = next.merge(
                Prefix.around(address, address.isV4() ? V4_NETWORK : V6_NETWORK),
                now + between,
                (before, first) -> Math.max(before, now) + between);
        long early = rest - ahead - now;
        if (early > 0) {
            wait.accept(early);
        }
    }
}
