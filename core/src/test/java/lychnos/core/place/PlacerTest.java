package lychnos.core.place;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertInstanceOf;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import lychnos.core.address.Address;
import lychnos.core.address.AddressRun;
import lychnos.core.address.AddressSet;
import lychnos.core.address.Prefix;
import lychnos.core.text.Texts;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;

class PlacerTest {

    private static final Prefix NETWORK = Prefix.parse("10.40.8.0/24");
    private static final Prefix SMALL = Prefix.parse("10.40.9.0/27");
    private static final Address GATEWAY = Address.parse("10.40.8.1");

    private static FreeSpace ground(List<AddressRun> pools, List<AddressRun> kept, Address... taken) {
        return new FreeSpace("management", NETWORK, GATEWAY, pools, kept, List.of(taken), List.of());
    }

    private static FreeSpace of(String purpose, String prefix, String... taken) {
        Prefix network = Prefix.parse(prefix);
        return new FreeSpace(
                purpose,
                network,
                null,
                List.of(network.run()),
                List.of(),
                List.of(taken).stream().map(Address::parse).toList(),
                List.of());
    }

    private static Need run(int length, int multipleOf, int growth) {
        List<String> roles = java.util.stream.IntStream.rangeClosed(1, length)
                .mapToObj(i -> "r" + i)
                .toList();
        return new Need(
                roles, List.of("management"), Need.Start.onMultipleOf(multipleOf), growth, Need.Paths.ONE, false);
    }

    private static Need on(List<String> roles, List<String> networks, Need.Paths paths, boolean ipv6) {
        return new Need(roles, networks, Need.Start.ANYWHERE, 0, paths, ipv6);
    }

    private static Placement placed(Placing placing) {
        return assertInstanceOf(Placement.class, placing);
    }

    private static List<String> addresses(Placement placement) {
        return placement.seats().stream().map(seat -> seat.address().toString()).toList();
    }

    @Test
    void takesTheLowestRunThatHoldsAll() {
        Placer placer = new Placer(
                List.of(ground(List.of(AddressRun.parse("10.40.8.101-180")), List.of(), Address.parse("10.40.8.103"))));
        assertEquals(
                List.of("10.40.8.104", "10.40.8.105", "10.40.8.106"),
                addresses(placed(placer.place(List.of(run(3, 1, 0))))));
        assertEquals(List.of("10.40.8.101", "10.40.8.102"), addresses(placed(placer.place(List.of(run(2, 1, 0))))));
        assertEquals(List.of("10.40.8.110"), addresses(placed(placer.place(List.of(run(1, 10, 0))))));
    }

    @Test
    void whatCannotBePlacedAsAWholeTakesNothing() {
        Placer placer = new Placer(List.of(ground(List.of(AddressRun.parse("10.40.8.101-108")), List.of())));
        assertInstanceOf(NoFit.class, placer.place(List.of(run(3, 1, 0), run(9, 1, 0))));
        assertEquals(8, placer.left("management"));
        assertEquals(
                "10.40.8.101",
                addresses(placed(placer.place(List.of(run(3, 1, 0))))).get(0));
        assertInstanceOf(NoFit.class, placer.place(List.of(run(2, 1, 0), run(4, 1, 0))));
        assertEquals(
                "10.40.8.104",
                addresses(placed(placer.place(List.of(run(5, 1, 0))))).get(0));
    }

    @Test
    void neverGivesGatewayNetworkOrBroadcast() {
        Placer placer = new Placer(List.of(ground(List.of(NETWORK.run()), List.of())));
        assertEquals(253, placer.left("management"));
        List<String> all = addresses(placed(placer.place(List.of(run(253, 1, 0)))));
        assertEquals("10.40.8.2", all.get(0));
        assertEquals("10.40.8.254", all.get(252));
        NoFit none = assertInstanceOf(NoFit.class, placer.place(List.of(run(1, 1, 0))));
        assertEquals(0, none.free());
    }

    @Test
    void keepsGrowthFreeBehindTheRun() {
        Placer placer = new Placer(List.of(ground(List.of(AddressRun.parse("10.40.8.80-127")), List.of())));
        Placement store = placed(placer.place(List.of(run(7, 10, 6))));
        assertEquals("10.40.8.87-10.40.8.92", store.growth().get(0).run().toString());
        assertEquals(
                "10.40.8.93",
                addresses(placed(placer.place(List.of(run(1, 1, 0))))).get(0));
    }

