package lychnos.core.dialogue;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * What a person would see of a line: a window of 24 rows of 80 columns over some hundreds of rows that have scrolled
 * away.
 *
 * <p>It understands what consoles send: CR, LF, BS and TAB, and of the control sequences of ECMA-48 those that move the
 * cursor (CUU, CUD, CUF, CUB, CUP, CHA, VPA), erase (ED, EL) and mark (SGR 7 for reverse video, the way menus show
 * where they stand); colours and everything else are read over. Memory is bounded: rows fall off at the top, and a
 * sequence that never ends is given up after {@value #LONGEST_SEQUENCE} characters. It never throws, whatever comes.
 *
 * <p>Rows are counted from the first that ever was, so that a place stays the same while the window moves on.
 */
public final class Screen {

    public static final int COLUMNS = 80;
    public static final int ROWS = 24;

    /** Rows that are kept: the window and what scrolled away. A question never lies further back. */
    static final int KEPT = 400;

    private static final int LONGEST_SEQUENCE = 64;
    private static final int TAB = 8;

    private enum Parsing {
        TEXT,
        ESCAPE,
        SEQUENCE,
        /** An operating system command (OSC) or the like, up to BEL or ESC \. */
        STRING,
        STRING_ESCAPE
    }

    private static final class Row {
        private final char[] text = new char[COLUMNS];
        private final boolean[] reverse = new boolean[COLUMNS];
        private int length;

        void put(int column, char letter, boolean marked) {
            while (length <= column) {
                text[length] = ' ';
                reverse[length++] = false;
            }
            text[column] = letter;
            reverse[column] = marked;
        }

        void erase(int from, int to) {
            for (int i = from; i < Math.min(to, length); i++) {
                text[i] = ' ';
                reverse[i] = false;
            }
            if (to >= length) {
                length = Math.min(length, from);
            }
        }

        @Override
        public String toString() {
            return new String(text, 0, length);
        }
    }

    /** A place on the screen that stays where it is while rows scroll away. */
    public record Place(long row, int column) {}

    private final List<Row> rows = new ArrayList<>();
    /** The number of the first row that is kept. */
    private long first;
    /** The number of the window's top row. */
    private long top;

    private long row;
    private int column;
    private boolean marked;
    private boolean wrapPending;
    private int erasures;
    private Parsing parsing = Parsing.TEXT;
    private final StringBuilder sequence = new StringBuilder();
    private Place lowest;

    public Screen() {
        rows.add(new Row());
    }

    /** Takes what came from the line. Only the lower 8 bits of each character count. */
    public void write(String bytes) {
        for (int i = 0; i < bytes.length(); i++) {
            take((char) (bytes.charAt(i) & 0xff));
        }
    }

    private void take(char c) {
        switch (parsing) {
            case TEXT -> text(c);
            case ESCAPE -> escape(c);
            case SEQUENCE -> sequence(c);
            case STRING -> string(c);
            case STRING_ESCAPE -> parsing = c == '\\' ? Parsing.TEXT : Parsing.STRING;
        }
    }

    private void text(char c) {
        switch (c) {
            case 0x1b -> parsing = Parsing.ESCAPE;
            case '\r' -> to(row, 0);
            case '\n', 0x0b, 0x0c -> down();
            case '\b' -> to(row, Math.max(0, column - 1));
            case '\t' -> to(row, Math.min(COLUMNS - 1, (column / TAB + 1) * TAB));
            default -> {
                if (c >= ' ' && c != 0x7f) {
                    print(c);
                }
            }
        }
    }

    private void print(char c) {
        if (wrapPending) {
            to(row, 0);
            down();
        }
        lowest();
        current().put(column, c, marked);
        if (column == COLUMNS - 1) {
            wrapPending = true;
        } else {
            column++;
        }
    }

    private void to(long newRow, int newColumn) {
        row = newRow;
        column = newColumn;
        wrapPending = false;
    }

    private void down() {
        to(row + 1, column);
        current();
        if (row >= top + ROWS) {
            top = row - ROWS + 1;
        }
    }

    /** The cursor's row; rows up to it are made, and those too far back fall off. */
    private Row current() {
        while (first + rows.size() <= row) {
            rows.add(new Row());
        }
        if (rows.size() > KEPT) {
            int over = rows.size() - KEPT;
            rows.subList(0, over).clear();
            first += over;
        }
        return rows.get((int) (row - first));
    }

    private void escape(char c) {
        parsing = switch (c) {
            case '[' -> {
                sequence.setLength(0);
                yield Parsing.SEQUENCE;
            }
            case ']', 'P', 'X', '^', '_' -> {
                sequence.setLength(0);
                yield Parsing.STRING;
            }
            case 0x1b -> Parsing.ESCAPE;
            default -> Parsing.TEXT;
        };
    }

    private void string(char c) {
        sequence.append(c);
        if (c == 0x07 || sequence.length() > LONGEST_SEQUENCE * 4) {
            parsing = Parsing.TEXT;
        } else if (c == 0x1b) {
            parsing = Parsing.STRING_ESCAPE;
        }
    }

    private void sequence(char c) {
        if (c >= 0x40 && c <= 0x7e) {
            parsing = Parsing.TEXT;
            carryOut(c);
        } else if (sequence.length() >= LONGEST_SEQUENCE || c < 0x20) {
            parsing = Parsing.TEXT;
        } else {
            sequence.append(c);
        }
    }

    private int number(int index, int otherwise) {
        String[] parts = sequence.toString().split(";", -1);
        if (index >= parts.length || !parts[index].matches("[0-9]{1,4}")) {
            return otherwise;
        }
        return Integer.parseInt(parts[index]);
    }

    private void carryOut(char c) {
        int n = Math.max(1, number(0, 1));
        switch (c) {
            case 'A' -> toWindow(row - top - n, column);
            case 'B', 'e' -> toWindow(row - top + n, column);
            case 'C', 'a' -> toWindow(row - top, column + n);
            case 'D' -> toWindow(row - top, column - n);
            case 'G', '`' -> toWindow(row - top, n - 1);
            case 'd' -> toWindow(n - 1, column);
            case 'H', 'f' -> toWindow(n - 1, Math.max(1, number(1, 1)) - 1);
            case 'J' -> eraseWindow(number(0, 0));
            case 'K' -> eraseRow(number(0, 0));
            case 'm' -> mark();
            default -> {
                // what only a terminal's own state would show is read over
            }
        }
    }

    private void toWindow(long windowRow, int newColumn) {
        to(top + Math.max(0, Math.min(ROWS - 1, windowRow)), Math.max(0, Math.min(COLUMNS - 1, newColumn)));
        current();
    }

    /** Remembers where the foremost change since {@link #fromHere} was made. */
    private void lowest() {
        if (lowest == null || row < lowest.row || row == lowest.row && column < lowest.column) {
            lowest = new Place(row, column);
        }
    }

    private void eraseRow(int what) {
        current().erase(what == 0 ? column : 0, what == 1 ? column + 1 : COLUMNS);
    }

    private void eraseWindow(int what) {
        erasures += what >= 2 ? 1 : 0;
        eraseRow(what);
        for (long each = top; each < first + rows.size(); each++) {
            if (what >= 2 || what == 0 && each > row || what == 1 && each < row) {
                rows.get((int) (each - first)).erase(0, COLUMNS);
            }
        }
    }

    private void mark() {
        for (String part : sequence.toString().split(";", -1)) {
            switch (part) {
                case "", "0", "27" -> marked = false;
                case "7" -> marked = true;
                default -> {
                    // colours
                }
            }
        }
    }

    /** From here on the foremost change is looked for. */
    public void fromHere() {
        lowest = null;
    }

    /** The foremost place that was written to since {@link #fromHere}. */
    public Optional<Place> foremostChange() {
        return Optional.ofNullable(lowest);
    }

    /** Where the next letter would stand. */
    public Place cursor() {
        return new Place(row, column);
    }

    /** How often the whole window was erased: what came before then is no part of what is drawn now. */
    public int erasures() {
        return erasures;
    }

    /** Where the window begins. */
    public Place windowTop() {
        return new Place(top, 0);
    }

    /** Every row from a place to the end of what was written, without blanks at their ends. */
    public List<String> since(Place place) {
        List<String> lines = new ArrayList<>();
        for (long each = Math.max(place.row, first); each < first + rows.size(); each++) {
            String line = rows.get((int) (each - first)).toString();
            lines.add(each == place.row ? line.substring(Math.min(place.column, line.length())) : line);
        }
        return lines;
    }

    /** The beginning of the last row behind a place that something stands in. */
    public Optional<Place> lastRowWith(Look look, Place from) {
        for (long each = first + rows.size() - 1; each >= Math.max(from.row, first); each--) {
            if (look.in(rows.get((int) (each - first)).toString())) {
                return Optional.of(new Place(each, 0));
            }
        }
        return Optional.empty();
    }

    /** The rows of the window, for machines that draw whole pages. */
    public List<String> window() {
        return since(windowTop());
    }

    /** What stands in reverse video in the window, row by row: where a menu stands. */
    public List<String> markedText() {
        List<String> found = new ArrayList<>();
        for (long each = Math.max(top, first); each < first + rows.size(); each++) {
            Row line = rows.get((int) (each - first));
            StringBuilder text = new StringBuilder();
            for (int i = 0; i < line.length; i++) {
                if (line.reverse[i]) {
                    text.append(line.text[i]);
                }
            }
            if (!text.toString().isBlank()) {
                found.add(text.toString().strip());
            }
        }
        return found;
    }
}
