package lychnos.core.proof;

import java.util.List;
import lychnos.core.proof.Outcome.Standing;

/**
 * What one mark beside the ladder was found to be.
 *
 * @param trouble why it does not hold, or null
 * @param seen what was measured, as short as an engineer would note it
 * @param parts what was asked where
 */
public record Beside(SideMark mark, Standing standing, Trouble trouble, String seen, List<Part> parts) {

    public Beside {
        parts = parts == null ? List.of() : List.copyOf(parts);
        if ((standing == Standing.BROKEN) != (trouble != null)) {
            throw new IllegalArgumentException("a broken mark, and only that, has a trouble");
        }
    }

    static Beside holds(SideMark mark, String seen, List<Part> parts) {
        return new Beside(mark, Standing.HOLDS, null, seen, parts);
    }

    static Beside broken(SideMark mark, Trouble trouble, String seen, List<Part> parts) {
        return new Beside(mark, Standing.BROKEN, trouble, seen, parts);
    }

    /** It cannot be told from here. */
    public static Beside notMeasured(SideMark mark, String why) {
        return new Beside(mark, Standing.NOT_MEASURED, null, why, List.of());
    }

    /** The same, with what it is made of. */
    public Beside with(List<Part> more) {
        return new Beside(mark, standing, trouble, seen, more);
    }
}
