package lychnos.core.dialogue;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.IntPredicate;
import java.util.function.ToIntFunction;

/**
 * What a line shows since the last answer: without log lines, without the echo of that answer, and for how long it has
 * stood there. Log lines that come and go do not make a question younger.
 */
final class LineView {

    /** A question that was left behind by other lines is looked for so many lines back. */
    private static final int LOOKED_BACK = 8;

    /**
     * A question that stands on the line.
     *
     * @param step which step asks it
     * @param last whether nothing came after it
     */
    record Question(int step, String line, boolean last) {

        /** The machine's own answer in brackets at the end. */
        Optional<String> suggestion() {
            int open = line.lastIndexOf('[');
            int close = line.indexOf(']', open + 1);
            return open < 0 || close < 0
                    ? Optional.empty()
                    : Optional.of(line.substring(open + 1, close).strip());
        }
    }

    private final List<Look> chatter;
    /** Which step asks a line, or -1. */
    private final ToIntFunction<String> asker;
    /** Steps whose question counts only where the cursor stands: on a page the labels of rows read like questions. */
    private final IntPredicate atCursor;

    private final Screen screen = new Screen();
    private Screen.Place mark = screen.cursor();
    private int erasures;
    private String echo = "";
    private Screen.Place answeredAt;
    private String answeredRow = "";
    private int erasuresAtAnswer;
    private String shownBefore = "";
    private String askedBefore = "";
    private Instant since;
    private Instant quietSince;
    /** What {@link #lines} gave last, until something changes it: it is asked for many times at each look. */
    private List<String> lines;

    LineView(List<Look> chatter, ToIntFunction<String> asker, IntPredicate atCursor, Instant now) {
        this.chatter = chatter;
        this.asker = asker;
        this.atCursor = atCursor;
        since = now;
        quietSince = now;
    }

    Screen screen() {
        return screen;
    }

    void write(String bytes, Instant now) {
        screen.write(bytes);
        lines = null;
        quietSince = now;
    }

    /** Something was sent: what is shown now is no longer a question. */
    void answered(String sent, Instant now) {
        echo = sent;
        answeredAt = screen.cursor();
        erasuresAtAnswer = screen.erasures();
        answeredRow = screen.since(new Screen.Place(answeredAt.row(), 0)).get(0);
        fresh(now);
    }

    void fresh(Instant now) {
        // what stands behind the cursor in its row was there before too
        mark = new Screen.Place(
                screen.cursor().row(),
                Math.max(screen.cursor().column(), cursorRow().length()));
        screen.fromHere();
        lines = null;
        erasures = screen.erasures();
        shownBefore = "";
        askedBefore = "";
        since = now;
        quietSince = now;
    }

    /** Leaves everything out that stood before the last row with something in it. */
    void from(Look look) {
        mark = screen.lastRowWith(look, mark).orElse(mark);
        screen.fromHere();
        lines = null;
    }

    void quietFrom(Instant now) {
        quietSince = now;
    }

    Duration quiet(Instant now) {
        return Duration.between(quietSince, now);
    }

    Instant quietSince() {
        return quietSince;
    }

    Instant since() {
        return since;
    }

    /** For how long what is asked has stood there unchanged. */
    Duration stands(Instant now) {
        String shown = shown();
        if (!shown.equals(shownBefore)) {
            String asks = question().map(Question::line).orElse(shown);
            if (!asks.equals(askedBefore)) {
                since = now;
            }
            askedBefore = asks;
            shownBefore = shown;
        }
        return Duration.between(since, now);
    }

    private List<String> lines() {
        if (lines == null) {
            lines = List.copyOf(look());
        }
        return lines;
    }

    private List<String> look() {
        if (erasures != screen.erasures()) {
            // it draws a page again: what was shown before the answer is gone
            erasures = screen.erasures();
            mark = screen.windowTop();
        }
        // a machine that goes back and writes over what stood there restarts from that place
        Screen.Place changed = screen.foremostChange().orElse(mark);
        if (changed.row() < mark.row() || changed.row() == mark.row() && changed.column() < mark.column()) {
            mark = changed;
        }
        List<String> shown = new ArrayList<>(screen.since(mark));
        leaveOutWhatWasAnswered(shown);
        shown.removeIf(line -> chatter.stream().anyMatch(look -> look.in(line)));
        if (!shown.isEmpty() && !echo.isEmpty() && shown.get(0).startsWith(echo)) {
            shown.set(0, shown.get(0).substring(echo.length()));
        }
        return shown;
    }

    /** On a page the question that was answered may still stand there when the machine writes elsewhere. */
    private void leaveOutWhatWasAnswered(List<String> shown) {
        if (answeredAt == null
                || erasuresAtAnswer != screen.erasures()
                || screen.cursor().row() == answeredAt.row()) {
            return;
        }
        int at = (int) (answeredAt.row() - mark.row());
        if (at >= 0 && at < shown.size() && shown.get(at).startsWith(answeredRow)) {
            shown.set(at, shown.get(at).substring(answeredRow.length()));
        }
    }

    String shown() {
        return String.join("\n", lines());
    }

    /** The line that the cursor is in; blank where the cursor is at the beginning of a line. */
    String openLine() {
        List<String> shown = lines();
        return shown.isEmpty() || screen.cursor().column() == 0 ? "" : shown.get(shown.size() - 1);
    }

    private String cursorRow() {
        return screen.since(new Screen.Place(screen.cursor().row(), 0)).get(0);
    }

    /** The question that stands last on the line, if it is one that was described. */
    Optional<Question> question() {
        List<String> shown = lines();
        int last = shown.size() - 1;
        while (last >= 0 && shown.get(last).isBlank()) {
            last--;
        }
        for (int at = last; at >= Math.max(0, last - LOOKED_BACK); at--) {
            int step = asker.applyAsInt(shown.get(at));
            if (step >= 0 && (!atCursor.test(step) || cursorRow().endsWith(shown.get(at)))) {
                return Optional.of(new Question(step, shown.get(at), at == last));
            }
        }
        return Optional.empty();
    }
}
