package lychnos.core.service;

import java.time.Instant;
import java.util.Map;

/**
 * What one service answered.
 *
 * @param address where it was asked
 * @param state how it stands
 * @param sentence what was seen, for people
 * @param detail single values by their names, for those who want to see them
 * @param at when it was asked
 */
public record Measured(
        ServiceKind kind, String address, State state, String sentence, Map<String, String> detail, Instant at) {

    /** How a service stands. */
    public enum State {
        FINE,
        /** It answers, but not as it should. */
        ODD,
        /** It says something that is not true: a clock that is wrong. */
        LIES,
        SILENT
    }

    public Measured {
        detail = Map.copyOf(detail);
    }

    public boolean fine() {
        return state == State.FINE;
    }
}
