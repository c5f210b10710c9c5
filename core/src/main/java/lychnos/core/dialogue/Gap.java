package lychnos.core.dialogue;

import java.time.Instant;
import lychnos.core.dialogue.Conversation.State;
import lychnos.core.dialogue.DialogueStep.Waits;
import lychnos.core.dialogue.Hold.Why;

/**
 * What is to be kept in mind after the line was not watched for a time: what it showed meanwhile is lost, and what was
 * sent last may not have arrived.
 */
final class Gap {

    private final Course course;
    private final Typing typing;
    /** An earlier conversation was broken off here; the machine had been identified in it. */
    boolean brokenOff;
    /** What stands before this was shown before the break, and tells nothing of who is on the line now. */
    Screen.Place newFrom;
    /** The step whose answer was sent right before that, and may never have arrived. */
    int sentBefore = Course.NONE;

    boolean nudged;
    /** A person has said that it is the same machine as before the break, and it has said nothing since. */
    boolean unheard;
    /** The line was not looked at for a time: the end of a wait may have been shown meanwhile. */
    boolean mayHaveMissed;
    /**
     * Something may have been shown in a break, and nothing was answered since: what is missing on the screen is not a
     * difference.
     */
    boolean unseen;
    /** A page is worked on again only once it was drawn whole after the break, or a person has looked at it. */
    boolean pageAwaited;

    boolean redrawAsked;
    /** How often the window had been erased when the break ended. */
    private int erasuresAtBreak;

    Gap(Course course, Typing typing) {
        this.course = course;
        this.typing = typing;
    }

    /** An answer was sent: from here on everything was watched. */
    void answered() {
        unseen = false;
        pageAwaited = false;
        redrawAsked = false;
        sentBefore = Course.NONE;
        mayHaveMissed = false;
        unheard = false;
    }

    /** Whether nothing but parts of a page was drawn since the break. */
    boolean drawnInPart() {
        return pageAwaited && course.line.screen().erasures() == erasuresAtBreak;
    }

    /**
     * From here on the line was not watched: what it showed meanwhile is lost, and what was sent last may not have
     * arrived.
     */
    void broken() {
        sentBefore = course.steps.sent();
        unseen = true;
        pageAwaited = true;
        redrawAsked = false;
        erasuresAtBreak = course.line.screen().erasures();
    }

    /**
     * Whether the machine may have been left at work: nothing came since the break, a wait is next, and no answer that
     * it owes was lost.
     */
    boolean mayWork() {
        int sent = course.steps.sent();
        boolean owes = sent >= 0
                && (course.steps.asked(sent).read() != null
                        || !course.steps.asked(sent).expects().isEmpty());
        return told(course.line.shown()).isBlank() && course.steps.beginning().isPresent() && !owes;
    }

    /**
     * Whether a machine that was not heard since the break may be back: it shows what was waited for, or may have shown
     * it before anybody listened.
     */
    boolean mayBeBack(Instant now) {
        Waits waits = course.steps.waits();
        return course.line.quiet(now).compareTo(Conversation.SILENCE) >= 0
                        && waits.until().in(course.line.shown())
                || !nudged && course.line.quiet(now).compareTo(waits.about()) >= 0;
    }

    /** Whether a page that was drawn whole after the break shows the end of the wait that begins now. */
    boolean endedMeanwhile(String shown) {
        return course.state() == State.FOLLOWING
                && pageAwaited
                && !drawnInPart()
                && course.steps
                        .beginning()
                        .filter(waits -> waits.until().in(shown))
                        .isPresent();
    }

    void askWhetherTheSame() {
        boolean works =
                course.state() == State.WAITING || course.steps.beginning().isPresent() && course.steps.sent() < 0;
        course.hold(Why.CUT, Course.NONE, DialogueText.CUT.text(), Course.lastOf(course.line.shown()));
        course.behind(works ? State.WAITING : State.FOLLOWING);
    }

    void wake(Instant now) {
        if (nudged || course.dialogue.nudge().isEmpty() || course.mode == Mode.WATCH) {
            DialogueText silent =
                    course.dialogue.nudge().isEmpty() ? DialogueText.SILENT_NO_NUDGE : DialogueText.SILENT_AFTER_NUDGE;
            course.hold(Why.SILENT, -1, silent.text(), "");
            return;
        }
        nudged = true;
        redrawAsked = true;
        course.press(course.dialogue.nudge(), now);
    }

    /**
     * Sends the key that draws the page again, once, where the description has one; it changes nothing on the machine.
     */
    boolean redraws(Instant now) {
        if (redrawAsked || course.dialogue.nudge().isEmpty()) {
            return false;
        }
        redrawAsked = true;
        course.rows.restart();
        course.press(course.dialogue.nudge(), now);
        return true;
    }

    /** What tells which machine is on the line now. */
    String told(String shown) {
        return course.identified || newFrom == null
                ? shown
                : String.join("\n", course.line.screen().since(newFrom));
    }

    /** Whether the tool may press a key now: nobody works at the line by hand. */
    boolean mayPress() {
        return course.mode != Mode.WATCH && typing.isEmpty();
    }

    /** Asks once whether what is waited for has happened already, where that can be asked without changing anything. */
    void askForTheEnd(int prompt, Instant now) {
        String asks = course.steps.waits().asks();
        if (mayHaveMissed
                && !asks.isEmpty()
                && course.mode != Mode.WATCH
                && typing.isEmpty()
                && course.steps.asked(prompt).command()
                && course.line.quiet(now).compareTo(Conversation.SILENCE) >= 0) {
            mayHaveMissed = false;
            course.emit(new Effect.Send(Course.NONE, asks + "\r"));
            course.line.answered(asks, now);
        }
    }

    /** What came while the work was broken off is lost: a person has seen it, or can make the machine show it again. */
    void notSeen(int step, String shown) {
        course.hold(
                Why.NOT_SEEN,
                step,
                DialogueText.OUTPUT_NOT_SEEN.text(course.steps.get(step).title()),
                shown);
    }
}