    @Test
    void placesAllNeedsOrNone() {
        Placer placer = new Placer(List.of(of("management", "10.40.8.0/24"), of("storage-data", "10.40.16.0/30")));
        List<Need> tooMuch =
                List.of(run(3, 1, 0), on(List.of("a", "b", "c"), List.of("storage-data"), Need.Paths.ONE, false));
        NoFit none = assertInstanceOf(NoFit.class, placer.place(tooMuch));
        assertEquals("storage-data", none.network());
        assertEquals(254, placer.left("management"), "nothing stays taken");
        NoFit missing = assertInstanceOf(NoFit.class, placer.place(List.of(Need.one("x", "tunnel"))));
        assertTrue(missing.why().contains("tunnel"));
    }

    @Test
    void aSecondNetworkOfAPurposeIsUsedWhenTheFirstIsFull() {
        Placer placer = new Placer(List.of(of("management", "10.40.8.0/29"), of("management", "10.40.9.0/29")));
        assertEquals(12, placer.left("management"));
        assertEquals(
                List.of("10.40.8.1", "10.40.8.2", "10.40.8.3", "10.40.8.4"),
                addresses(placed(placer.place(List.of(run(4, 1, 0))))));
        assertEquals(
                List.of("10.40.9.1", "10.40.9.2", "10.40.9.3"),
                addresses(placed(placer.place(List.of(run(3, 1, 0))))),
                "a run lies in one network");
        assertEquals(
                List.of("10.40.8.5"),
                addresses(placed(placer.place(List.of(run(1, 1, 0))))),
                "and the first one is filled before the second");
        List<Need> pair = List.of(run(1, 1, 0), Need.one("shared", "management"));
        assertEquals(
                List.of("10.40.9.4", "10.40.9.5"),
                addresses(placed(placer.place(pair))),
                "all of a unit's addresses of a purpose lie in one network");
        assertEquals(4 - 2, placer.left("management"));
        NoFit none = assertInstanceOf(NoFit.class, placer.place(List.of(run(3, 1, 0))));
        assertTrue(none.free() > 0, none.why());
    }

    @Test
    void fitsComeFromEveryNetworkOfAPurposeAndAPointedAddressDecides() {
        Placer placer = new Placer(List.of(
                of("management", "10.40.8.0/30", "10.40.8.1"),
                of("management", "10.40.9.0/28"),
                of("management", "fd40:a4da:1:9::/64"),
                of("management", "fd40:a4da:1:8::/64", "fd40:a4da:1:8::2")));
        assertEquals(
                List.of("10.40.8.2", "10.40.9.10"),
                placer.fits(List.of(run(1, 1, 0)), 9, Placer.Wish.NONE).stream()
                        .map(fit -> fit.first().toString())
                        .filter(first -> first.endsWith(".2") || first.endsWith(".10"))
                        .filter(first -> !first.equals("10.40.9.2"))
                        .sorted()
                        .toList());
        Placement there = placed(placer.placeAt(List.of(run(2, 1, 0)), Address.parse("10.40.9.6")));
        assertEquals(List.of("10.40.9.6", "10.40.9.7"), addresses(there));
        placer.release(List.of(run(2, 1, 0)), there);
        assertEquals(1 + 14, placer.left("management"));
        Placement both = placed(placer.place(List.of(on(List.of("a"), List.of("management"), Need.Paths.ONE, true))));
        assertEquals(List.of("10.40.8.2", "fd40:a4da:1:9::2"), addresses(both));
        placer.release(List.of(on(List.of("a"), List.of("management"), Need.Paths.ONE, true)), both);
        assertEquals(
                List.of("10.40.8.2", "fd40:a4da:1:9::2"),
                addresses(
                        placed(placer.place(List.of(on(List.of("a"), List.of("management"), Need.Paths.ONE, true))))));
        NoFit nowhere =
                assertInstanceOf(NoFit.class, placer.placeAt(List.of(run(1, 1, 0)), Address.parse("10.40.99.1")));
        assertTrue(Texts.says(PlaceText.OUTSIDE, nowhere.why()), nowhere.why());
    }

