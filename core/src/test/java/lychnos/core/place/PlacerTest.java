package lychnos.core.place;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;
import lychnos.core.address.Run;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;

class PlacerTest {

    private static final Prefix NETWORK = Prefix.parse("10.40.8.0/24");
    private static final Address GATEWAY = Address.parse("10.40.8.1");

    private static Ground ground(List<Run> pools, List<Run> kept, Address... taken) {
        return new Ground(NETWORK, GATEWAY, pools, kept, List.of(taken));
    }

    private static Fit fit(Ground ground, int count) {
        return new Placer(ground).fit(count, NETWORK.network());
    }

    @Test
    void takesTheLowestRunThatHoldsAll() {
        Fit fit = fit(ground(List.of(Run.parse("10.40.8.101-180")), List.of(), Address.parse("10.40.8.103")), 12);
        assertEquals("10.40.8.104", fit.addresses().get(0).toString());
        assertEquals("10.40.8.115", fit.addresses().get(11).toString());
        assertEquals("lowest run of 12 in a row", fit.reason());
    }

    @Test
    void neverProposesGatewayNetworkOrBroadcast() {
        Fit fit = fit(ground(List.of(NETWORK.run()), List.of()), 253);
        assertEquals("10.40.8.2", fit.addresses().get(0).toString());
        assertEquals("10.40.8.254", fit.addresses().get(252).toString());
        assertFalse(fit(ground(List.of(NETWORK.run()), List.of()), 254).found());
    }

    @Test
    void fallsBackToSingleAddressesAndSaysSo() {
        Fit fit = fit(ground(List.of(Run.parse("10.40.8.10-12"), Run.parse("10.40.8.20-22")), List.of()), 5);
        assertEquals(List.of("10.40.8.10", "10.40.8.11", "10.40.8.12", "10.40.8.20", "10.40.8.21"), fit.addresses().stream().map(Address::toString).toList());
        assertTrue(fit.reason().startsWith("no 5 in a row"));
    }

    @Test
    void saysWithNumbersThatThePoolIsDry() {
        assertEquals("9 wanted, 3 free: widen the pool or release addresses", fit(ground(List.of(Run.parse("10.40.8.10-12")), List.of()), 9).reason());
    }

    /** Whatever is kept or taken: the fit is inside, free, without repeats, all or nothing, and what a plain search finds. */
    @Property
    void agreesWithAPlainSearch(@ForAll @Size(max = 60) Set<@IntRange(max = 255) Integer> taken, @ForAll @IntRange(min = 1, max = 40) int count, @ForAll @IntRange(max = 255) int from) {
        Run pool = Run.parse("10.40.8.40-200");
        Run kept = Run.parse("10.40.8.90-99");
        List<Address> bears = taken.stream().map(i -> NETWORK.network().plus(i)).toList();
        Ground ground = new Ground(NETWORK, GATEWAY, List.of(pool), List.of(kept), bears);
        Fit fit = new Placer(ground).fit(count, NETWORK.network().plus(from));
        List<Address> free = new ArrayList<>();
        for (int i = Math.max(from, 40); i <= 200; i++) {
            Address address = NETWORK.network().plus(i);
            if (!bears.contains(address) && !kept.contains(address)) {
                free.add(address);
            }
        }
        assertEquals(free.size() >= count, fit.found());
        assertEquals(fit.addresses().size(), new HashSet<>(fit.addresses()).size());
        assertTrue(free.containsAll(fit.addresses()));
        if (fit.found()) {
            assertEquals(lowest(free, count), fit.addresses());
        }
    }

    private static List<Address> lowest(List<Address> free, int count) {
        for (int i = 0; i + count <= free.size(); i++) {
            if (free.get(i + count - 1).distanceFrom(free.get(i)) == count - 1) {
                return free.subList(i, i + count);
            }
        }
        return free.subList(0, count);
    }

    @Test
    void placesOneAfterAnotherWithoutRepeats() {
        Placer placer = new Placer(ground(List.of(Run.parse("10.40.8.10-14")), List.of(), Address.parse("10.40.8.11")));
        assertEquals(List.of("10.40.8.10", "10.40.8.12", "10.40.8.13", "10.40.8.14"), placer.placeEach(9, NETWORK.network()).stream().map(Address::toString).toList());
        assertEquals(0, placer.left());
    }
}
