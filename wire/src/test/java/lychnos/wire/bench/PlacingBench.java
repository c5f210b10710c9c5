package lychnos.wire.bench;

import static lychnos.wire.bench.Bench.ROUNDS;
import static lychnos.wire.bench.Bench.median;
import static lychnos.wire.bench.Bench.row;
import static lychnos.wire.bench.Bench.whole;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;
import lychnos.core.place.FreeSpace;
import lychnos.core.place.Need;
import lychnos.core.place.Placer;

/** Placing 10,000 addresses for 4,000 units in a broken up /16, against one pass over a bit set. */
final class PlacingBench {

    private PlacingBench() {}

    /** Used and free rows of random lengths by turns, six to four. */
    static List<Address> brokenUp(Prefix network, int size, BitSet twin) {
        Random random = new Random(7);
        List<Address> taken = new ArrayList<>();
        for (int at = 0; at < size; ) {
            for (int used = 1 + random.nextInt(11); used > 0 && at < size; used--, at++) {
                taken.add(network.network().plus(at));
                twin.set(at);
            }
            at += 1 + random.nextInt(7);
        }
        return taken;
    }

    static List<Need> unit(int length) {
        List<String> roles = java.util.stream.IntStream.range(0, length)
                .mapToObj(i -> "r" + i)
                .toList();
        return List.of(new Need(roles, List.of("management"), Need.Start.ANYWHERE, 0, Need.Paths.ONE, false));
    }

    static double place(Placer placer, List<List<Need>> units) {
        long start = System.nanoTime();
        int given = 0;
        for (List<Need> unit : units) {
            given += placer.place(unit).fold(placement -> placement.seats().size(), none -> 0);
        }
        double millis = (System.nanoTime() - start) / 1e6;
        if (given != units.size() * 5 / 2) {
            throw new IllegalStateException("only " + given + " were placed");
        }
        return millis;
    }

    static void placing() {
        List<List<Need>> shapes = List.of(unit(1), unit(2), unit(3), unit(4));
        List<List<Need>> units = new ArrayList<>();
        for (int i = 0; i < whole(4000, 40); i++) {
            units.add(shapes.get(i % 4));
        }
        double[][] small = placing(Prefix.parse("10.40.0.0/16"), units);
        double[][] large = placing(Prefix.parse(whole(1, 0) == 1 ? "10.32.0.0/12" : "10.40.0.0/15"), units);
        row(
                String.format(
                        Locale.ROOT,
                        "%,d units, %,d addresses, /16, free set built",
                        units.size(),
                        units.size() * 5 / 2),
                median(small[0]),
                median(small[2]));
        row("the same, the free set there already", median(small[1]), median(small[2]));
        row(
                String.format(Locale.ROOT, "one unit in a /12 (ours) and in a /16 (plain), × %,d", units.size()),
                median(large[1]),
                median(small[1]));
    }

    /** Whole, placing alone, and one pass over the twin: in milliseconds, for each round. */
    static double[][] placing(Prefix network, List<List<Need>> units) {
        int size = (int) network.run().size();
        BitSet twin = new BitSet(size);
        List<Address> taken = brokenUp(network, size, twin);
        FreeSpace ground = new FreeSpace(
                "management", network, network.network().next(), List.of(network.run()), List.of(), taken, List.of());
        double[][] times = new double[3][ROUNDS];
        for (int round = whole(-150, -1); round < ROUNDS; round++) {
            long start = System.nanoTime();
            Placer placer = new Placer(List.of(ground));
            double built = (System.nanoTime() - start) / 1e6;
            double placed = place(placer, units);
            long passStart = System.nanoTime();
            int free = 0;
            for (int i = twin.nextClearBit(0); i < size; i = twin.nextClearBit(i + 1)) {
                free++;
            }
            double pass = (System.nanoTime() - passStart) / 1e6;
            if (free != size - taken.size()) {
                throw new IllegalStateException("the twin has miscounted");
            }
            if (round >= 0) {
                times[0][round] = built + placed;
                times[1][round] = placed;
                times[2][round] = pass;
            }
        }
        return times;
    }
}
