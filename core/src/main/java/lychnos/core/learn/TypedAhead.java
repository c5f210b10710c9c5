package lychnos.core.learn;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import lychnos.core.fact.Secret;

/**
 * Puts what was typed ahead behind the question that it answers: people who know the next question type its answer
 * before a slow machine has asked it. In the log the keys then come before the question, and answer nothing.
 */
final class TypedAhead {

    /** Somebody who types after so long has read what the machine shows. */
    private static final Duration READ = Duration.ofMillis(300);

    /** A machine that shows more characters than this asks nothing for the keys that wait. */
    private static final int MOST_SHOWN = 10_000;

    private final List<SetupLog.Piece> pieces = new ArrayList<>();
    /** Keys that wait for their question. */
    private final StringBuilder ahead = new StringBuilder();
    /** What was shown since Enter, while keys wait. */
    private final StringBuilder since = new StringBuilder();
    /** Enter was typed, and nothing was shown since. */
    private boolean entered;

    private Duration showedAt = Duration.ZERO;

    private TypedAhead() {}

    /** The same log in the order in which the machine took it. */
    static SetupLog inOrder(SetupLog log) {
        TypedAhead order = new TypedAhead();
        for (SetupLog.Piece piece : log.pieces()) {
            if (piece instanceof SetupLog.Shown shown) {
                order.shown(shown.at(), shown.text());
            } else if (piece instanceof SetupLog.Typed typed) {
                typed.keys().use(keys -> {
                    order.typed(typed.at(), keys);
                    return keys;
                });
            }
        }
        order.giveUp(order.showedAt);
        return new SetupLog(order.pieces, log.complete());
    }

    private void typed(Duration at, String keys) {
        if (!ahead.isEmpty() && !entered && at.minus(showedAt).compareTo(READ) >= 0) {
            giveUp(at);
        }
        if (entered || !ahead.isEmpty()) {
            ahead.append(keys);
            return;
        }
        int end = end(keys);
        emit(at, keys.substring(0, end));
        ahead.append(keys, end, keys.length());
    }

    /** Where the first line of some keys ends, Enter included. */
    private static int end(CharSequence keys) {
        for (int i = 0; i < keys.length(); i++) {
            if (isEnter(keys.charAt(i))) {
                return i + 1;
            }
        }
        return keys.length();
    }

    private static boolean isEnter(char key) {
        return key == '\r' || key == '\n';
    }

    private void emit(Duration at, String keys) {
        if (keys.isEmpty()) {
            return;
        }
        pieces.add(new SetupLog.Typed(at, Secret.of(keys)));
        entered = isEnter(keys.charAt(keys.length() - 1));
        since.setLength(0);
    }

    private void shown(Duration at, String text) {
        showedAt = at;
        String rest = text;
        while (!ahead.isEmpty()) {
            int echo = echo(rest);
            if (echo < 0) {
                break;
            }
            show(at, rest.substring(0, echo));
            rest = rest.substring(echo);
            emitLine(at);
        }
        show(at, rest);
        if (!ahead.isEmpty() && asks()) {
            emitLine(at);
        } else if (since.length() > MOST_SHOWN) {
            giveUp(at);
        }
    }

    private void show(Duration at, String text) {
        if (!text.isEmpty()) {
            pieces.add(new SetupLog.Shown(at, text));
            if (!ahead.isEmpty()) {
                since.append(text);
            }
            entered = false;
        }
    }

    private void emitLine(Duration at) {
        int end = end(ahead);
        String line = ahead.substring(0, end);
        ahead.delete(0, end);
        emit(at, line);
        entered &= !ahead.isEmpty(); // what is shown next may be its echo alone
    }

    /** Where the keys that wait are shown at the end of a later line than the one that was answered; or -1. */
    private int echo(String text) {
        String first = Segments.edited(ahead.substring(0, end(ahead)));
        String all = since + text;
        int answered = all.indexOf('\n');
        if (first.isEmpty() || answered < 0) {
            return -1;
        }
        for (int at = all.indexOf(first, answered + 1); at >= 0; at = all.indexOf(first, at + 1)) {
            int end = at + first.length();
            if (at >= since.length() && (end == all.length() || isEnter(all.charAt(end)))) {
                return at - since.length();
            }
        }
        return -1;
    }

    /** Whether a later line than the one that was answered is open: it asks. */
    private boolean asks() {
        int line = since.lastIndexOf("\n");
        return line >= 0 && !since.substring(line).isBlank();
    }

    /** Nothing was asked for them: they stay where they are. */
    private void giveUp(Duration at) {
        emit(at, ahead.toString());
        ahead.setLength(0);
    }
}
