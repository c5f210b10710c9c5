package lychnos.server.configure.model;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import lychnos.core.dialogue.Conversation;
import lychnos.core.dialogue.DialogueStep;
import lychnos.core.dialogue.Hold;
import lychnos.core.dialogue.Mode;
import lychnos.core.dialogue.TermsText;
import lychnos.server.text.ConfigureText;

/**
 * What is to be kept of a member's dialogue before anything more is sent.
 *
 * @param steps every step, where the plan itself has changed; else null
 * @param moved steps whose progress has changed
 * @param told values that the line has told
 * @param stretch what the time goes to from now on
 * @param log the machine's own log, if it was fetched now; else empty
 * @param handed the number under which a vantage has handed it in; 0 where it is from here
 */
public record Change(
        long dialogueId,
        Instant at,
        DialogueStands stands,
        List<DialogueStep> steps,
        Map<Integer, StepMoved> moved,
        Answered answered,
        Map<String, String> told,
        Stretch stretch,
        String log,
        long handed) {

    /**
     * How a dialogue stands.
     *
     * @param hold what holds it up, or null
     * @param note what is to be said beside the steps
     */
    public record DialogueStands(
            Conversation.State state, Hold hold, Mode mode, boolean wiped, boolean identified, String note) {}

    /**
     * What goes out to the machine.
     *
     * @param sends by step, what is typed; null for a password
     * @param by who types
     * @param way how the machine is worked at: console or web
     * @param tries names of the passwords that are about to be sent
     * @param proven names of the passwords that have logged in
     * @param agreed the terms of the maker that an answer accepts, or null
     */
    public record Answered(
            Map<Integer, String> sends,
            String by,
            String way,
            List<String> tries,
            List<String> proven,
            TermsText agreed) {}

    /** Where a step stands now. */
    public record StepMoved(Conversation.Progress progress, String evidence) {}

    /**
     * What the time goes to: {@code hands}, {@code wait} or {@code held}; usual and longest in seconds where that is
     * known.
     */
    public record Stretch(String kind, String title, long about, long atMost) {

        /** A member that is held, which is a wait like any other where nobody is needed to end it. */
        public static Stretch held(Optional<Hold.Why> why, Conversation.State state) {
            return why.filter(Hold.Why::endsAlone).isPresent()
                    ? new Stretch(
                            "wait",
                            (why.get() == Hold.Why.DATE ? ConfigureText.A_DAY : ConfigureText.ANOTHER_ONE).text(),
                            0,
                            0)
                    : new Stretch("held", why.map(Enum::name).orElse(state.name()), 0, 0);
        }
    }

    /**
     * A piece of the recording: {@code o} for what the line showed, {@code m} for a mark, {@code i} for what a person
     * typed in a setup by hand.
     */
    public record RecordingPiece(long dialogueId, long number, Instant at, char kind, String text) {

        /** The same piece with what came right behind it. */
        public RecordingPiece with(String more) {
            return new RecordingPiece(dialogueId, number, at, kind, text + more);
        }

        /** Its text as the database takes it, which knows no NUL. */
        String storable() {
            return text.indexOf('\0') < 0 ? text : text.replace("\0", "");
        }
    }
}
