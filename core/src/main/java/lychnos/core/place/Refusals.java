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
            return new NoFit(network, need.length(), map.left(), PlaceText.OUTSIDE.text(at));
        }
        if (map.number(start) % Shape.of(need).multipleOf() != 0) {
            return new NoFit(
                    network,
                    need.length(),
                    map.left(),
                    PlaceText.WRONG_START.text(at, Shape.of(need).multipleOf()));
        }
        for (Plot plot : plots) {
            for (int i = 0; i < need.length(); i++) {
                if (!plot.map().isFree(start + plot.shift() + i, 1)) {
                    return new NoFit(
                            network,
                            need.length(),
                            map.left(),
                            PlaceText.NOT_FREE.text(plot.map().address(start + plot.shift() + i), need.length()));
                }
            }
        }
        return new NoFit(network, need.length(), map.left(), PlaceText.CANNOT_BE_ALLOCATED.text(at));
    }

    /** There is no place for it at all. */
    static NoFit full(Need need, List<Plot> plots) {
        FreeMap map = plots.get(0).map();
        long left = map.left();
        PlaceText why = left == 0
                ? PlaceText.NONE_FREE
                : left < need.length() ? PlaceText.TOO_FEW_FREE : PlaceText.FREE_BUT_SCATTERED;
        return new NoFit(
                plots.get(0).network(),
                need.length(),
                left,
                why.text(need.length(), plots.get(0).network().replace('-', ' '), left));
    }
}
