package lychnos.core.place;

import java.util.List;

/** What two needs must share to have the same lowest start. */
record Shape(List<String> networks, int length, int multipleOf, Need.Paths paths, boolean ipv6) {

    static Shape of(Need need) {
        return new Shape(need.networks(), need.length(), multipleOf(need), need.paths(), need.ipv6());
    }

    private static int multipleOf(Need need) {
        int own = need.start().multipleOf();
        return need.paths() == Need.Paths.ALTERNATING && own % 2 != 0 ? own * 2 : own;
    }
}
