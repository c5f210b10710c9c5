package lychnos.core.dialogue;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import lychnos.core.dialogue.Conversation.Progress;
import lychnos.core.dialogue.Conversation.State;
import lychnos.core.dialogue.DialogueStep.Asked;
import lychnos.core.dialogue.DialogueStep.Mark;
import lychnos.core.dialogue.DialogueStep.Summary;
import lychnos.core.dialogue.Hold.Why;
import lychnos.core.dialogue.LineView.Question;
import lychnos.core.fact.Secret;

/** Answers the questions on the line, and compares what the machine shows with what was planned. */
final class Answering {

    /** Looks again at what stands on the line. */
    @FunctionalInterface
    interface Looking {
        void look(Instant now);
    }

    private final Course course;
    private final Gap gap;
    private final Typing typing;
    private final Sent sent;
    private final Looking looking;

    Answering(Course course, Gap gap, Typing typing, Sent sent, Looking looking) {
        this.course = course;
        this.gap = gap;
        this.typing = typing;
        this.sent = sent;
        this.looking = looking;
    }

    void asked(Question question, String shown, Instant now) {
        int step = question.step();
        int sent = course.steps.sent();
        boolean again = course.steps.progress(step) == Progress.DONE && !course.steps.logsIn(step);
        if (sent >= 0
                && sent == step
                && sent == gap.sentBefore
                && refusal(shown).isEmpty()
                && !course.steps.asked(step).command()) {
            gap.sentBefore = Course.NONE;
            course.steps.set(step, Progress.OPEN);
            course.hold(
                    Why.SENT_BEFORE,
                    step,
                    "“" + course.steps.get(step).title()
                            + "” was answered right before the connection was lost, and is still asked. Confirm, "
                            + "and Lychnos sends the answer again.",
                    question.line());
            return;
        }
        if (sent >= 0
                && (refusal(shown).isPresent()
                        || step == sent && !course.steps.asked(step).command())) {
            refused(sent, shown);
            return;
        }
        if (sent >= 0) {
            if (!accepted(sent, shown)) {
                return;
            }
            if (step == sent) {
                course.finishIfDone();
                return;
            }
            if (course.state() == State.FOLLOWING) {
                course.beginWait(now); // its answer went out right before the work was broken off
            }
        }
        if (course.state() == State.WAITING) {
            if (again || course.steps.asked(step).command()) {
                gap.askForTheEnd(step, now);
                return; // the earlier prompt is still shown while it works
            }
            over(shown, now);
        }
        if (again) {
            course.hold(
                    Why.AGAIN,
                    step,
                    "The machine asks “" + course.steps.get(step).title()
                            + "” again, although it was answered. The machine may have restarted. Look at it "
                            + "and continue by hand.",
                    question.line());
        } else if (course.steps.logsIn(step) || leftBehind(step, shown)) {
            answer(step, course.steps.asked(step), question, now);
        }
    }

    Optional<String> refusal(String shown) {
        return course.dialogue.refused() == null
                ? Optional.empty()
                : course.dialogue.refused().last(shown).map(seen -> seen.values()
                        .getOrDefault("why", seen.text()));
    }

    void refused(int step, String shown) {
        course.steps.set(step, Progress.OPEN);
        String why = refusal(shown).map(reason -> " It says: " + reason + ".").orElse("");
        course.hold(
                Why.REFUSED,
                step,
                "The machine rejected the answer to “" + course.steps.get(step).title() + "” and asks again." + why
                        + " The same answer is not sent twice. Correct it, or type it yourself.",
                Course.lastOf(shown));
    }

    /** False where a command's output lacks what it must show. */
    boolean accepted(int step, String shown) {
        boolean looked = course.approved == step;
        course.approved = looked ? Course.NONE : course.approved;
        List<String> missing = looked
                ? List.of()
                : course.steps.asked(step).expects().stream()
                        .filter(each -> each.required() && !each.look().in(shown))
                        .map(each -> "“" + each.look() + "”")
                        .toList();
        if (!looked && sentAgain(step, !missing.isEmpty(), shown)) {
            return false;
        }
        if (step == gap.sentBefore
                && told(step, shown).isEmpty()
                && course.steps.asked(step).read() != null) {
            gap.sentBefore = Course.NONE;
            course.steps.set(step, Progress.OPEN);
            course.hold(
                    Why.SENT_BEFORE,
                    step,
                    "“" + course.steps.get(step).title()
                            + "” was sent right before the connection was lost, and its output is missing. Confirm, "
                            + "and Lychnos sends it again.",
                    shown);
            return false;
        }
        if (!missing.isEmpty()) {
            if (step == gap.sentBefore) {
                gap.notSeen(step, shown);
                return false;
            }
            course.steps.set(step, Progress.OPEN);
            course.hold(
                    Why.DIFFERS,
                    step,
                    "“" + course.steps.get(step).title() + "” does not show " + String.join(", ", missing)
                            + ". Read the output. Once the cause is fixed, run the command again by hand.",
                    shown);
            return false;
        }
        told(step, shown).forEach((name, value) -> {
            course.read.put(name, value);
            course.emit(new Effect.Read(name, value));
        });
        course.confirmSent();
        if (course.steps.asked(step).command()) {
            for (int summary : course.steps.summariesAfter(step)) {
                if (!agrees(summary, (Summary) course.steps.get(summary), shown)) {
                    return false;
                }
            }
        }
        return true;
    }

