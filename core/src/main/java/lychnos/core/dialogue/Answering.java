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
    private final RefusedLogin login;

    Answering(Course course, Gap gap, Typing typing, Sent sent, Looking looking) {
        this.course = course;
        this.gap = gap;
        this.typing = typing;
        this.sent = sent;
        this.looking = looking;
        login = new RefusedLogin(course, gap);
    }

    void asked(Question question, String shown, Instant now) {
        int step = question.step();
        int sent = course.steps.sent();
        boolean again = course.steps.progress(step) == Progress.DONE && !course.steps.logsIn(step);
        if (login.tried() && step != sent) {
            if (!login.refused(question, refusal(shown))) {
                if (course.held() == null) {
                    looking.look(now);
                }
                return;
            }
            sent = Course.NONE;
        }
        if (sent >= 0
                && sent == step
                && sent == gap.sentBefore
                && (refusal(shown).isEmpty() || login.wasRefusedBefore())
                && !course.steps.asked(step).command()) {
            gap.sentBefore = Course.NONE;
            course.steps.set(step, Progress.OPEN);
            course.hold(
                    Why.SENT_BEFORE,
                    step,
                    DialogueText.SENT_BEFORE.text(course.steps.get(step).title()),
                    question.line());
            return;
        }
        if (sent >= 0
                && (refusal(shown).isPresent() && !login.wasRefusedBefore(question)
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
                    DialogueText.ASKED_AGAIN.text(course.steps.get(step).title()),
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
        course.hold(
                Why.REFUSED,
                step,
                refusal(shown)
                        .map(reason -> DialogueText.REFUSED_WITH_REASON.text(
                                course.steps.get(step).title(), reason))
                        .orElseGet(() ->
                                DialogueText.REFUSED.text(course.steps.get(step).title())),
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
                    DialogueText.OUTPUT_MISSING.text(course.steps.get(step).title()),
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
                    DialogueText.NOT_SHOWN_IN_OUTPUT.text(course.steps.get(step).title(), String.join(", ", missing)),
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
                    DialogueText.SKIPPED.text(course.steps.get(step).title(), String.join(", ", passed)),
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
            course.done(step, DialogueText.COMPARED_BY_A_PERSON.text());
            return true;
        }
        List<String> differences = new ArrayList<>();
        boolean shownOtherwise = false;
        for (Map.Entry<Look, Template> field : summary.fields().entrySet()) {
            String wanted = field.getValue().fill(course::value).orElse("?");
            Optional<String> is = field.getKey().last(shown).map(Look.Seen::value);
            if (is.isEmpty()) {
                differences.add(DialogueText.VALUE_NOT_SHOWN.text(wanted));
            } else if (!Notation.same(wanted, is.get(), course.value("domain"))) {
                // in a break the end of a line may be lost
                shownOtherwise |= !gap.unseen || !wanted.startsWith(is.get());
                differences.add(DialogueText.VALUE_DIFFERS.text(is.get(), wanted));
            }
        }
        if (!differences.isEmpty() && !shownOtherwise && gap.unseen) {
            gap.notSeen(step, shown);
            return false;
        }
        if (!differences.isEmpty()) {
            course.hold(Why.DIFFERS, step, DialogueText.SCREEN_DIFFERS.text(String.join("; ", differences)), shown);
            return false;
        }
        course.done(
                step,
                DialogueText.FIELDS_AGREE.text(
                        summary.fields().size(), summary.fields().size()));
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
                        DialogueText.ASKED_AND_GONE.text(asked.title()),
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
                    DialogueText.VALUE_UNKNOWN.text(
                            asked.title(), String.join(", ", asked.answer().names())),
                    question.line());
            return;
        }
        if (course.approved != step && stops(step, asked, text.get(), question)) {
            return;
        }
        course.approved = Course.NONE;
        course.steps.set(step, Progress.SENT);
        if (asked.is(Mark.TERMS)) {
            course.emit(new Effect.Agreed(step, course.terms(question)));
        }
        boolean suggested = asked.suggested() && question.suggestion().equals(text);
        if (asked.suggested() && !suggested) {
            course.emit(new Effect.Note(DialogueText.OTHER_SUGGESTION.text(
                    asked.title(), question.suggestion().orElse("nothing"), text.get())));
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
                    DialogueText.DESTROYS.text(asked.title()),
                    question.line(),
                    course.values.unitName());
        } else if (asked.is(Mark.PERMANENT)) {
            course.hold(Why.PERMANENT, step, DialogueText.PERMANENT.text(asked.title(), text), question.line(), text);
        } else if (asked.is(Mark.TERMS) && !course.values.terms().cover(course.terms(question))) {
            course.hold(
                    Why.TERMS,
                    step,
                    (course.values.terms().recorded() ? DialogueText.OTHER_TERMS : DialogueText.TERMS).text(),
                    course.terms(question).text());
        } else if (asked.is(Mark.RESTARTS)) {
            course.hold(
                    Why.RESTARTS,
                    step,
                    asked.warning().isEmpty() ? DialogueText.RESTARTS.text(asked.title()) : asked.warning(),
                    question.line());
        } else if (course.mode == Mode.ASK) {
            course.hold(
                    Why.NEXT,
                    step,
                    asked.title() + ": "
                            + (asked.is(Mark.SECRET)
                                    ? DialogueText.SEALED_VALUE.text()
                                    : text.isEmpty() ? "Enter" : text),
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
        if (login.tried()) {
            boolean told = refusal(shown).isPresent();
            if (!told && !shown.isBlank() && stands.compareTo(Conversation.UNFORESEEN) >= 0) {
                login.letIn(shown);
            }
        } else if (sent >= 0 && refusal(shown).isPresent() && !login.wasRefusedBefore()) {
            refused(sent, shown);
        } else if (course.state() == State.FOLLOWING && course.steps.allDone() && !shown.isBlank() && !commandRuns) {
            course.confirmSent();
            course.finishIfDone();
        } else if (course.state() != State.WAITING
                && !open.isBlank()
                && stands.compareTo(Conversation.UNFORESEEN) >= 0) {
            String what = course.state() == State.UNSURE
                    ? DialogueText.NOT_IDENTIFIED.text()
                    : DialogueText.UNKNOWN_QUESTION.text();
            course.hold(Why.UNFORESEEN, -1, what, open);
        }
    }
}
