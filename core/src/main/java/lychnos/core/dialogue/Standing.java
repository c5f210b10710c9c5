package lychnos.core.dialogue;

import java.time.Instant;
import lychnos.core.dialogue.Conversation.State;

/** How a conversation stands, with what belongs to that and to nothing else. */
sealed interface Standing {

    State state();

    /** UNSURE, FOLLOWING, STOPPED, MANUAL or DONE. */
    record Plain(State state) implements Standing {

        public Plain {
            if (state == State.WAITING || state == State.HELD || state == State.CUT) {
                throw new IllegalArgumentException(state + " has more to it");
            }
        }
    }

    /**
     * The machine works.
     *
     * @param until when a person is called; null where it is not known since when it works
     */
    record Waiting(Instant until) implements Standing {

        @Override
        public State state() {
            return State.WAITING;
        }
    }

    /**
     * Nothing is sent until a person has decided.
     *
     * @param behind how it goes on then
     */
    record Held(Hold hold, Standing behind) implements Standing {

        @Override
        public State state() {
            return State.HELD;
        }
    }

    /**
     * The line is down.
     *
     * @param before how it stood
     */
    record Cut(Standing before) implements Standing {

        @Override
        public State state() {
            return State.CUT;
        }
    }
}