    /** By name, what a command's output tells; empty where it is to tell nothing, or does not. */
    private Map<String, String> told(int step, String shown) {
        Look tells = course.steps.asked(step).read();
        return tells == null
                ? Map.of()
                : tells.last(shown).map(Look.Seen::values).orElse(Map.of());
    }

    /** A command that changes nothing is sent a second time where what it showed was lost in a break. */
    private boolean sentAgain(int step, boolean missing, String shown) {
        if (step != gap.sentBefore || !course.steps.asked(step).is(Mark.AGAIN) || !gap.mayPress()) {
            return false;
        }
        boolean lost = missing
                || course.steps.asked(step).read() != null && told(step, shown).isEmpty()
                || course.steps.summariesAfter(step).stream().anyMatch(summary -> ((Summary) course.steps.get(summary))
                        .fields().keySet().stream().anyMatch(look -> !look.in(shown)));
        if (lost) {
            gap.sentBefore = Course.NONE;
            course.steps.set(step, Progress.OPEN);
        }
        return lost;
    }

    /** The machine has worked. */
    void over(String shown, Instant now) {
        course.confirmSent();
        Look until = course.steps.waits().until();
        course.done(course.steps.waitingFor(), Course.lastOf(shown));
        // prompts that stood there before it worked are no questions any more
        course.line.from(until);
        course.become(State.FOLLOWING);
        course.finishIfDone();
        if (course.state() == State.FOLLOWING) {
            course.beginWait(now);
        }
    }

    /** What lies before the step that is asked now: nothing is passed over for good, and what is shown must agree. */
    private boolean leftBehind(int step, String shown) {
        List<String> passed = course.steps.passedOver(step);
        if (!passed.isEmpty()) {
            course.hold(
                    Why.SKIPPED,
                    step,
                    "The machine asks “" + course.steps.get(step).title() + "”, but never asked: "
                            + String.join(", ", passed) + ". Look at the machine before you accept anything.",
                    Course.lastOf(shown));
            return false;
        }
        for (int summary : course.steps.summariesBefore(step)) {
            if (!agrees(summary, (Summary) course.steps.get(summary), shown)) {
                return false;
            }
        }
        course.steps.closeBefore(step);
        return true;
    }

    boolean agrees(int step, Summary summary, String shown) {
        if (course.approved == step) {
            course.approved = Course.NONE;
            course.done(step, "compared by a person after the connection was lost");
            return true;
        }
        List<String> differences = new ArrayList<>();
        boolean shownOtherwise = false;
        for (Map.Entry<Look, Template> field : summary.fields().entrySet()) {
            String wanted = field.getValue().fill(course::value).orElse("?");
            Optional<String> is = field.getKey().last(shown).map(Look.Seen::value);
            if (is.isEmpty()) {
                differences.add(wanted + " is not shown");
            } else if (!Notation.same(wanted, is.get(), course.value("domain"))) {
                // in a break the end of a line may be lost
                shownOtherwise |= !gap.unseen || !wanted.startsWith(is.get());
                differences.add("it shows " + is.get() + ", expected " + wanted);
            }
        }
        if (!differences.isEmpty() && !shownOtherwise && gap.unseen) {
            gap.notSeen(step, shown);
            return false;
        }
        if (!differences.isEmpty()) {
            course.hold(
                    Why.DIFFERS,
                    step,
                    "The screen differs from the plan: " + String.join("; ", differences)
                            + ". Do not confirm it. Go back on the machine and correct it.",
                    shown);
            return false;
        }
        course.done(step, summary.fields().size() + " of " + summary.fields().size() + " agree");
        return true;
    }

