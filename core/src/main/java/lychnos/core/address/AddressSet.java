package lychnos.core.address;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/**
 * A set of addresses, kept as sorted runs that neither overlap nor touch. Adding and removing a run costs the logarithm
 * of the number of runs, plus the runs it swallows; the number of addresses does not matter. Not safe for use by
 * several threads.
 */
public final class AddressSet {

    private final TreeMap<Address, Address> lastByFirst = new TreeMap<>();

    public static AddressSet of(AddressRun... runs) {
        AddressSet set = new AddressSet();
        for (AddressRun run : runs) {
            set.add(run);
        }
        return set;
    }

    public AddressSet add(Address address) {
        return add(AddressRun.of(address));
    }

    /** Adds a run, joining it with what it overlaps or touches. */
    public AddressSet add(AddressRun run) {
        Address first = run.first();
        Address last = run.last();
        Map.Entry<Address, Address> before = lastByFirst.floorEntry(first);
        if (before != null && reaches(before.getValue(), first)) {
            first = before.getKey();
            last = max(last, before.getValue());
        }
        Map.Entry<Address, Address> after = lastByFirst.higherEntry(first);
        while (after != null && reaches(last, after.getKey())) {
            last = max(last, after.getValue());
            lastByFirst.remove(after.getKey());
            after = lastByFirst.higherEntry(first);
        }
        lastByFirst.put(first, last);
        return this;
    }

    /** Whether a run that ends at {@code last} overlaps or touches one that starts at {@code first}. */
    private static boolean reaches(Address last, Address first) {
        if (last.family() != first.family()) {
            return false;
        }
        return last.compareTo(first) >= 0 || last.next().equals(first);
    }

    private static Address max(Address a, Address b) {
        return a.compareTo(b) >= 0 ? a : b;
    }

    public AddressSet remove(Address address) {
        return remove(AddressRun.of(address));
    }

    /** Takes a run out; what of it is not in the set does not matter. */
    public AddressSet remove(AddressRun run) {
        Map.Entry<Address, Address> piece = lastByFirst.floorEntry(run.first());
        if (piece == null || piece.getValue().compareTo(run.first()) < 0) {
            piece = lastByFirst.higherEntry(run.first());
        }
        while (piece != null && piece.getKey().compareTo(run.last()) <= 0) {
            AddressRun old = new AddressRun(piece.getKey(), piece.getValue());
            lastByFirst.remove(old.first());
            if (old.first().compareTo(run.first()) < 0) {
                lastByFirst.put(old.first(), run.first().plus(-1));
            }
            if (old.last().compareTo(run.last()) > 0) {
                lastByFirst.put(run.last().next(), old.last());
            }
            piece = lastByFirst.higherEntry(run.first());
        }
        return this;
    }

    public boolean contains(Address address) {
        Map.Entry<Address, Address> before = lastByFirst.floorEntry(address);
        return before != null && before.getValue().compareTo(address) >= 0;
    }

    /** How many addresses, capped at {@link Long#MAX_VALUE}. */
    public long size() {
        long total = 0;
        for (AddressRun run : runs()) {
            total += run.size();
            if (total < 0) {
                return Long.MAX_VALUE;
            }
        }
        return total;
    }

    /** The runs in order; none touches the next. */
    public List<AddressRun> runs() {
        List<AddressRun> runs = new ArrayList<>(lastByFirst.size());
        lastByFirst.forEach((first, last) -> runs.add(new AddressRun(first, last)));
        return runs;
    }

    @Override
    public String toString() {
        return runs().toString();
    }
}
