package lychnos.core.learn;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;
import java.util.regex.Pattern;
import lychnos.core.dialogue.Screen;
import lychnos.core.fact.Secret;
import lychnos.core.learn.Entry.Echo;
import lychnos.core.learn.Entry.Silence;

/**
 * Divides a log at what was typed.
 *
 * @param entries in their order
 * @param redraws whether a silent line was woken with the key that draws the screen again
 * @param after the lines that came behind the last entry, and the question that was left open there
 */
record Segments(List<Entry> entries, boolean redraws, Entry after) {

    /** Where a space goes on without Enter. Another key could be the beginning of an answer. */
    private static final Pattern ANY_KEY = Pattern.compile("(?i)\\b(more|any key|space|next page)\\b");

    private static final char SPACE = ' ';
    private static final char BELL = 0x07;
    private static final char DELETE = 0x7f;
    private static final char ERASE_LINE = 0x15;
    private static final char ESCAPE = 0x1b;
    /** Ctrl+L: most consoles draw the question again and take nothing. */
    private static final char REDRAW = 0x0c;

    Segments {
        entries = List.copyOf(entries);
    }

    /** @param chatter whether a line is one that comes at any moment and asks nothing */
    static Segments of(SetupLog log, Predicate<String> chatter) {
        return new Divider(chatter).divide(log);
    }

    private static final class Divider {
        private final Predicate<String> chatter;
        private final Screen screen = new Screen();
        private final List<Entry> entries = new ArrayList<>();
        private final StringBuilder keys = new StringBuilder();
        private Screen.Place from = screen.cursor();
        private Screen.Place asked = screen.cursor();
        private int erasures;
        /** The entry that was sent last, whose echo is awaited; null before the first. */
        private Entry sent;
        /** The question at which keys are typed now; null while none are. */
        private Entry open;

        private boolean redraws;
        private int piece;
        private Duration entered = Duration.ZERO;
        private Duration spoke = Duration.ZERO;
        private Silence silence = Silence.NONE;

        Divider(Predicate<String> chatter) {
            this.chatter = chatter;
        }

        Segments divide(SetupLog log) {
            for (SetupLog.Piece each : log.pieces()) {
                if (each instanceof SetupLog.Shown shown) {
                    shown(shown);
                } else if (each instanceof SetupLog.Typed typed) {
                    typed.keys().use(text -> {
                        text.chars().forEach(key -> typed((char) key, typed.at()));
                        return text;
                    });
                }
                piece++;
            }
            settle();
            return new Segments(entries, redraws, question());
        }

        private void shown(SetupLog.Shown shown) {
            Duration since = shown.at().minus(spoke);
            if (open == null && since.compareTo(silence.lasted()) > 0) {
                silence = new Silence(since, silence.whole(), lines().size());
            }
            spoke = shown.at();
            silence = new Silence(silence.lasted(), spoke.minus(entered), silence.after());
            screen.write(shown.text());
        }

        private void typed(char key, Duration at) {
            if (key == REDRAW && open == null) {
                redraws |= sent == null && lines().isEmpty();
                return;
            }
            if (open == null) {
                settle();
                open = question();
                asked = screen.cursor();
                erasures = screen.erasures();
            }
            boolean enter = key == '\r' || key == '\n';
            if (!enter) {
                keys.append(key);
            }
            boolean turns = key == SPACE
                    && keys.length() == 1
                    && ANY_KEY.matcher(open.question()).find();
            if (enter || turns) {
                String text = edited(keys);
                sent = new Entry(
                        open.index(),
                        open.piece(),
                        open.shown(),
                        open.question(),
                        text.isEmpty() ? Optional.empty() : Optional.of(Secret.of(text)),
                        Echo.UNKNOWN,
                        turns,
                        keys.indexOf(String.valueOf(ESCAPE)) >= 0,
                        open.below(),
                        open.silence());
                open = null;
                keys.setLength(0);
                from = asked;
                entered = at;
                spoke = at;
                silence = Silence.NONE;
            }
        }

