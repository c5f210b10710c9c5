package lychnos.core.place;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import lychnos.core.address.Address;
import lychnos.core.address.AddressRun;

/**
 * Finds addresses for units in a number of {@link FreeSpace}s. Nothing is changed outside of it: it proposes, the
 * database decides.
 *
 * <p>Structure and cost. Every network is a bit a host number ({@link FreeMap}). A need that lies in several networks,
 * in two halves of one, or in IPv4 and IPv6 alike, is one run of host numbers that must be free in each of these.
 * Placing only ever takes bits away, so the lowest start for one shape of need never moves back: a cursor for each
 * shape is kept, and placing many units reads every network once for each shape, whatever its size and however broken
 * it is. Putting something back resets the cursors. Not safe for use by several threads.
 *
 * <p>Several networks may serve one purpose. A unit's addresses of a purpose lie in one of them: they are tried in the
 * order in which they were given, IPv4 before IPv6, until everything that the unit needs fits.
 */
public final class Placer {

    /** Starts that are weighed for a ranking; behind them lie only more of the same. */
    private static final int MOST_WEIGHED = 2000;

    private final Map<String, List<FreeMap>> v4 = new LinkedHashMap<>();
    private final Map<String, List<FreeMap>> v6 = new LinkedHashMap<>();
    /** By a network's map, the same with addresses that are held back after release counted as free. */
    private final Map<FreeMap, FreeMap> warm = new IdentityHashMap<>();

    private final Map<Cursor, Integer> cursors = new HashMap<>();

    /** The lowest start for a shape of need in these networks. */
    private record Cursor(Shape shape, List<FreeMap> maps) {

        static Cursor of(Need need, List<Plot> plots) {
            return new Cursor(Shape.of(need), plots.stream().map(Plot::map).toList());
        }
    }

    public Placer(Collection<FreeSpace> grounds) {
        for (FreeSpace ground : grounds) {
            FreeMap map = new FreeMap(ground, false);
            (ground.network().network().isV4() ? v4 : v6)
                    .computeIfAbsent(ground.purpose(), none -> new ArrayList<>())
                    .add(map);
            if (!ground.cooling().isEmpty()) {
                warm.put(map, new FreeMap(ground, true));
            }
        }
    }

    private List<FreeMap> maps(String purpose) {
        return v4.getOrDefault(purpose, v6.getOrDefault(purpose, List.of()));
    }

    /**
     * Every choice of networks for these needs, in the order in which they are tried; none where a purpose has no
     * network.
     */
    private List<NetworkChoice> choices(List<Need> needs) {
        Set<String> purposes = new LinkedHashSet<>();
        needs.forEach(need -> purposes.addAll(need.networks()));
        boolean both = needs.stream().anyMatch(Need::ipv6);
        List<NetworkChoice> choices = List.of(NetworkChoice.NONE);
        for (String purpose : purposes) {
            boolean four = v4.containsKey(purpose);
            List<NetworkChoice> more = new ArrayList<>();
            for (NetworkChoice choice : choices) {
                for (FreeMap first : maps(purpose)) {
                    for (FreeMap second : four && both && v6.containsKey(purpose)
                            ? v6.get(purpose)
                            : Collections.singletonList((FreeMap) null)) {
                        more.add(choice.with(purpose, four ? first : null, four ? second : first));
                    }
                }
            }
            choices = more;
        }
        return choices;
    }

    /** How many addresses are left in the networks of this purpose; 0 where there is none. */
    public long left(String network) {
        return maps(network).stream().mapToLong(FreeMap::left).sum();
    }

    private int lowest(Need need, List<Plot> plots, int from) {
        Shape shape = Shape.of(need);
        FreeMap first = plots.get(0).map();
        int start = first.next(from, need.length(), shape.multipleOf());
        while (start >= 0 && plots.size() > 1 && !Plot.allFree(plots, start, need.length())) {
            start = first.next(start + 1, need.length(), shape.multipleOf());
        }
        return start;
    }

    /** Places everything that a unit needs at the lowest addresses, and takes them: all or none. */
    public Placing place(List<Need> needs) {
        return place(needs, null, List.of());
    }

