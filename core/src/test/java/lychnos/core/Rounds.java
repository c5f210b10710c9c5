package lychnos.core;

/** How often tests try what chance decides: more often before a release, see {@code ./lychnos test --help}. */
public final class Rounds {

    private Rounds() {}

    /** @param usual in every run */
    public static int of(int usual) {
        return usual * Integer.getInteger("lychnos.times", 1);
    }
}
