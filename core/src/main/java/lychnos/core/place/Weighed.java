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
            reasons.add(PlaceText.CONTINUES_AFTER.text(wish.lastName()));
            points += 4;
        }
        if (map.number(start) % 10 == 0) {
            reasons.add(PlaceText.STARTS_ON_A_TEN.text());
            points += 3;
        }
        boolean opens = start == 0 || !map.isFree(start - 1, 1);
        boolean closes = map.endOfGap(start) == start + need.length();
        if (opens && closes) {
            reasons.add(PlaceText.FILLS_GAP.text());
            points += 3;
        } else if (opens) {
            points += 1;
        }
        if (lowest) {
            reasons.add(PlaceText.LOWEST_THAT_FITS.text());
            points += 1;
        }
        if (reasons.isEmpty()) {
            reasons.add(need.length() == 1 ? "free" : PlaceText.IN_A_ROW.text(need.length()));
        }
        return new Weighed(map, start, points, reasons);
    }
}