    /**
     * Places what a unit needs with its first run beginning at an address that the engineer typed or pointed at.
     *
     * @param at where the first need begins; the others are placed lowest
     */
    public Placing placeAt(List<Need> needs, Address at) {
        return place(needs, at, List.of());
    }

    private Placing place(List<Need> needs, Address at, List<String> reasons) {
        List<NetworkChoice> choices = choices(needs);
        if (choices.isEmpty()) {
            Need need = needs.stream()
                    .filter(each ->
                            each.networks().stream().anyMatch(name -> maps(name).isEmpty()))
                    .findFirst()
                    .orElseThrow();
            String network = need.networks().stream()
                    .filter(name -> maps(name).isEmpty())
                    .findFirst()
                    .orElseThrow();
            return new NoFit(network, need.length(), 0, PlaceText.NO_NETWORK.text(network.replace('-', ' ')));
        }
        List<NetworkChoice> meant = at == null
                ? choices
                : choices.stream()
                        .filter(choice ->
                                choice.plots(needs.get(0)).get(0).map().offset(at) >= 0)
                        .toList();
        Placing best = null;
        for (NetworkChoice choice : meant.isEmpty() ? choices.subList(0, 1) : meant) {
            Placing tried = place(needs, choice, at, reasons);
            if (tried instanceof Placement) {
                return tried;
            }
            // of several that do not fit the one with most room says what is missing
            best = best == null || ((NoFit) tried).free() > ((NoFit) best).free() ? tried : best;
        }
        return best;
    }

    private Placing place(List<Need> needs, NetworkChoice choice, Address at, List<String> reasons) {
        List<Taken> done = new ArrayList<>();
        for (Need need : needs) {
            List<Plot> plots = choice.plots(need);
            boolean pointed = at != null && done.isEmpty();
            Cursor cursor = Cursor.of(need, plots);
            int start = pointed ? pointedAt(need, plots, at) : lowest(need, plots, cursors.getOrDefault(cursor, 0));
            if (start < 0) {
                undo(done);
                return pointed ? Refusals.notThere(need, plots, at) : Refusals.full(need, plots);
            }
            if (!pointed) {
                cursors.put(cursor, start);
            }
            Plot.set(plots, start, need.length(), false);
            done.add(new Taken(need, plots, start));
        }
        return placement(done, reasons);
    }

    private record Taken(Need need, List<Plot> plots, int start) {}

    private void undo(List<Taken> done) {
        done.forEach(taken -> Plot.set(taken.plots, taken.start, taken.need.length(), true));
        if (!done.isEmpty()) {
            cursors.clear();
        }
    }

    private static int pointedAt(Need need, List<Plot> plots, Address at) {
        int start = plots.get(0).map().offset(at);
        boolean aligned =
                start >= 0 && plots.get(0).map().number(start) % Shape.of(need).multipleOf() == 0;
        return aligned && Plot.allFree(plots, start, need.length()) ? start : -1;
    }

    private static Placement placement(List<Taken> done, List<String> reasons) {
        List<Placement.Seat> seats = new ArrayList<>();
        List<Placement.Growth> growth = new ArrayList<>();
        for (Taken taken : done) {
            Need need = taken.need;
            boolean halves = need.paths() == Need.Paths.HALVES;
            int perPlot = halves ? need.roles().size() / 2 : need.roles().size();
            for (Plot plot : taken.plots) {
                int firstRole = halves && plot.shift() > 0 ? perPlot : 0;
                for (int i = 0; i < perPlot; i++) {
                    seats.add(new Placement.Seat(
                            role(need, firstRole + i),
                            plot.network(),
                            plot.map().address(taken.start + plot.shift() + i)));
                }
                if (need.growth() > 0) {
                    Address first = plot.map().address(taken.start + plot.shift() + perPlot);
                    growth.add(new Placement.Growth(plot.network(), AddressRun.of(first, need.growth())));
                }
            }
        }
        return new Placement(seats, growth, reasons);
    }

