package lychnos.core.proof;

import java.time.Duration;
import java.util.List;

/** Judges a machine's own clock, where a standard interface tells it. */
public final class ClockMark {

    /** Such interfaces tell whole seconds, and the exchange takes its part. */
    static final Duration IN_STEP = Duration.ofMillis(2500);

    private ClockMark() {}

    /** @param ahead how far it is ahead of ours; negative where it is behind */
    public static Beside of(Duration ahead) {
        Duration off = ahead.abs();
        if (off.compareTo(IN_STEP) <= 0) {
            return Beside.holds(SideMark.TIME, "in step, to the second", List.of());
        }
        return Beside.broken(SideMark.TIME, Trouble.CLOCK_OFF, text(off) + (ahead.isNegative() ? " behind" : " ahead"), List.of());
    }

    private static String text(Duration off) {
        if (off.toDays() > 1) {
            return off.toDays() + " days";
        }
        return off.toMinutes() > 1 ? off.toMinutes() + " min" : off.toSeconds() + " s";
    }
}
