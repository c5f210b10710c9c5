package lychnos.core.dialogue;

import java.util.Optional;
import lychnos.core.dialogue.Conversation.Progress;
import lychnos.core.dialogue.DialogueStep.Asked;
import lychnos.core.dialogue.DialogueStep.Mark;
import lychnos.core.dialogue.Hold.Why;
import lychnos.core.dialogue.LineView.Question;

/** A factory login that is typed once after the setup, to show that the machine does not let it in any more. */
final class RefusedLogin {

    private final Course course;
    private final Gap gap;

    RefusedLogin(Course course, Gap gap) {
        this.course = course;
        this.gap = gap;
    }

    /** Whether the answer that was sent last must be refused. */
    boolean tried() {
        int sent = course.steps.sent();
        return sent >= 0 && course.steps.asked(sent).is(Mark.MUST_BE_REFUSED);
    }

    /**
     * The machine asks something after it.
     *
     * @param reason what the machine said, if it said why it refused it
     * @return whether the question is to be answered now; false where a person is called, or the login is tried again
     */
    boolean refused(Question question, Optional<String> reason) {
        int sent = course.steps.sent();
        if (question.step() != course.steps.nextAsked(sent) && !course.steps.logsIn(question.step())) {
            letIn(question.line());
            return false;
        }
        if (sent == gap.sentBefore && reason.isEmpty()) {
            tryAgain(sent, question);
            return false;
        }
        course.done(sent, reason.orElseGet(DialogueText.LOGIN_ASKED_AGAIN::text));
        return true;
    }

    /** Whether a refusal on the screen is that of the login: a page that is drawn again shows it once more. */
    boolean wasRefusedBefore() {
        int before = course.steps.sent() - 1;
        return before >= 0
                && course.steps.get(before) instanceof Asked asked
                && asked.is(Mark.MUST_BE_REFUSED)
                && course.steps.progress(before) == Progress.DONE;
    }

    /** The same, where the machine asks what comes next. */
    boolean wasRefusedBefore(Question question) {
        return wasRefusedBefore() && question.step() == course.steps.nextAsked(course.steps.sent());
    }

    /** Something else stands on the line after it, and not what the machine asks of somebody who is not logged in. */
    void letIn(String shown) {
        int sent = course.steps.sent();
        course.steps.set(sent, Progress.LEFT_OUT);
        course.hold(
                Why.LET_IN,
                sent,
                DialogueText.LET_IN.text(course.steps.get(sent).title()),
                Course.lastOf(shown));
    }

    /** The line was gone right after it was sent: the machine may never have taken it. */
    private void tryAgain(int sent, Question question) {
        gap.sentBefore = Course.NONE;
        course.steps.set(sent, Progress.OPEN);
        int before = sent - 1;
        if (before >= 0
                && course.steps.get(before) instanceof Asked asked
                && course.steps.progress(before) == Progress.DONE
                && asked.look().in(question.line())) {
            course.steps.set(before, Progress.OPEN);
        }
    }
}
