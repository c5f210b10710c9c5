package lychnos.core.order;

import java.util.EnumSet;
import java.util.Set;

/**
 * The state of one unit's run. Legal transitions:
 *
 * <pre>
 * WAITING -> RUNNING            a worker took it
 * WAITING -> CANCELLED          a person ended the round
 * RUNNING -> DONE               every step holds
 * RUNNING -> STOPPED            a surprise: a person must look
 * RUNNING -> CANCELLED          a person ended it, between two steps
 * DONE -> WAITING               a value that was left for later is known
 * STOPPED -> WAITING            a person says: try again
 * STOPPED -> SET_ASIDE          a person says: go on without it
 * CANCELLED -> WAITING          a person says: try again
 * SET_ASIDE -> WAITING          a person says: try again
 * </pre>
 */
public enum RunState {
    WAITING,
    RUNNING,
    DONE,
    STOPPED,
    CANCELLED,
    SET_ASIDE;

    private Set<RunState> next() {
        return switch (this) {
            case WAITING -> EnumSet.of(RUNNING, CANCELLED);
            case RUNNING -> EnumSet.of(DONE, STOPPED, CANCELLED);
            case STOPPED -> EnumSet.of(WAITING, SET_ASIDE);
            case DONE, CANCELLED, SET_ASIDE -> EnumSet.of(WAITING);
        };
    }

    public boolean mayBecome(RunState state) {
        return next().contains(state);
    }

    /** Whether nothing happens to it any more unless a person says so. */
    public boolean ended() {
        return this != WAITING && this != RUNNING;
    }
}
