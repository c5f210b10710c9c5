package lychnos.core.learn;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import lychnos.core.dialogue.DryRun;
import lychnos.core.fact.Secret;

/**
 * What happened on a line while a person set up a machine by hand: what the machine showed and what was typed, in the
 * order of time. Everything that was typed is a secret until it turns out to be a value of the plan, or a person says
 * that it is none.
 *
 * @param complete whether all of the log is here; false where it was cut off at its limits
 */
public record SetupLog(List<Piece> pieces, boolean complete) {

    /** The longest output that is read, in characters; a setup shows a few thousand. */
    public static final int MOST_SHOWN = 2_000_000;

    /** The most pieces that are read. */
    public static final int MOST_PIECES = 100_000;

    /** The most times that Enter is read; the longest setup that is shipped has about a hundred. */
    public static final int MOST_ENTERED = 1_000;

    /** A piece of the log, with its time since the line was opened. */
    public sealed interface Piece {

        Duration at();
    }

    /** What the machine showed. */
    public record Shown(Duration at, String text) implements Piece {}

    /** Keys that were typed, as they went onto the line. */
    public record Typed(Duration at, Secret keys) implements Piece {}

    public SetupLog {
        pieces = List.copyOf(pieces);
    }

    /**
     * What another program has recorded of a line, with its keys.
     *
     * @throws IllegalArgumentException where no keys were recorded
     */
    public static SetupLog recorded(List<DryRun.Heard> heard) {
        List<Piece> pieces = new ArrayList<>();
        for (DryRun.Heard each : heard) {
            if (each.fromMachine()) {
                pieces.add(new Shown(each.at(), each.text()));
            } else if (!each.text().isEmpty()) {
                pieces.add(new Typed(each.at(), Secret.of(each.text())));
            }
        }
        if (pieces.stream().noneMatch(Typed.class::isInstance)) {
            throw new IllegalArgumentException(LearnText.NO_KEYS.text());
        }
        return of(pieces);
    }

    private static long enters(String keys) {
        return keys.chars().filter(key -> key == '\r' || key == '\n').count();
    }

    /** The beginning of a log that may be longer than its limits. */
    public static SetupLog of(List<Piece> all) {
        List<Piece> kept = new ArrayList<>();
        long shown = 0;
        long entered = 0;
        for (Piece piece : all) {
            shown += piece instanceof Shown text ? text.text().length() : 0;
            entered += piece instanceof Typed typed ? typed.keys().<Long>use(SetupLog::enters) : 0;
            if (kept.size() == MOST_PIECES || shown > MOST_SHOWN || entered > MOST_ENTERED) {
                return new SetupLog(kept, false);
            }
            kept.add(piece);
        }
        return new SetupLog(kept, true);
    }
}
