package lychnos.core.fact;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;
import java.util.regex.Pattern;
import lychnos.core.fact.LabelList.Column;

/**
 * Which column of somebody's list holds what. Lists come with headings of many kinds, with titles above them, or
 * without
 * any heading; what is proposed can be corrected.
 *
 * @param headingLine the index of the row that holds the headings, or -1 where there is none
 * @param headings by column, as they stand in the list; empty texts where there is none
 * @param samples by column, the first value in it
 * @param meaning by column, what it holds, as far as that is known
 */
public record LabelColumns(int headingLine, List<String> headings, List<String> samples, Map<Integer, Column> meaning) {

    /** Titles of a list stand above its headings, and few they are. */
    private static final int MOST_TITLES = 10;

    /** How much of a column must be of a form for the column to count as of that form. */
    private static final double MOST_OF_IT = 0.8;

    private static final Map<Column, Pattern> LIKE = new EnumMap<>(Column.class);

    /** Of several columns with MAC addresses, the one of the management port is meant. */
    private static final Pattern MANAGEMENT = Pattern.compile("\\b(bmc|oob|mgmt|management|controller)\\b");

    static {
        LIKE.put(Column.FACTORY_PASSWORD, Pattern.compile("\\b(password|passwd|pwd|pass)\\b"));
        LIKE.put(Column.FACTORY_USER, Pattern.compile("\\b(user|user ?name|login|account)\\b"));
        LIKE.put(Column.SERIAL, Pattern.compile("\\bserial\\b|^s ?n$"));
        LIKE.put(Column.MAC, Pattern.compile("\\bmacs?\\b|\\bhardware address\\b|\\beui ?48\\b"));
        LIKE.put(
                Column.RACK_UNIT,
                Pattern.compile("^(r?u|unit|rack unit|height unit)$|^(r?u|rack unit) (position|pos|no|number|slot)$"));
        LIKE.put(Column.POSITION, Pattern.compile("\\b(rack|position|location|slot)\\b"));
        LIKE.put(Column.FIRST_ADDRESS, Pattern.compile("\\b(ip|ipv4|dhcp) ?(address)?\\b"));
        LIKE.put(Column.MODEL, Pattern.compile("\\b(model|product|type)\\b"));
    }

    private static final Pattern WITH_UNIT = Pattern.compile("[uU]0*[1-9][0-9]?$");

    private static final List<Column> WITHOUT_HEADING =
            List.of(Column.SERIAL, Column.MAC, Column.POSITION, Column.MODEL, Column.FIRST_ADDRESS);

    public LabelColumns {
        headings = List.copyOf(headings);
        samples = List.copyOf(samples);
        meaning = Map.copyOf(meaning);
    }

    /** Proposes what the columns of a table hold. */
    static LabelColumns guess(List<List<String>> rows) {
        int width = rows.stream().mapToInt(List::size).max().orElse(0);
        for (int i = 0; i < Math.min(MOST_TITLES, rows.size()); i++) {
            Map<Integer, Column> meaning = byHeadings(rows.get(i));
            if (meaning.size() >= 2) {
                return of(rows, i, width, meaning);
            }
        }
        int heading = beforeTheFirstMac(rows);
        return of(rows, heading, width, byContent(rows.subList(heading + 1, rows.size()), width));
    }

    /** Unknown headings are in the row before the first MAC address; -1 if there is no such row. */
    private static int beforeTheFirstMac(List<List<String>> rows) {
        for (int i = 0; i < Math.min(MOST_TITLES, rows.size()); i++) {
            if (rows.get(i).stream().anyMatch(LabelColumns::isMac)) {
                return i - 1;
            }
        }
        return -1;
    }

    /** The same with what a person chose: exactly these columns are read. */
    LabelColumns choosing(Map<Integer, Column> chosen) {
        return new LabelColumns(headingLine, headings, samples, chosen);
    }

    private static LabelColumns of(List<List<String>> rows, int heading, int width, Map<Integer, Column> meaning) {
        List<String> headings = new ArrayList<>();
        List<String> samples = new ArrayList<>();
        for (int i = 0; i < width; i++) {
            int column = i;
            headings.add(heading < 0 ? "" : cell(rows.get(heading), i));
            samples.add(rows.stream()
                    .skip(heading + 1L)
                    .map(row -> cell(row, column))
                    .filter(text -> !text.isEmpty())
                    .findFirst()
                    .orElse(""));
        }
        return new LabelColumns(heading, headings, samples, meaning);
    }