    @Test
    void takesTheSameHostNumbersInTwoNetworks() {
        Placer placer = new Placer(List.of(
                of("storage-data", "10.40.16.0/24", "10.40.16.1"),
                of("in-band", "10.40.17.0/24", "10.40.17.2", "10.40.17.4")));
        Placement placement = placed(placer.place(
                List.of(on(List.of("a", "b"), List.of("storage-data", "in-band"), Need.Paths.ONE, false))));
        assertEquals(List.of("10.40.16.5", "10.40.16.6", "10.40.17.5", "10.40.17.6"), addresses(placement));
    }

    @Test
    void takesIpv6FromTheHostNumberOfIpv4() {
        Placer placer = new Placer(
                List.of(of("management", "10.40.8.0/24"), of("management", "fd40:a4da:1:8::/64", "fd40:a4da:1:8::1")));
        Placement placement = placed(
                placer.place(List.of(on(List.of("bay 1", "bay 2"), List.of("management"), Need.Paths.ONE, true))));
        assertEquals(List.of("10.40.8.2", "10.40.8.3", "fd40:a4da:1:8::2", "fd40:a4da:1:8::3"), addresses(placement));
    }

    @Test
    void splitsTwoPathsOverHalves() {
        Placer placer = new Placer(List.of(of("storage-data", "10.40.16.0/24", "10.40.16.129")));
        Placement placement = placed(placer.place(
                List.of(on(List.of("a1", "a2", "b1", "b2"), List.of("storage-data"), Need.Paths.HALVES, false))));
        assertEquals(List.of("10.40.16.2", "10.40.16.3", "10.40.16.130", "10.40.16.131"), addresses(placement));
        assertEquals(
                List.of("a1", "a2", "b1", "b2"),
                placement.seats().stream().map(Placement.Seat::role).toList());
    }

    @Test
    void alternatesTwoPaths() {
        Placer placer = new Placer(List.of(of("storage-data", "10.40.16.0/24")));
        Placement placement = placed(placer.place(
                List.of(on(List.of("a1", "a2", "b1", "b2"), List.of("storage-data"), Need.Paths.ALTERNATING, false))));
        assertEquals(List.of("10.40.16.2", "10.40.16.3", "10.40.16.4", "10.40.16.5"), addresses(placement));
        assertEquals(
                List.of("a1", "b1", "a2", "b2"),
                placement.seats().stream().map(Placement.Seat::role).toList());
    }

    @Test
    void ranksNeatStartsAndSaysWhy() {
        Placer placer = new Placer(List.of(ground(
                List.of(AddressRun.parse("10.40.8.33-223")),
                List.of(AddressRun.parse("10.40.8.36-39")),
                Address.parse("10.40.8.40"))));
        List<Placement> fits =
                placer.fits(List.of(run(3, 1, 0)), 3, new Placer.Wish(Address.parse("10.40.8.40"), "ard-fic-1"));
        assertEquals("10.40.8.41", fits.get(0).first().toString());
        assertTrue(fits.get(0).reasons().contains(PlaceText.CONTINUES_AFTER.text("ard-fic-1")));
        assertEquals("10.40.8.33", fits.get(1).first().toString());
        assertEquals(
                List.of(PlaceText.FILLS_GAP.text(), PlaceText.LOWEST_THAT_FITS.text()),
                fits.get(1).reasons());
        assertEquals(List.of(PlaceText.STARTS_ON_A_TEN.text()), fits.get(2).reasons());
        assertEquals(3, fits.size());
        assertEquals(186, placer.left("management"), "a ranking takes nothing");
    }

    @Test
    void saysWhyAPlaceThatWasPointedAtWillNotDo() {
        Placer placer = new Placer(
                List.of(ground(List.of(AddressRun.parse("10.40.8.32-63")), List.of(), Address.parse("10.40.8.42"))));
        assertEquals(
                "10.40.8.44",
                placed(placer.placeAt(List.of(run(2, 4, 0)), Address.parse("10.40.8.44")))
                        .first()
                        .toString());
        assertTrue(why(placer, "10.40.8.40").equals(PlaceText.NOT_FREE.text("10.40.8.42", 3)));
        assertTrue(why(placer, "10.40.8.41").equals(PlaceText.WRONG_START.text("10.40.8.41", 4)));
        assertTrue(why(placer, "10.40.9.40").equals(PlaceText.OUTSIDE.text("10.40.9.40")));
    }

    private static String why(Placer placer, String at) {
        return assertInstanceOf(NoFit.class, placer.placeAt(List.of(run(3, 4, 0)), Address.parse(at)))
                .why();
    }

