package lychnos.server.configure.line;

import com.fasterxml.jackson.annotation.JsonTypeInfo;
import java.util.List;
import lychnos.core.dialogue.Mode;

/**
 * What a server and a vantage point say to each other about a dialogue that is carried on there. It travels as {@link
 * lychnos.wire.far.LinkMessage.Ask} (an {@link Order}, answered with why not, or with null) or as {@link
 * lychnos.wire.far.LinkMessage.Note}. Who changes a record raises {@link lychnos.wire.far.LinkMessage#VERSION}.
 */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "type")
public sealed interface DialogueMessage {

    long dialogue();

    // --- from the server, with an answer ---

    /** What a server has done to a dialogue at the vantage point. */
    sealed interface Order extends DialogueMessage {}

    record Begin(LineOrder order) implements Order {
        @Override
        public long dialogue() {
            return order.left().dialogueId();
        }
    }

    /** Whether a person trusts the host key of a console server. */
    record TrustKey(long dialogue, String fingerprint, boolean trusted) implements Order {}

    record TypeKeys(long dialogue, String keys, String login) implements Order {}

    record SendBreak(long dialogue, String login) implements Order {}

    record SetMode(long dialogue, Mode mode, String login) implements Order {}

    /** @param typed what the person has typed instead of the step; empty if nothing */
    record GoOn(long dialogue, String typed, String login) implements Order {}

    record SendAgain(long dialogue, String login) implements Order {}

    record FetchLog(long dialogue, String login) implements Order {}

    record Halt(long dialogue, String login) implements Order {}

    record TakeKeyboard(long dialogue, String login) implements Order {}

    record Resize(long dialogue, int columns, int rows) implements Order {}

    /** Another member has told this value, or a person has entered it. */
    record Known(long dialogue, String name, String value) implements Order {}

    record OtherIsActive(long dialogue) implements Order {}

    /** @param fence that of the server which closes it; an older one than the line's closes nothing */
    record Close(long dialogue, long fence) implements Order {}

    // --- from the server, about what was handed in ---

    /** Everything up to this step is in the database. */
    record Kept(long dialogue, long upTo) implements DialogueMessage {}

    /** The server does not have the unit any more, or no server has the dialogue. */
    record Lost(long dialogue) implements DialogueMessage {}

    /** The server could not keep it now. */
    record HandInAgain(long dialogue) implements DialogueMessage {}

    // --- from the vantage point ---

    record HandIn(long dialogue, LineOrder.HandedStep step) implements DialogueMessage {}

    record Shown(long dialogue, String text) implements DialogueMessage {}

    /** @param lacks names of the values that the line waits for */
    record StandingNow(long dialogue, LineStanding standing, List<String> lacks) implements DialogueMessage {}

    /** The member's line has told a value that others may wait for. */
    record Told(long dialogue, String name, String value) implements DialogueMessage {}

    record Identified(long dialogue) implements DialogueMessage {}

    record Done(long dialogue) implements DialogueMessage {}

    /** A console server has shown this host key; {@link TrustKey} is the answer. */
    record KeyShown(long dialogue, String server, String fingerprint) implements DialogueMessage {}
}
