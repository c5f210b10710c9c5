package lychnos.core.fact;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.List;
import java.util.function.ObjIntConsumer;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;

/**
 * Reads rows from a CSV file (RFC 4180) or from columns pasted out of a spreadsheet. Comma, semicolon and tab are told
 * apart by the first lines. A byte-order mark is skipped, quoted line breaks are part of their cell, and the text is
 * bounded before it is read.
 */
public final class CsvText {

    /** The most characters that are read: 5,000 machines fit ten times over. */
    public static final int MAX_LENGTH = 4_000_000;

    /** The most lines that are read. */
    public static final int MAX_LINES = 10_000;

    private static final int FIRST_LINES = 12;

    /** What a formula begins with, in the spreadsheets that there are. */
    private static final String FORMULA = "=+-@\t\r";

    private CsvText() {}

    /**
     * Hands over every row that is not blank, with the number of the line it begins in.
     *
     * @return what makes the text unreadable as a whole or from some line on; empty where all was read
     */
    public static List<LabelFault> read(String text, ObjIntConsumer<CSVRecord> rows) {
        if (text.length() > MAX_LENGTH) {
            return fault(1, FactText.LIST_TOO_LONG.text(text.length(), MAX_LENGTH));
        }
        String body = text.startsWith("\ufeff") ? text.substring(1) : text;
        if (body.indexOf('\0') >= 0 || body.indexOf('\ufffd') >= 0) {
            return fault(1, FactText.NOT_UTF_8.text());
        }
        if (body.isBlank()) {
            return fault(1, FactText.LIST_EMPTY.text());
        }
        CSVFormat format = CSVFormat.RFC4180
                .builder()
                .setDelimiter(delimiter(body))
                .setIgnoreEmptyLines(false)
                .setTrailingData(true)
                .get();
        int line = 1;
        try (CSVParser parser = CSVParser.parse(body, format)) {
            for (CSVRecord row : parser) {
                if (line > MAX_LINES) {
                    return fault(line, FactText.LIST_TOO_MANY_LINES.text(MAX_LINES));
                }
                if (!row.stream().allMatch(String::isBlank)) {
                    rows.accept(row, line);
                }
                line = (int) parser.getCurrentLineNumber() + 1;
            }
            return List.of();
        } catch (IOException | UncheckedIOException | IllegalStateException e) {
            return fault(line, FactText.OPEN_QUOTE.text());
        }
    }

    /** What is written into a cell: a value that a spreadsheet would take for a formula gets an apostrophe in front. */
    public static String safe(String value) {
        return !value.isEmpty() && FORMULA.indexOf(value.charAt(0)) >= 0 ? "'" + value : value;
    }

    private static List<LabelFault> fault(int line, String reason) {
        return List.of(new LabelFault(line, "", "", reason));
    }

    /**
     * Which character separates the columns: the one that a line at the beginning holds most of. Titles above the
     * headings hold few.
     */
    static char delimiter(String body) {
        List<String> first =
                body.lines().filter(line -> !line.isBlank()).limit(FIRST_LINES).toList();
        char best = ',';
        long most = 0;
        for (char candidate : new char[] {'\t', ';', ','}) {
            long count = first.stream()
                    .mapToLong(line -> line.chars().filter(c -> c == candidate).count())
                    .max()
                    .orElse(0);
            if (count > most) {
                most = count;
                best = candidate;
            }
        }
        return best;
    }
}