        /** What the line shows now: the next entry, before anything was typed. */
        private Entry question() {
            List<String> lines = lines();
            int last = lines.size() - 1;
            while (last >= 0 && chatter.test(lines.get(last))) {
                last--;
            }
            return new Entry(
                    entries.size(),
                    piece,
                    last < 0 ? List.of() : lines.subList(0, last),
                    last < 0 ? "" : lines.get(last),
                    Optional.empty(),
                    Echo.UNKNOWN,
                    false,
                    false,
                    screen.cursor().column() == 0,
                    silence);
        }

        /** What was shown since the last entry, without what only repeats that entry. */
        private List<String> lines() {
            List<String> lines = new ArrayList<>(screen.since(from));
            if (sent != null && !lines.isEmpty()) {
                String first = lines.remove(0);
                String rest = sent.typed()
                        .map(typed -> typed.<String>use(text -> behind(text, first)))
                        .orElse(first);
                if (!rest.isBlank()) {
                    lines.add(0, rest);
                }
            }
            lines.removeIf(String::isBlank);
            return lines.stream().map(String::stripTrailing).toList();
        }

        private static String behind(String typed, String row) {
            if (row.startsWith(typed)) {
                return row.substring(typed.length());
            }
            return masks(typed, row) ? row.substring(typed.length()) : row;
        }

        private static boolean masks(String typed, String row) {
            return row.length() >= typed.length()
                    && typed.length() > 0
                    && row.chars().limit(typed.length()).distinct().count() == 1
                    && !Character.isLetterOrDigit(row.charAt(0))
                    && row.charAt(0) != ' ';
        }

        /** By now the machine has shown what was typed, or has not. */
        private void settle() {
            if (sent == null || sent.index() < entries.size()) {
                return;
            }
            asked = drawnAgain().orElse(asked);
            from = asked;
            String row = screen.since(asked).get(0);
            Echo echo = sent.typed()
                    .map(typed -> typed.<Echo>use(text -> echo(text, row)))
                    .orElse(Echo.SHOWN);
            entries.add(new Entry(
                    sent.index(),
                    sent.piece(),
                    sent.shown(),
                    sent.question(),
                    sent.typed(),
                    screen.erasures() > erasures ? Echo.UNKNOWN : echo,
                    sent.key(),
                    sent.cursorKeys(),
                    sent.below(),
                    sent.silence()));
        }

        /**
         * Where the question is drawn again with what was typed behind it: people press the key that draws it again and
         * type on before the machine has drawn it.
         */
        private Optional<Screen.Place> drawnAgain() {
            List<String> rows = screen.since(asked);
            String question = sent.question();
            if (!rows.get(0).isBlank() || question.isEmpty()) {
                return Optional.empty();
            }
            for (int i = 1; i < rows.size(); i++) {
                String row = rows.get(i);
                int column = question.length();
                while (column < row.length() && row.charAt(column) == ' ') {
                    column++;
                }
                if (row.startsWith(question) && shows(row.substring(Math.min(column, row.length())))) {
                    return Optional.of(new Screen.Place(asked.row() + i, column));
                }
            }
            return Optional.empty();
        }

        private boolean shows(String row) {
            return sent.typed()
                    .filter(typed -> typed.<Boolean>use(text -> echo(text, row) != Echo.NONE))
                    .isPresent();
        }

        private static Echo echo(String text, String row) {
            // a long entry goes on in the next row
            if (!row.isBlank() && (row.startsWith(text) || text.startsWith(row) && row.length() > 1)) {
                return Echo.SHOWN;
            }
            return masks(text, row) ? Echo.MASKED : Echo.NONE;
        }
    }

    /** What keys come to, once those that correct are carried out. */
    static String edited(CharSequence keys) {
        StringBuilder text = new StringBuilder();
        for (int i = 0; i < keys.length(); i++) {
            char key = keys.charAt(i);
            if (key == '\b' || key == DELETE) {
                text.setLength(Math.max(0, text.length() - 1));
            } else if (key == ERASE_LINE) {
                text.setLength(0);
            } else if (key >= ' ' && key != BELL) {
                text.append(key);
            }
        }
        return text.toString().strip();
    }
}
