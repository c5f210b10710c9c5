package lychnos.server.configure.network;

import java.time.Instant;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.Map;
import java.util.Set;
import lychnos.core.dialogue.Conversation.State;
import lychnos.core.dialogue.Hold;

/** How work over the network stands, with what belongs to that and to nothing else. */
sealed interface RemoteState {

    RemoteState FOLLOWING = new Plain(State.FOLLOWING);
    RemoteState STOPPED = new Plain(State.STOPPED);
    RemoteState DONE = new Plain(State.DONE);

    Map<State, Set<State>> TRANSITIONS = new EnumMap<>(Map.of(
            State.FOLLOWING, EnumSet.of(State.FOLLOWING, State.WAITING, State.HELD, State.STOPPED, State.DONE),
            State.WAITING, EnumSet.of(State.FOLLOWING, State.WAITING, State.HELD, State.STOPPED),
            State.HELD, EnumSet.of(State.FOLLOWING, State.WAITING, State.HELD, State.STOPPED),
            State.STOPPED, EnumSet.of(State.FOLLOWING, State.STOPPED),
            State.DONE, EnumSet.noneOf(State.class)));

    State state();

    /** What a person is called for, or null. */
    default Hold hold() {
        return null;
    }

    /** Whether something is done without a person. */
    default boolean works() {
        return state() == State.FOLLOWING || state() == State.WAITING;
    }

    /** @throws IllegalStateException if this is not followed by that */
    default RemoteState become(RemoteState next) {
        if (!TRANSITIONS.get(state()).contains(next.state())) {
            throw new IllegalStateException(state() + " does not become " + next.state());
        }
        return next;
    }

    record Plain(State state) implements RemoteState {}

    /** The machine works at what was written; at this moment at the latest a person is called. */
    record Waiting(Instant until) implements RemoteState {

        @Override
        public State state() {
            return State.WAITING;
        }
    }

    /** Nothing is written until a person has decided. */
    record Held(Hold hold) implements RemoteState {

        @Override
        public State state() {
            return State.HELD;
        }
    }
}
