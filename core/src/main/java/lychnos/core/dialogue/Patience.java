package lychnos.core.dialogue;

import java.time.Instant;
import java.util.Optional;
import java.util.stream.Stream;
import lychnos.core.dialogue.Conversation.State;
import lychnos.core.dialogue.DialogueStep.Waits;
import lychnos.core.dialogue.Hold.Why;

/** What is done because nothing happens: a silent line is woken, and a person is called where that is not enough. */
final class Patience {

    private final Course course;
    private final Gap gap;
    private final Identification identification;

    Patience(Course course, Gap gap, Identification identification) {
        this.course = course;
        this.gap = gap;
        this.identification = identification;
    }

    /** Time went by, and what stands on the line was looked at. */
    void tick(Instant now) {
        if (course.state() == State.WAITING && course.deadline() != null && !now.isBefore(course.deadline())) {
            Waits waits = course.steps.waits();
            course.hold(
                    Why.OVERDUE,
                    course.steps.waitingFor(),
                    DialogueText.OVERDUE.text(waits.title(), Course.text(waits.atMost()), Course.text(waits.about())),
                    "");
        } else if (course.state() == State.UNSURE
                && course.line.quiet(now).compareTo(Conversation.SILENCE) >= 0
                && !identification.mayLogIn()) {
            boolean mayNotWake = course.dialogue.nudge().isEmpty() || course.mode == Mode.WATCH;
            if (gap.brokenOff && (gap.nudged || mayNotWake) && gap.mayWork()) {
                course.beginWait(now); // one that restarts does not wake up; who it is it tells when it is back
            } else if (gap.brokenOff && (gap.nudged || mayNotWake)) {
                gap.askWhetherTheSame();
            } else if (course.line.shown().isBlank() || gap.brokenOff && !gap.nudged) {
                gap.wake(now);
            } else {
                course.hold(
                        Why.UNFORESEEN,
                        Course.NONE,
                        DialogueText.NOT_IDENTIFIED.text(),
                        Course.lastOf(course.line.shown()));
            }
        } else if (course.state() == State.WAITING && !course.identified && gap.mayBeBack(now)) {
            gap.askWhetherTheSame();
        } else if ((course.state() == State.FOLLOWING || course.state() == State.WAITING && gap.mayHaveMissed)
                && gap.unseen
                && course.line.question().isEmpty()
                && gap.mayPress()
                && course.line.quiet(now).compareTo(Conversation.SILENCE) >= 0
                && gap.redraws(now)) {
            return; // what it draws again tells how far it is
        } else if (course.state() == State.FOLLOWING
                && gap.unseen
                && course.line.question().isEmpty()
                && course.line
                                .quiet(now)
                                .compareTo(gap.unheard ? Conversation.SILENCE : Conversation.SILENCE_AFTER_BREAK)
                        >= 0) {
            course.hold(Why.SILENT, Course.NONE, DialogueText.QUESTION_LOST.text(), Course.lastOf(course.line.shown()));
        } else if (course.state() == State.FOLLOWING
                && course.nextBy().filter(by -> !now.isBefore(by)).isPresent()) {
            int sent = course.steps.sent();
            course.hold(
                    Why.LATE,
                    sent,
                    DialogueText.NEXT_NOT_ASKED.text(
                            Course.text(course.steps.asked(sent).within()),
                            course.steps.get(sent).title()),
                    Course.lastOf(course.line.shown()));
        } else if (course.state() == State.FOLLOWING
                && gap.mayPress()
                && course.line.question().isEmpty()
                && course.line.openLine().isBlank()
                && course.line.quiet(now).compareTo(course.longestSilence()) >= 0) {
            course.hold(
                    Why.SILENT,
                    Course.NONE,
                    DialogueText.NOTHING_SHOWN.text(Course.text(course.longestSilence())),
                    Course.lastOf(course.line.shown()));
        }
    }

    /**
     * When the line is to be looked at next, if nothing is heard before; empty where nothing is waited for.
     *
     * @param lookedAt when it was looked at the last time
     * @param logUntil how long a log is waited for that is being fetched, or null
     */
    Optional<Instant> wakeAt(Instant lookedAt, Instant logUntil) {
        if (course.quietForGood()) {
            return Optional.empty();
        }
        Instant usuallyBack = course.state() == State.WAITING && !course.identified
                ? course.line.quietSince().plus(course.steps.waits().about())
                : null;
        return Stream.of(
                        course.deadline(),
                        logUntil,
                        usuallyBack,
                        course.line.since().plus(Conversation.SETTLE),
                        course.line.since().plus(Conversation.SETTLE_WITH_CHATTER),
                        course.line.since().plus(Conversation.UNFORESEEN),
                        course.line.quietSince().plus(Conversation.SETTLE),
                        course.line.quietSince().plus(Conversation.UNFORESEEN),
                        course.line.quietSince().plus(Conversation.SILENCE),
                        course.line.quietSince().plus(course.longestSilence()),
                        course.nextBy().orElse(null),
                        gap.unseen ? course.line.quietSince().plus(Conversation.SILENCE_AFTER_BREAK) : null)
                .filter(at -> at != null && at.isAfter(lookedAt))
                .min(Instant::compareTo);
    }
}
