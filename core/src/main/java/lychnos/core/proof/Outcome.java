package lychnos.core.proof;

import java.util.List;

/**
 * What one rung was found to be.
 *
 * @param rung which rung
 * @param standing whether it holds
 * @param trouble why it does not hold, or null
 * @param seen what was measured, as short as an engineer would note it
 * @param parts what it is made of, where that is more than one thing
 */
public record Outcome(Rung rung, Standing standing, Trouble trouble, String seen, List<Part> parts) {

    /** Whether a rung holds. */
    public enum Standing {
        HOLDS,
        BROKEN,
        /** A rung below is broken, so this one was not tried. */
        NOT_REACHED,
        /** It cannot be measured from here; it is left out rather than green. */
        NOT_MEASURED
    }

    public Outcome {
        parts = parts == null ? List.of() : List.copyOf(parts);
        if ((standing == Standing.BROKEN) != (trouble != null)) {
            throw new IllegalArgumentException("a broken rung, and only that, has a trouble");
        }
    }

    public static Outcome holds(Rung rung, String seen) {
        return new Outcome(rung, Standing.HOLDS, null, seen, List.of());
    }

    public static Outcome broken(Rung rung, Trouble trouble, String seen) {
        return new Outcome(rung, Standing.BROKEN, trouble, seen, List.of());
    }

    public static Outcome notReached(Rung rung) {
        return new Outcome(rung, Standing.NOT_REACHED, null, "", List.of());
    }

    public static Outcome notMeasured(Rung rung, String why) {
        return new Outcome(rung, Standing.NOT_MEASURED, null, why, List.of());
    }

    /** The same, with what it is made of. */
    public Outcome with(List<Part> more) {
        return new Outcome(rung, standing, trouble, seen, more);
    }
}
