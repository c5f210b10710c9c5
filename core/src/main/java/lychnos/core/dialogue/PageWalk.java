package lychnos.core.dialogue;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import lychnos.core.dialogue.Conversation.Progress;
import lychnos.core.dialogue.DialogueStep.Asked;
import lychnos.core.dialogue.DialogueStep.Summary;
import lychnos.core.dialogue.Hold.Why;

/** Works a page with cursor keys: goes to the row that is next, and enters it. */
final class PageWalk {

    private static final String DOWN = "\033[B";

    private final Course course;
    private final Gap gap;
    private final Answering answers;
    private final Sent sent;
    private int erasuresAtAnswer;
    private Screen.Place pagedAt;

    PageWalk(Course course, Gap gap, Answering answers, Sent sent) {
        this.course = course;
        this.gap = gap;
        this.answers = answers;
        this.sent = sent;
    }

    /** An answer was sent: a page that takes it is drawn again. */
    void answered() {
        pagedAt = null;
        course.rows.restart();
        erasuresAtAnswer = course.line.screen().erasures();
    }

    /** Whether the page was drawn again since the last answer. */
    private boolean drawnSinceAnswer() {
        return course.line.screen().erasures() != erasuresAtAnswer;
    }

    /** A page that is drawn again after an answer has taken it, unless it says that it has not. */
    void pageStands(String shown, Duration stands, Instant now) {
        int sent = course.steps.sent();
        if (sent >= 0 && !drawnSinceAnswer()) {
            answers.nothingKnown(shown, stands);
        } else if (gap.drawnInPart()) {
            askForThePage(now);
        } else if (sent >= 0 && answers.refusal(shown).isPresent()) {
            answers.refused(sent, shown);
        } else if (sent >= 0 && sent == gap.sentBefore && stillChosen(sent, shown)) {
            gap.sentBefore = Course.NONE;
            course.steps.set(sent, Progress.OPEN); // the key that opens the page was lost in the break
        } else if (sent < 0 || answers.accepted(sent, shown)) {
            course.steps.nextRow().filter(next -> pageAgrees(next, shown)).ifPresent(next -> goTo(next, now));
            course.finishIfDone();
        }
    }

    /**
     * Where only parts of a page were drawn since the break, the machine is asked for all of it; where it has no key
     * for that, a person.
     */
    private void askForThePage(Instant now) {
        if (gap.redraws(now) || course.line.quiet(now).compareTo(Conversation.SILENCE) < 0) {
            return;
        }
        course.hold(
                Why.NOT_SEEN,
                Course.NONE,
                DialogueText.PAGE_NOT_SEEN_WHOLE.text(),
                Course.lastOf(String.join("\n", course.line.screen().window())));
    }

    /** What a page shows is compared before another one is opened. */
    private boolean pageAgrees(int next, String shown) {
        return !course.steps.asked(next).opensPage()
                || course.steps.summariesBefore(next).stream()
                        .allMatch(summary -> answers.agrees(summary, (Summary) course.steps.get(summary), shown));
    }

    /** Presses cursor keys until the wanted row of a page is marked, and enters it. Nothing is changed by that. */
    private void goTo(int step, Instant now) {
        if (course.hasNothingFor(step)) {
            course.steps.set(step, Progress.LEFT_OUT);
            course.steps.nextRow().ifPresent(next -> goTo(next, now));
            return;
        }
        switch (course.rows.look(
                course.steps.asked(step).row(), course.line.screen().markedText(), course.line.quiet(now))) {
            case HERE -> enterRow(step, now);
            case FURTHER -> course.press(DOWN, now);
            case STUCK -> stuck(step, now);
            case NOWHERE ->
                course.hold(
                        Why.UNFORESEEN,
                        step,
                        DialogueText.NO_ROW.text(course.steps.get(step).title()),
                        Course.lastOf(String.join("\n", course.line.screen().window())));
            case NOT_MOVED -> {
                // the page is still being drawn
            }
        }
    }

    /** Whether the row that opens another page is still the one that is chosen, and that page does not stand there. */
    private boolean stillChosen(int step, String shown) {
        Asked row = course.steps.asked(step);
        List<String> marked = course.line.screen().markedText();
        // the row's own label may read like the title of the page that it opens
        String others = shown.lines()
                .filter(text -> marked.stream().noneMatch(text::contains))
                .collect(Collectors.joining("\n"));
        boolean opened = !row.expects().isEmpty()
                && row.expects().stream().allMatch(each -> each.look().in(others));
        return row.opensPage() && !opened && marked.stream().anyMatch(row.row()::in);
    }

    private void stuck(int step, Instant now) {
        if (!gap.redraws(now)) {
            course.hold(
                    Why.UNFORESEEN,
                    step,
                    DialogueText.NO_CURSOR_ROW.text(course.steps.get(step).title()),
                    Course.lastOf(String.join("\n", course.line.screen().window())));
        }
    }

    private void enterRow(int step, Instant now) {
        if (course.steps.asked(step).opensPage()) {
            course.steps.set(step, Progress.SENT);
            course.emit(new Effect.Send(step, "\r"));
            sent.now("", now);
        } else {
            course.press("\r", now);
        }
    }

    /** Whether the line wants a key before it shows more; what it showed so far still counts. */
    boolean pageTurned() {
        Optional<String> key = course.dialogue.pagingKey(course.line.openLine());
        if (key.isEmpty() || course.mode == Mode.WATCH) {
            return false;
        }
        if (!course.line.screen().cursor().equals(pagedAt)) {
            pagedAt = course.line.screen().cursor();
            course.emit(new Effect.Send(-1, key.get()));
        }
        return true;
    }
}
