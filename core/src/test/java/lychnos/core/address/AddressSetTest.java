package lychnos.core.address;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.BitSet;
import java.util.List;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.Combinators;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.junit.jupiter.api.Test;

/** Compares the set with a bit set of 256 places, which is plainly right. */
class AddressSetTest {

    private static final Address BASE = Address.parse("10.40.8.0");

    record Change(boolean add, int from, int to) {}

    @Provide
    Arbitrary<List<Change>> changes() {
        Arbitrary<Integer> place = Arbitraries.integers().between(0, 255);
        return Combinators.combine(Arbitraries.of(true, true, false), place, place)
                .as((add, a, b) -> new Change(add, Math.min(a, b), Math.max(a, b)))
                .list()
                .ofMaxSize(30);
    }

    @Property
    void doesWhatABitSetDoes(@ForAll("changes") List<Change> changes) {
        AddressSet set = new AddressSet();
        BitSet twin = new BitSet(256);
        for (Change change : changes) {
            AddressRun run = new AddressRun(BASE.plus(change.from), BASE.plus(change.to));
            if (change.add) {
                set.add(run);
                twin.set(change.from, change.to + 1);
            } else {
                set.remove(run);
                twin.clear(change.from, change.to + 1);
            }
        }
        assertEquals(twin.cardinality(), set.size());
        for (int i = 0; i < 256; i++) {
            assertEquals(twin.get(i), set.contains(BASE.plus(i)));
        }
        List<AddressRun> runs = set.runs();
        for (int i = 1; i < runs.size(); i++) {
            assertTrue(
                    runs.get(i - 1).last().next().compareTo(runs.get(i).first()) < 0,
                    "runs neither overlap nor touch: " + set);
        }
    }

    @Test
    void keepsTheFamiliesApart() {
        AddressSet set = AddressSet.of(AddressRun.parse("255.255.255.255"), AddressRun.parse("::"));
        assertEquals(2, set.runs().size());
    }

    @Test
    void theLastAddressOfAllDoesNotWrapRound() {
        AddressSet set = AddressSet.of(AddressRun.parse("255.255.255.255"), AddressRun.parse("0.0.0.0"));
        assertEquals(2, set.runs().size());
    }
}
