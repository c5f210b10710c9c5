package lychnos.core.dialogue;

import java.time.Duration;
import java.util.List;

/**
 * Looks for a row of a page that is worked with cursor keys: down, until it stands in reverse video. Changes nothing on
 * the machine.
 */
final class RowSearch {

    private static final int MOST_MOVES = 48;

    /** What comes of a look. */
    enum Found {
        /** It is marked, and can be entered. */
        HERE,
        /** One row further down is to be looked at. */
        FURTHER,
        /** The last key has not had its effect yet. */
        NOT_MOVED,
        /** The page shows no row that moves. */
        STUCK,
        /** Every row was seen. */
        NOWHERE
    }

    private final Duration patience;
    private List<String> before = List.of();
    private int moves;

    /** @param patience how long the page may stand still after a key */
    RowSearch(Duration patience) {
        this.patience = patience;
    }

    /**
     * Looks at what is marked now.
     *
     * @param marked what stands in reverse video
     * @param quiet for how long nothing was drawn
     */
    Found look(Look row, List<String> marked, Duration quiet) {
        if (marked.equals(before) || marked.isEmpty()) {
            if (quiet.compareTo(patience) < 0) {
                return Found.NOT_MOVED;
            }
            before = List.of();
            return Found.STUCK;
        }
        if (++moves > MOST_MOVES) {
            moves = 0;
            return Found.NOWHERE;
        }
        before = marked;
        return marked.stream().anyMatch(row::in) ? Found.HERE : Found.FURTHER;
    }

    /** A key or an answer went out: what is marked next is looked at again. */
    void restart() {
        before = List.of();
        moves = 0;
    }
}
