package lychnos.core.place;

import java.util.List;

/** One network that a need lies in, with how far its run is shifted there. */
record Plot(String network, FreeMap map, int shift) {

    /** Whether a run is free in all of these. */
    static boolean allFree(List<Plot> plots, int start, int length) {
        for (Plot plot : plots) {
            if (!plot.map.isFree(start + plot.shift, length)) {
                return false;
            }
        }
        return true;
    }

    /** Takes a run in all of these, or gives it back. */
    static void set(List<Plot> plots, int start, int length, boolean free) {
        plots.forEach(plot -> plot.map.set(start + plot.shift, length, free));
    }
}
