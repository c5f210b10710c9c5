package lychnos.core.place;

import java.util.ArrayList;
import java.util.List;

/** A start with what speaks for it. */
record Weighed(FreeMap map, int start, int points, List<String> reasons) {

    /** What people look at when they choose by hand: neat starts, filled gaps, and rows that go on. */
    static Weighed of(Need need, FreeMap map, int start, boolean lowest, Placer.Wish wish) {
        List<String> reasons = new ArrayList<>();
        int points = 0;
        if (wish.last() != null && map.offset(wish.last()) + 1 == start) {
            reasons.add("continues after " + wish.lastName());
            points += 4;
        }
        if (map.number(start) % 10 == 0) {
            reasons.add("starts on a ten");
            points += 3;
        }
        boolean opens = start == 0 || !map.isFree(start - 1, 1);
        boolean closes = map.endOfGap(start) == start + need.length();
        if (opens && closes) {
            reasons.add("fills a gap");
            points += 3;
        } else if (opens) {
            points += 1;
        }
        if (lowest) {
            reasons.add("lowest that fits");
            points += 1;
        }
        if (reasons.isEmpty()) {
            reasons.add(need.length() == 1 ? "free" : need.length() + " in a row");
        }
        return new Weighed(map, start, points, reasons);
    }
}
