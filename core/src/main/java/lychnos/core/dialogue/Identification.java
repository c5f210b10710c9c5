package lychnos.core.dialogue;

import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import lychnos.core.dialogue.Conversation.State;
import lychnos.core.dialogue.Hold.Why;

/** Which machine is on the line. Nothing is written before that is known. */
final class Identification {

    private final Course course;
    private final Gap gap;
    private final Typing typing;
    private boolean probed;
    /** The other one of the two has told that it is the one that takes setup. */
    private boolean otherIsActive;

    Identification(Course course, Gap gap, Typing typing) {
        this.course = course;
        this.gap = gap;
        this.typing = typing;
    }

    /** The line was gone: the machine on it now is asked again. */
    void lineUp() {
        probed = false;
    }

    void otherIsActive() {
        otherIsActive = true;
    }

    /** Tells the machine by what it shows. False where nothing more is to be done with what is shown. */
    boolean identify(String shown, Instant now) {
        Optional<Look.Seen> seen = course.dialogue.identify().see().last(gap.told(shown));
        if (seen.isEmpty()) {
            return course.identified || mayLogIn() || probe();
        }
        Map<String, String> found = seen.get().values();
        for (Map.Entry<String, Template> must :
                course.dialogue.identify().must().entrySet()) {
            Optional<String> wanted = must.getValue().fill(course::value);
            String is = found.getOrDefault(must.getKey(), "");
            if (wanted.isEmpty() || !wanted.get().equals(is)) {
                course.identified = false;
                course.hold(
                        Why.WRONG_MACHINE,
                        -1,
                        DialogueText.OTHER_MACHINE.text(
                                must.getKey(), is, wanted.orElseGet(DialogueText.UNKNOWN_VALUE::text)),
                        seen.get().text());
                return false;
            }
        }
        String kept = found.getOrDefault(Dialogue.Identify.STATE, "");
        if (course.dialogue.identify().standby().contains(kept)) {
            standsBy(kept, seen.get().text());
            return false;
        }
        keep(found);
        if (!course.identified) {
            if (!gap.brokenOff
                    && !kept.isEmpty()
                    && !course.dialogue.identify().unused().contains(kept)) {
                course.hold(
                        Why.USED,
                        -1,
                        (course.dialogue.wipe().isEmpty() ? DialogueText.USED_NO_WIPE : DialogueText.USED_WIPE)
                                .text(kept),
                        seen.get().text(),
                        course.values.unitName());
                course.behind(State.UNSURE);
                return false;
            }
            course.identified = true;
            course.emit(new Effect.Identified(found));
        }
        if (course.state() == State.UNSURE) {
            course.become(State.FOLLOWING);
            if (gap.brokenOff && course.steps.sent() < 0) {
                course.beginWait(now);
            }
        }
        return true;
    }

    /** What it tells beyond which machine it is decides which steps apply. */
    private void keep(Map<String, String> found) {
        for (String name : course.dialogue.identify().tells()) {
            String value = found.get(name);
            if (value != null && !value.equals(course.read.put(name, value))) {
                course.emit(new Effect.Read(name, value));
            }
        }
    }

    private void standsBy(String how, String shown) {
        if (otherIsActive) {
            course.emit(new Effect.Note(DialogueText.STANDBY_NOTE.text()));
            course.steps.leaveAllOut();
            course.become(State.DONE);
        } else {
            course.hold(Why.STANDBY, Course.NONE, DialogueText.STANDBY.text(how), shown);
        }
    }

    /** Presses the key that makes the machine say who it is, once. Nothing else is done with what is shown. */
    private boolean probe() {
        if (!course.dialogue.identify().probe().isEmpty()
                && !probed
                && course.mode != Mode.WATCH
                && typing.isEmpty()
                && logInStands()) {
            probed = true;
            course.emit(new Effect.Send(Course.NONE, course.dialogue.identify().probe()));
        }
        return false;
    }

    /** Where a probe tells which machine it is, nobody logs in before that. */
    boolean mayLogIn() {
        return course.dialogue.identify().probe().isEmpty() && logInStands();
    }

    /** Logging in changes nothing on a machine, and some show who they are only then. */
    boolean logInStands() {
        return course.line
                .question()
                .filter(question -> course.steps.logsIn(question.step()))
                .isPresent();
    }
}
