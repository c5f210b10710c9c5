package lychnos.core.place;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** One network of each purpose and IP version, of which all addresses of a unit are to come. */
record NetworkChoice(Map<String, FreeMap> v4, Map<String, FreeMap> v6) {

    static final NetworkChoice NONE = new NetworkChoice(Map.of(), Map.of());

    /** The same choice with networks for one more purpose; either may be null. */
    NetworkChoice with(String purpose, FreeMap four, FreeMap six) {
        Map<String, FreeMap> more4 = new HashMap<>(v4);
        Map<String, FreeMap> more6 = new HashMap<>(v6);
        if (four != null) {
            more4.put(purpose, four);
        }
        if (six != null) {
            more6.put(purpose, six);
        }
        return new NetworkChoice(more4, more6);
    }

    /** Where a need lies: every network it names, both halves of it, and IPv6 beside IPv4. */
    List<Plot> plots(Need need) {
        List<Plot> plots = new ArrayList<>();
        for (String network : need.networks()) {
            FreeMap map = v4.containsKey(network) ? v4.get(network) : v6.get(network);
            plots.add(new Plot(network, map, 0));
            if (need.paths() == Need.Paths.HALVES) {
                plots.add(new Plot(network, map, map.size() / 2));
            }
            if (need.ipv6() && v4.containsKey(network) && v6.containsKey(network)) {
                plots.add(new Plot(network, v6.get(network), 0));
                if (need.paths() == Need.Paths.HALVES) {
                    plots.add(new Plot(network, v6.get(network), map.size() / 2));
                }
            }
        }
        return plots;
    }

    /** Whether a placement lies in these networks. */
    boolean holds(List<Need> needs, Placement placement) {
        int seat = 0;
        for (Need need : needs) {
            int perPlot = need.paths() == Need.Paths.HALVES
                    ? need.roles().size() / 2
                    : need.roles().size();
            for (Plot plot : plots(need)) {
                if (plot.map().offset(placement.seats().get(seat).address()) < 0) {
                    return false;
                }
                seat += perPlot;
            }
        }
        return true;
    }
}