    private void answer(int step, Asked asked, Question question, Instant now) {
        if (course.mode == Mode.WATCH || !typing.isEmpty()) {
            return; // a person has begun the line; two never write into one answer
        }
        if (asked.is(Mark.SECRET) && !question.last() && course.approved != step) {
            // a password goes to no question that something came after, unless a person has looked
            if (course.line.stands(now).compareTo(Conversation.UNFORESEEN) >= 0) {
                course.hold(
                        Why.CAME_BETWEEN,
                        step,
                        "The machine asked “" + asked.title()
                                + "”, and then showed something else. If it still asks, confirm, and the password is "
                                + "sent.",
                        Course.lastOf(course.line.shown()));
            }
            return;
        }
        List<String> undecided = course.steps.decidedBy(step);
        if (!undecided.isEmpty()) {
            course.hold(Hold.until(step, asked.title(), undecided, question.line(), course::value));
            return;
        }
        if (!asked.after().isEmpty() && course.value(asked.after()).isEmpty()) {
            course.hold(Hold.until(step, asked.title(), List.of(asked.after()), question.line(), course::value));
            return;
        }
        Optional<String> text =
                asked.is(Mark.SECRET) ? Optional.of("") : asked.answer().fill(course::value);
        Optional<Secret> secret = asked.is(Mark.SECRET)
                ? asked.answer().names().stream().findFirst().flatMap(course.values::secret)
                : Optional.empty();
        if (asked.command() && course.hasNothingFor(step)) {
            course.steps.set(step, Progress.LEFT_OUT);
            looking.look(now);
            return;
        }
        if (text.isEmpty() || asked.is(Mark.SECRET) && secret.isEmpty()) {
            course.hold(
                    Why.PREREQUISITE,
                    step,
                    "What “" + asked.title() + "” needs is unknown: "
                            + String.join(", ", asked.answer().names()) + ".",
                    question.line());
            return;
        }
        if (course.approved != step && stops(step, asked, text.get(), question)) {
            return;
        }
        course.approved = Course.NONE;
        course.steps.set(step, Progress.SENT);
        boolean suggested = asked.suggested() && question.suggestion().equals(text);
        if (asked.suggested() && !suggested) {
            course.emit(new Effect.Note("“" + asked.title() + "”: the machine suggests "
                    + question.suggestion().orElse("nothing") + ", expected " + text.get()
                    + ". The planned value is sent."));
        }
        course.emit(secret.<Effect>map(each -> new Effect.SendSecret(step, each))
                .orElseGet(() -> new Effect.Send(step, (suggested ? "" : text.get()) + "\r")));
        sent.now(suggested ? "" : text.get(), now);
    }

    /** Whether a person is wanted before this answer. */
    private boolean stops(int step, Asked asked, String text, Question question) {
        if (asked.is(Mark.DESTROYS)) {
            course.hold(
                    Why.DESTROYS,
                    step,
                    "“" + asked.title() + "” destroys what is on the machine. Type the unit's name.",
                    question.line(),
                    course.values.unitName());
        } else if (asked.is(Mark.PERMANENT)) {
            course.hold(
                    Why.PERMANENT,
                    step,
                    "“" + asked.title() + "” cannot be changed later. Type the value: " + text + ".",
                    question.line(),
                    text);
        } else if (asked.is(Mark.TERMS) && !course.values.termsAgreed()) {
            course.hold(
                    Why.TERMS,
                    step,
                    "The machine asks to accept its terms, and the site has no recorded consent. Read them and "
                            + "accept for yourself, or stop.",
                    question.line());
        } else if (asked.is(Mark.RESTARTS)) {
            course.hold(
                    Why.RESTARTS,
                    step,
                    asked.warning().isEmpty() ? "The machine restarts after “" + asked.title() + "”." : asked.warning(),
                    question.line());
        } else if (course.mode == Mode.ASK) {
            course.hold(
                    Why.NEXT,
                    step,
                    asked.title() + ": " + (asked.is(Mark.SECRET) ? "the sealed one" : text.isEmpty() ? "Enter" : text),
                    question.line());
        } else {
            return false;
        }
        return true;
    }

    /** Nothing that was described stands on the line. */
    void nothingKnown(String shown, Duration stands) {
        int sent = course.steps.sent();
        boolean commandRuns = sent >= 0 && course.steps.asked(sent).command();
        String open = course.line.openLine();
        if (sent >= 0 && refusal(shown).isPresent()) {
            refused(sent, shown);
        } else if (course.state() == State.FOLLOWING && course.steps.allDone() && !shown.isBlank() && !commandRuns) {
            course.confirmSent();
            course.finishIfDone();
        } else if (course.state() != State.WAITING
                && !open.isBlank()
                && stands.compareTo(Conversation.UNFORESEEN) >= 0) {
            String what = course.state() == State.UNSURE
                    ? "The line does not show which machine this is. Bring it to where it shows its serial, "
                            + "or check that the cable is in the right port."
                    : "The line asks something that the description does not cover. Answer it yourself; Lychnos "
                            + "continues at the next known question.";
            course.hold(Why.UNFORESEEN, -1, what, open);
        }
    }
}
