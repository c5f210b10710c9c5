package lychnos.core.place;

import java.util.Arrays;
import lychnos.core.address.Address;
import lychnos.core.address.AddressRun;

/**
 * The free host numbers of one network, a bit each. A bit set and not a tree of runs: in a network that is badly
 * fragmented there is a run for every few addresses, and a tree costs a hundred bytes for each, this one bit an
 * address.
 * Rows are looked for 64 at a time: a word shifted against itself leaves exactly the starts of rows. A host number is
 * the distance from the network's first address. Only the first {@value #MOST} are looked at: every address of an IPv4
 * /8, and the lowest 16 million host numbers of an IPv6 network, which nobody can fill.
 */
final class FreeMap {

    static final int MOST = 1 << 24;

    private final Address base;
    private final boolean v4;
    private final int size;
    private final long[] free;

    FreeMap(FreeSpace ground, boolean coolingToo) {
        base = ground.network().network();
        v4 = base.isV4();
        size = (int) Math.min(MOST, ground.network().run().size());
        free = new long[size / 64 + 2];
        ground.pools().forEach(run -> mark(run, true));
        AddressRun hosts = ground.network().hosts();
        if (!base.equals(hosts.first())) {
            mark(AddressRun.of(base), false);
        }
        if (!ground.network().last().equals(hosts.last())) {
            mark(AddressRun.of(ground.network().last()), false);
        }
        if (ground.gateway() != null) {
            mark(AddressRun.of(ground.gateway()), false);
        }
        ground.kept().forEach(run -> mark(run, false));
        ground.taken().forEach(this::clear);
        if (!coolingToo) {
            ground.cooling().forEach(this::clear);
        }
    }

    private void clear(Address address) {
        if (v4 && address.isV4()) {
            long offset = address.low() - base.low();
            if (offset >= 0 && offset < size) {
                free[(int) offset >> 6] &= ~(1L << offset);
            }
        } else {
            mark(AddressRun.of(address), false);
        }
    }

    private void mark(AddressRun run, boolean to) {
        if (run.first().family() != base.family() || run.last().compareTo(base) < 0) {
            return;
        }
        long from = run.first().compareTo(base) < 0 ? 0 : run.first().distanceFrom(base);
        long end = Math.min(size - 1L, run.last().distanceFrom(base));
        if (from <= end) {
            set((int) from, (int) (end - from) + 1, to);
        }
    }

    Address address(int offset) {
        return base.plus(offset);
    }

    /** The host number of an address, or -1 where it lies outside of what is looked at. */
    int offset(Address address) {
        if (address.family() != base.family() || address.compareTo(base) < 0) {
            return -1;
        }
        long distance = address.distanceFrom(base);
        return distance < size ? (int) distance : -1;
    }

    int size() {
        return size;
    }

    long left() {
        return Arrays.stream(free).map(Long::bitCount).sum();
    }

    boolean isFree(int offset, int length) {
        if (offset < 0 || offset + length > size) {
            return false;
        }
        return endOfGap(offset) >= offset + length;
    }

    /** The first host number from here on whose address is not free; the end of the network where all are. */
    int endOfGap(int offset) {
        int word = offset >> 6;
        long taken = ~free[word] & -1L << offset;
        while (taken == 0 && ++word < free.length) {
            taken = ~free[word];
        }
        return Math.min(size, (word << 6) + Long.numberOfTrailingZeros(taken));
    }

    /** The lowest start at or behind {@code from} of so many free ones in a row, or -1. */
    int next(int from, int length, int multipleOf) {
        for (int word = from >> 6; word < free.length - 1; word++) {
            long starts = starts(word, Math.min(length, 64));
            if (word == from >> 6) {
                starts &= -1L << from;
            }
            for (; starts != 0; starts &= starts - 1) {
                int start = (word << 6) + Long.numberOfTrailingZeros(starts);
                boolean whole = length <= 64 || isFree(start, length);
                if (whole && (multipleOf == 1 || number(start) % multipleOf == 0)) {
                    return start;
                }
            }
        }
        return -1;
    }

    /** The bits of this word at which a row of so many begins, 1 to 64: each step doubles the row that is known. */
    private long starts(int word, int length) {
        long low = free[word];
        if (low == 0) {
            return 0;
        }
        long high = free[word + 1];
        int known = 1;
        while (known < length) {
            int step = Math.min(known, length - known);
            low &= low >>> step | high << 64 - step;
            high &= high >>> step;
            known += step;
        }
        return low;
    }

    /** What people read as the number of the address: its last octet in IPv4, its host number in IPv6. */
    int number(int offset) {
        return v4 ? (int) (base.low() + offset & 255) : offset;
    }

    void set(int offset, int length, boolean to) {
        int end = offset + length;
        for (int at = offset; at < end; ) {
            int upTo = Math.min(end, (at | 63) + 1);
            long mask = -1L << at & -1L >>> -upTo;
            free[at >> 6] = to ? free[at >> 6] | mask : free[at >> 6] & ~mask;
            at = upTo;
        }
    }
}
