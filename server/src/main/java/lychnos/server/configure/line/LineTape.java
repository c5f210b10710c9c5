package lychnos.server.configure.line;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import lychnos.core.dialogue.Blanker;
import lychnos.server.configure.model.Change;

/**
 * What a line has shown: handed on to onlookers at once, without passwords; kept in pieces until the database takes
 * them; and gathered until the conversation looks at it. For several threads.
 */
final class LineTape {

    /** Characters come one by one and are looked at together; a question has to stand for longer than this anyway. */
    static final long GATHERED_MILLIS = 20;

    private static final int TAIL = 16 * 1024;
    private static final long KEPT_BACK_MILLIS = 300;
    private static final int MOST_PIECES = 4000;

    private final long dialogueId;
    private final Blanker blanker;
    private final ScheduledExecutorService clockwork;
    private final Clock clock;
    private final List<Onlooker> onlookers = new CopyOnWriteArrayList<>();
    private final StringBuilder tail = new StringBuilder();
    private final StringBuilder heard = new StringBuilder();
    private List<Change.RecordingPiece> pieces = new ArrayList<>();
    private long pieceNumber;

    /**
     * @param shown the end of what the line had shown before
     * @param firstPiece the number of the next piece
     */
    LineTape(
            long dialogueId,
            String shown,
            long firstPiece,
            Blanker blanker,
            ScheduledExecutorService clockwork,
            Clock clock) {
        this.dialogueId = dialogueId;
        this.pieceNumber = firstPiece;
        this.blanker = blanker;
        this.clockwork = clockwork;
        this.clock = clock;
        tail.append(shown);
    }

    /** @return whether it is to be looked at, in {@link #GATHERED_MILLIS}; false if an earlier look takes it along */
    boolean received(String text) {
        show(blanked(text));
        synchronized (heard) {
            heard.append(text);
            return heard.length() == text.length();
        }
    }

    /** Everything that came since the last look: characters come one by one, and are looked at together. */
    String takeHeard() {
        synchronized (heard) {
            String text = heard.toString();
            heard.setLength(0);
            return text;
        }
    }

    private synchronized String blanked(String text) {
        String seen = blanker.feed(text);
        if (seen.length() < text.length()) {
            clockwork.schedule(() -> show(restOfBlanked()), KEPT_BACK_MILLIS, TimeUnit.MILLISECONDS);
        }
        return seen;
    }

    private synchronized String restOfBlanked() {
        return blanker.rest();
    }

    /**
     * Hands on and keeps what may be seen. Not in the order of the rest: people who watch should not wait for the
     * database.
     */
    private synchronized void show(String text) {
        if (text.isEmpty()) {
            return;
        }
        tail.append(text);
        if (tail.length() > 2 * TAIL) {
            tail.delete(0, tail.length() - TAIL);
        }
        record('o', text, clock.instant());
        onlookers.forEach(each -> each.shown(text));
    }

    /**
     * Letters that come right behind each other are one piece: a row of the database for each would be most of what is
     * written.
     */
    private void record(char kind, String text, Instant now) {
        Change.RecordingPiece last = pieces.isEmpty() ? null : pieces.get(pieces.size() - 1);
        if (last != null
                && last.kind() == kind
                && Duration.between(last.at(), now).toMillis() < GATHERED_MILLIS) {
            pieces.set(pieces.size() - 1, last.with(text));
        } else if (pieces.size() < MOST_PIECES) {
            pieces.add(new Change.RecordingPiece(dialogueId, pieceNumber++, now, kind, text));
        }
    }

    /** Keys that a person typed, where Lychnos learns from them. */
    synchronized void typed(String keys) {
        record('i', keys, clock.instant());
    }

    synchronized void mark(String text) {
        pieces.add(new Change.RecordingPiece(dialogueId, pieceNumber++, clock.instant(), 'm', text));
    }

    synchronized List<Change.RecordingPiece> takePieces() {
        List<Change.RecordingPiece> taken = pieces;
        pieces = new ArrayList<>();
        return taken;
    }

    synchronized void giveBack(List<Change.RecordingPiece> taken) {
        pieces.addAll(0, taken);
    }

    /** Shows what was shown so far, then everything that comes. */
    synchronized void watch(Onlooker onlooker) {
        onlooker.shown(tail.toString());
        onlookers.add(onlooker);
    }

    void leave(Onlooker onlooker) {
        onlookers.remove(onlooker);
    }

    void forEach(Consumer<Onlooker> tell) {
        onlookers.forEach(tell);
    }
}