    @Test
    void tellsOfAddressesThatStillCoolOff() {
        FreeSpace ground = new FreeSpace(
                "management",
                NETWORK,
                null,
                List.of(AddressRun.parse("10.40.8.148-155")),
                List.of(),
                List.of(),
                List.of(Address.parse("10.40.8.152")));
        Placer placer = new Placer(List.of(ground));
        assertEquals(
                "10.40.8.148",
                placed(placer.place(List.of(run(4, 1, 0)))).first().toString());
        assertEquals(
                PlaceText.HELD_BACK.text("10.40.8.150", "10.40.8.152"),
                new Placer(List.of(ground))
                        .almost(List.of(run(4, 1, 0)))
                        .orElseThrow()
                        .why());
    }

    /** The plainest placer there could be: tries every start from the lowest on. */
    private static List<Address> byHand(FreeSpace ground, AddressSet free, int length, int multipleOf) {
        for (Address start = ground.network().network();
                start.compareTo(ground.network().last()) <= 0;
                start = start.next()) {
            boolean fits = (start.low() & 255) % multipleOf == 0;
            List<Address> row = new ArrayList<>();
            for (int i = 0; i < length && fits; i++) {
                fits = free.contains(start.plus(i));
                row.add(start.plus(i));
            }
            if (fits) {
                return row;
            }
        }
        return List.of();
    }

    @Property(tries = 400)
    void findsWhatABruteForcePlacerFinds(
            @ForAll @Size(max = 20) Set<@IntRange(max = 31) Integer> taken,
            @ForAll @IntRange(min = 0, max = 15) int poolFrom,
            @ForAll @Size(min = 1, max = 6) List<@IntRange(min = 1, max = 5) Integer> lengths,
            @ForAll @IntRange(min = 1, max = 5) int multipleOf) {
        AddressRun pool = new AddressRun(SMALL.network().plus(poolFrom), SMALL.last());
        List<Address> gone = taken.stream().map(i -> SMALL.network().plus(i)).toList();
        FreeSpace ground = new FreeSpace("management", SMALL, null, List.of(pool), List.of(), gone, List.of());
        Placer placer = new Placer(List.of(ground));
        AddressSet free = ground.free();
        assertEquals(free.size(), ground.freeSize());
        Set<Address> given = new HashSet<>();
        for (int length : lengths) {
            List<Address> expected = byHand(ground, free, length, multipleOf);
            List<Address> found = placer.place(List.of(run(length, multipleOf, 0)))
                    .fold(p -> p.seats().stream().map(Placement.Seat::address).toList(), none -> List.<Address>of());
            assertEquals(expected, found);
            for (Address address : found) {
                assertTrue(given.add(address), "no address is given twice");
                assertTrue(pool.contains(address)
                        && !gone.contains(address)
                        && SMALL.hosts().contains(address));
                free.remove(address);
            }
        }
        assertEquals(free.size(), placer.left("management"));
    }

    @Property(tries = 200)
    void givesBackExactlyWhatItTook(
            @ForAll @Size(max = 12) Set<@IntRange(max = 31) Integer> taken,
            @ForAll @IntRange(min = 1, max = 3) int half,
            @ForAll Need.Paths paths,
            @ForAll boolean alike) {
        List<Address> gone = taken.stream().map(i -> SMALL.network().plus(i)).toList();
        FreeSpace v4 = new FreeSpace("management", SMALL, null, List.of(SMALL.run()), List.of(), gone, List.of());
        Placer placer = new Placer(List.of(v4, of("management", "fd40:a4da:1:9::/64")));
        List<Need> needs = List.of(on(run(2 * half, 1, 0).roles(), List.of("management"), paths, alike), run(1, 1, 0));
        TreeSet<String> first = new TreeSet<>();
        long before = placer.left("management");
        placer.place(needs).fold(p -> first.addAll(addresses(p)) & release(placer, needs, p), none -> true);
        assertEquals(before, placer.left("management"));
        TreeSet<String> again = new TreeSet<>();
        placer.place(needs).fold(p -> again.addAll(addresses(p)), none -> true);
        assertEquals(first, again);
        assertFalse(
                !first.isEmpty() && first.size() != (alike ? 4 * half : 2 * half) + 1, "no address is listed twice");
    }

    private static boolean release(Placer placer, List<Need> needs, Placement placement) {
        placer.release(needs, placement);
        return true;
    }
}