    /** With alternating addresses the first half of the roles takes the even ones, the second half the odd ones. */
    private static String role(Need need, int place) {
        if (need.paths() != Need.Paths.ALTERNATING) {
            return need.roles().get(place);
        }
        return need.roles().get(place % 2 == 0 ? place / 2 : need.roles().size() / 2 + place / 2);
    }

    /** Gives back what a placement took, growth included. */
    public void release(List<Need> needs, Placement placement) {
        int seat = 0;
        NetworkChoice choice = choices(needs).stream()
                .filter(each -> each.holds(needs, placement))
                .findFirst()
                .orElseThrow();
        for (Need need : needs) {
            List<Plot> plots = choice.plots(need);
            int start = plots.get(0).map().offset(placement.seats().get(seat).address());
            Plot.set(plots, start, need.length(), true);
            seat += need.paths() == Need.Paths.HALVES
                    ? need.roles().size() / 2 * plots.size()
                    : need.roles().size() * plots.size();
        }
        cursors.clear();
    }

    /**
     * What the engineer would like to see near each other.
     *
     * @param last the last address that a unit of this kind bears in the first network, or null
     * @param lastName that unit's name
     */
    public record Wish(Address last, String lastName) {

        public static final Wish NONE = new Wish(null, "");
    }

    /**
     * Different fits for one unit, best first, each for the whole unit; nothing is taken. The first need decides the
     * ranking: neat starts, filled gaps and rows that go on are what people choose by hand.
     *
     * @param most how many are wanted
     */
    public List<Placement> fits(List<Need> needs, int most, Wish wish) {
        if (needs.isEmpty()) {
            return List.of();
        }
        Need first = needs.get(0);
        List<Weighed> weighed = new ArrayList<>();
        Set<FreeMap> seen = Collections.newSetFromMap(new IdentityHashMap<>());
        for (NetworkChoice choice : choices(needs)) {
            List<Plot> plots = choice.plots(first);
            FreeMap map = plots.get(0).map();
            if (!seen.add(map)) {
                continue; // another choice of the networks of other needs
            }
            int weighedBefore = weighed.size();
            int start = lowest(first, plots, 0);
            int lowest = start;
            while (start >= 0 && weighed.size() - weighedBefore < MOST_WEIGHED) {
                weighed.add(Weighed.of(first, map, start, start == lowest, wish));
                start = lowest(first, plots, start + 1);
            }
        }
        // what weighs the same stays in the order of the networks
        weighed.sort(Comparator.comparingInt((Weighed each) -> -each.points()));
        List<Placement> fits = new ArrayList<>();
        List<Weighed> chosen = new ArrayList<>();
        for (Weighed each : weighed) {
            boolean near = chosen.stream()
                    .anyMatch(other ->
                            other.map() == each.map() && Math.abs(other.start() - each.start()) < first.length());
            if (fits.size() < most && !near) {
                chosen.add(each);
                place(needs, each.map().address(each.start()), each.reasons())
                        .fold(
                                placement -> {
                                    release(needs, placement);
                                    return fits.add(placement);
                                },
                                none -> false);
            }
        }
        return fits;
    }

    /** A preferred start that is blocked only by addresses held back after release: reported, not proposed. */
    public Optional<NoFit> almost(List<Need> needs) {
        Need first = needs.get(0);
        return maps(first.networks().get(0)).stream()
                .filter(warm::containsKey)
                .flatMap(cold -> almost(first, cold, warm.get(cold)).stream())
                .findFirst();
    }

    private static Optional<NoFit> almost(Need first, FreeMap cold, FreeMap map) {
        for (int start = map.next(0, first.length(), Shape.of(first).multipleOf());
                start >= 0;
                start = map.next(start + 1, first.length(), Shape.of(first).multipleOf())) {
            if (map.number(start) % 10 == 0 && !cold.isFree(start, first.length())) {
                int at = start;
                while (cold.isFree(at, 1)) {
                    at++;
                }
                return Optional.of(new NoFit(
                        first.networks().get(0),
                        first.length(),
                        cold.left(),
                        PlaceText.HELD_BACK.text(map.address(start), map.address(at))));
            }
        }
        return Optional.empty();
    }
}
