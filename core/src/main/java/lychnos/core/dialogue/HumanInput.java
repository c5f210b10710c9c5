package lychnos.core.dialogue;

import java.time.Instant;
import java.util.Optional;
import lychnos.core.dialogue.Conversation.Progress;
import lychnos.core.dialogue.DialogueStep.Asked;
import lychnos.core.dialogue.DialogueStep.Mark;
import lychnos.core.dialogue.Hold.Why;
import lychnos.core.dialogue.LineView.Question;

/** What a person types on the line: keys pass at once, Enter only where it does no harm. */
final class HumanInput {

    private final Course course;
    private final Identification identification;
    private final Typing typing;
    private final Sent sent;

    HumanInput(Course course, Identification identification, Typing typing, Sent sent) {
        this.course = course;
        this.identification = identification;
        this.typing = typing;
        this.sent = sent;
    }

    void type(String keys, Instant now) {
        for (int i = 0; i < keys.length(); i++) {
            char key = keys.charAt(i);
            if (key == '\r') {
                int asked = letIn()
                        ? Course.NONE // what is typed there logs out, and answers nothing
                        : course.line.question().map(Question::step).orElse(Course.NONE);
                if (notYetKnown(asked, now)) {
                    return;
                }
                if (confirmsWrongly(asked)) {
                    course.hold(
                            Why.WRONG_ANSWER,
                            asked,
                            DialogueText.INPUT_DIFFERS.text(
                                    course.steps.get(asked).title(), planned(asked)),
                            "");
                    return;
                }
                if (asked >= 0 && course.steps.asked(asked).is(Mark.TERMS)) {
                    course.emit(new Effect.Agreed(
                            asked, course.terms(course.line.question().orElseThrow())));
                }
                course.emit(new Effect.Send(asked, "\r"));
                enterTyped(asked, now);
            } else {
                typing.key(key);
                if (course.held() != null && course.held().why() == Why.WRONG_ANSWER) {
                    course.letGo();
                }
                course.emit(new Effect.Send(-1, String.valueOf(key)));
            }
        }
    }

    void enterTyped(int asked, Instant now) {
        boolean secret = asked >= 0 && course.steps.asked(asked).is(Mark.SECRET);
        if (asked >= 0) {
            course.confirmSent();
            course.steps.set(asked, Progress.SENT);
        }
        if (course.held() != null && !identityHold() && !letIn()) {
            course.letGo();
        }
        sent.now(typing.enter(secret), now);
    }

    /**
     * Whether Enter is kept back because it is unknown which machine would take the answer; a login tells nothing to
     * it.
     */
    private boolean notYetKnown(int asked, Instant now) {
        if (course.identified || asked < 0 || course.steps.logsIn(asked)) {
            return false;
        }
        if (course.held() == null || !identityHold()) {
            identification.identify(course.line.shown(), now);
        }
        if (!course.identified && (course.held() == null || !identityHold())) {
            course.hold(Why.NOT_KNOWN, asked, DialogueText.INPUT_UNIDENTIFIED.text(), "");
        }
        return !course.identified;
    }

    /** A password is not compared: it is not to be shown, and the machine says itself when it is wrong. */
    private boolean confirmsWrongly(int step) {
        if (step < 0 || !(course.steps.get(step) instanceof Asked asked) || asked.is(Mark.SECRET)) {
            return false;
        }
        Optional<String> planned = asked.answer().fill(course::value);
        boolean accepted =
                typing.isEmpty() && planned.equals(course.line.question().flatMap(Question::suggestion));
        return planned.isPresent() && !accepted && !planned.get().equals(typing.text());
    }

    private String planned(int step) {
        return course.steps.asked(step).answer().fill(course::value).orElse(DialogueText.COMMAND_NOT_KNOWN.text());
    }

    private boolean letIn() {
        return course.held() != null && course.held().why() == Why.LET_IN;
    }

    boolean identityHold() {
        return switch (course.held().why()) {
            case USED, CUT, WRONG_MACHINE, STANDBY -> true;
            default -> false;
        };
    }
}
