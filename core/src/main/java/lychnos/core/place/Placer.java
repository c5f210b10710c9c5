package lychnos.core.place;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import lychnos.core.address.Address;
import lychnos.core.address.AddressSet;
import lychnos.core.address.Run;

/**
 * Finds addresses for units in a {@link Ground}. It changes nothing: it proposes, the database decides.
 *
 * <p>Structure and cost: the free addresses are sorted runs in a balanced tree ({@link AddressSet}), so building them
 * costs the number of taken addresses times the logarithm of the number of runs, and placing one address the logarithm
 * alone. A long run is looked for along the free runs, which is linear in their number in the worst case.
 */
public final class Placer {

    private final AddressSet free;

    public Placer(Ground ground) {
        this.free = ground.free();
    }

    /** How many addresses are left. */
    public long left() {
        return free.size();
    }

    /**
     * The lowest fit for so many single addresses, looking from an address on: one consecutive run where there is one,
     * else the lowest free addresses.
     *
     * @param count how many, at least 1
     * @param from nothing below this is proposed
     */
    public Fit fit(int count, Address from) {
        if (count < 1) {
            throw new IllegalArgumentException("a fit is for at least one address");
        }
        Optional<Run> run = free.firstFit(from, count);
        return run.isPresent() ? Fit.consecutive(run.get()) : scattered(count, from);
    }

    private Fit scattered(int count, Address from) {
        List<Address> addresses = new ArrayList<>(count);
        long available = 0;
        for (Run run : free.runs()) {
            if (run.last().compareTo(from) < 0) {
                continue;
            }
            Address first = run.first().compareTo(from) < 0 ? from : run.first();
            long size = run.last().distanceFrom(first) + 1;
            available += size;
            for (long i = 0; i < size && addresses.size() < count; i++) {
                addresses.add(first.plus(i));
            }
        }
        return addresses.size() == count ? Fit.scattered(addresses) : Fit.none(count, available);
    }

    /** Places single needs one after another, each at the lowest free address; fewer come back when the pool runs dry. */
    public List<Address> placeEach(int count, Address from) {
        List<Address> placed = new ArrayList<>(count);
        Address next = from;
        for (int i = 0; i < count; i++) {
            Optional<Run> run = free.firstFit(next, 1);
            if (run.isEmpty()) {
                break;
            }
            next = run.get().first();
            free.remove(next);
            placed.add(next);
        }
        return placed;
    }
}
