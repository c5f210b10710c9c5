package lychnos.core.proof;

/**
 * One thing that was looked at for a rung or a mark.
 *
 * @param name what it is, such as {@code page} or {@code ns1}
 * @param standing whether it holds
 * @param seen what was measured, as short as an engineer would note it
 */
public record Part(String name, Outcome.Standing standing, String seen) {

    public static Part holds(String name, String seen) {
        return new Part(name, Outcome.Standing.HOLDS, seen);
    }

    public static Part broken(String name, String seen) {
        return new Part(name, Outcome.Standing.BROKEN, seen);
    }

    /** It cannot be told from here, and is left out rather than green. */
    public static Part notMeasured(String name, String why) {
        return new Part(name, Outcome.Standing.NOT_MEASURED, why);
    }
}
