package lychnos.core.dialogue;

import java.time.Instant;
import java.util.Optional;
import lychnos.core.dialogue.Conversation.State;

/** Fetches the machine's own log on its console, while the work stands. */
final class LogFetching {

    private final Course course;
    private final Typing typing;
    /** What is shown of it so far; null while none is fetched. */
    private LogCapture log;

    LogFetching(Course course, Typing typing) {
        this.course = course;
        this.typing = typing;
    }

    boolean isFetched() {
        return log != null;
    }

    /** Until when it is waited for, or null. */
    Instant until() {
        return log == null ? null : log.until();
    }

    void heard(String bytes) {
        if (log != null) {
            log.heard(bytes);
        }
    }

    void giveUp() {
        log = null;
    }

    /** Sends the command, or says why not. */
    Optional<String> begin(Instant now) {
        Dialogue.MachineLog wanted = course.dialogue.log();
        if (wanted == null || !wanted.onConsole()) {
            return Optional.of(DialogueText.LOG_NOT_DESCRIBED.text());
        }
        if (log != null) {
            return Optional.of(DialogueText.LOG_IN_PROGRESS.text());
        }
        if (course.state() != State.HELD || !course.identified) {
            return Optional.of(DialogueText.LOG_NOT_NOW.text());
        }
        if (!typing.isEmpty() || !wanted.at().in(course.line.openLine())) {
            return Optional.of(DialogueText.LOG_NO_PROMPT.text(wanted.at()));
        }
        log = new LogCapture(now);
        course.press(wanted.send() + "\r", now);
        course.line.answered(wanted.send(), now);
        return Optional.empty();
    }

    /** Ends the log at its prompt, and presses the key that shows its next page. */
    void look(Instant now) {
        if (course.line.quiet(now).compareTo(Conversation.SETTLE) < 0 && !log.endsAnyway(now)) {
            return;
        }
        String open = course.line.openLine();
        boolean ended = course.dialogue.log().at().in(open);
        Optional<String> key = course.dialogue.pagingKey(open);
        if (ended || log.endsAnyway(now)) {
            log.text(ended).ifPresent(text -> course.emit(new Effect.Logged(course.blanked(text))));
            log = null;
        } else if (key.isPresent() && log.pagesFrom(course.line.screen().cursor())) {
            course.press(key.get(), now);
        }
    }
}
