package lychnos.core.service;

import java.time.Instant;
import java.util.List;
import java.util.Map;

/**
 * What one service answered.
 *
 * @param address where it was asked
 * @param state how it stands
 * @param sentence what was seen, for people
 * @param detail single values by their names, for people only
 * @param replies what it answered to requests that it may refuse
 * @param at when it was asked
 */
public record Measured(
        ServiceKind kind,
        String address,
        State state,
        String sentence,
        Map<String, String> detail,
        List<Reply> replies,
        Instant at) {

    /** Of a service that was asked nothing that it may refuse. */
    public Measured(
            ServiceKind kind, String address, State state, String sentence, Map<String, String> detail, Instant at) {
        this(kind, address, state, sentence, detail, List.of(), at);
    }

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
        replies = List.copyOf(replies);
    }

    public boolean fine() {
        return state == State.FINE;
    }
}