    private static String cell(List<String> row, int index) {
        return index < row.size() ? row.get(index).strip() : "";
    }

    private static String plain(String heading) {
        return heading.toLowerCase(Locale.ROOT)
                .replaceAll("\\([^)]*\\)", " ")
                .replaceAll("[^a-z0-9]+", " ")
                .strip();
    }

    private static Map<Integer, Column> byHeadings(List<String> row) {
        Map<Integer, Column> meaning = new HashMap<>();
        for (int i = 0; i < row.size(); i++) {
            int index = i;
            String heading = plain(row.get(i));
            means(row.get(i)).ifPresent(column -> {
                Optional<Integer> other = at(meaning, column);
                boolean better =
                        column == Column.MAC && MANAGEMENT.matcher(heading).find();
                if (other.isEmpty() || better) {
                    other.ifPresent(meaning::remove);
                    meaning.put(index, column);
                }
            });
        }
        // a rack alone is half of a position where the unit in it has a column of its own
        if (at(meaning, Column.RACK_UNIT).isPresent()) {
            at(meaning, Column.POSITION)
                    .filter(index -> plain(row.get(index)).contains("rack"))
                    .ifPresent(index -> meaning.put(index, Column.RACK));
        }
        return meaning;
    }

    private static Optional<Integer> at(Map<Integer, Column> meaning, Column column) {
        return meaning.entrySet().stream()
                .filter(each -> each.getValue() == column)
                .map(Map.Entry::getKey)
                .findFirst();
    }

    /** What a heading says, in any of the words that people use. */
    public static Optional<Column> means(String heading) {
        return Column.named(heading).or(() -> like(plain(heading)));
    }

    private static Optional<Column> like(String heading) {
        return LIKE.entrySet().stream()
                .filter(each -> each.getValue().matcher(heading).find())
                .map(Map.Entry::getKey)
                .min((a, b) -> Boolean.compare(b == Column.RACK_UNIT, a == Column.RACK_UNIT));
    }

    /** By what stands in them: MAC addresses and rack positions look like nothing else. */
    private static Map<Integer, Column> byContent(List<List<String>> rows, int width) {
        Map<Integer, Column> meaning = new HashMap<>();
        first(rows, width, LabelColumns::isMac).ifPresent(index -> meaning.put(index, Column.MAC));
        first(rows, width, LabelColumns::isPosition).ifPresent(index -> meaning.putIfAbsent(index, Column.POSITION));
        if (meaning.size() < 2) {
            meaning.clear();
            for (int i = 0; i < Math.min(width, WITHOUT_HEADING.size()); i++) {
                meaning.put(i, WITHOUT_HEADING.get(i));
            }
            return meaning;
        }
        List<Column> left = List.of(Column.SERIAL, Column.MODEL, Column.FIRST_ADDRESS);
        int next = 0;
        for (int i = 0; i < width && next < left.size(); i++) {
            if (!meaning.containsKey(i)) {
                meaning.put(i, left.get(next++));
            }
        }
        return meaning;
    }

    private static Optional<Integer> first(List<List<String>> rows, int width, Predicate<String> form) {
        for (int i = 0; i < width; i++) {
            int index = i;
            long fitting =
                    rows.stream().map(row -> cell(row, index)).filter(form).count();
            if (fitting > 0 && fitting >= MOST_OF_IT * rows.size()) {
                return Optional.of(i);
            }
        }
        return Optional.empty();
    }

    private static boolean isMac(String text) {
        return parses(() -> Mac.parse(text));
    }

    /** With the u of the unit: without it many a serial, such as PC-1, reads like a rack and a unit. */
    private static boolean isPosition(String text) {
        return WITH_UNIT.matcher(text).find() && parses(() -> RackPosition.parse(text));
    }

    private static boolean parses(Runnable parser) {
        try {
            parser.run();
            return true;
        } catch (IllegalArgumentException e) {
            return false;
        }
    }
}
