package lychnos.core.place;

import java.util.List;
import lychnos.core.address.Address;

/** Why a need does not fit. */
final class Refusals {

    private Refusals() {}

    /** It cannot begin at this address. */
    static NoFit notThere(Need need, List<Plot> plots, Address at) {
        FreeMap map = plots.get(0).map();
        int start = map.offset(at);
        String network = plots.get(0).network();
        if (start < 0) {
            return new NoFit(network, need.length(), map.left(), at + " does not lie in that network.");
        }
        if (map.number(start) % Shape.of(need).multipleOf() != 0) {
            return new NoFit(
                    network,
                    need.length(),
                    map.left(),
                    at + " cannot be the first address: this kind starts on a multiple of "
                            + Shape.of(need).multipleOf() + ".");
        }
        for (Plot plot : plots) {
            for (int i = 0; i < need.length(); i++) {
                if (!plot.map().isFree(start + plot.shift() + i, 1)) {
                    return new NoFit(
                            network,
                            need.length(),
                            map.left(),
                            plot.map().address(start + plot.shift() + i) + " is not free, and " + need.length()
                                    + " are needed in a row.");
                }
            }
        }
        return new NoFit(network, need.length(), map.left(), at + " cannot be taken.");
    }

    /** There is no place for it at all. */
    static NoFit full(Need need, List<Plot> plots) {
        FreeMap map = plots.get(0).map();
        long left = map.left();
        String row = need.length() == 1 ? "one address" : need.length() + " in a row";
        if (left == 0) {
            return new NoFit(
                    plots.get(0).network(),
                    need.length(),
                    left,
                    row + " wanted in " + plots.get(0).network().replace('-', ' ')
                            + ", and none is free: add or extend a pool, or release unused addresses.");
        }
        String why =
                left < need.length() ? "only " + left + " are free" : "the " + left + " free ones lie too scattered";
        return new NoFit(
                plots.get(0).network(),
                need.length(),
                left,
                row + " wanted in " + plots.get(0).network().replace('-', ' ') + ", " + why
                        + ": widen the pool or release what is not used.");
    }
}
