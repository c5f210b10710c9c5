package lychnos.core.sheet;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;
import lychnos.core.fact.FactSpec;
import lychnos.core.fact.FactType;
import lychnos.core.fact.LabelColumns;
import lychnos.core.fact.LabelList;

/**
 * Which column of a table of facts holds what: the unit, its member, or a fact. What is proposed can be
 * corrected.
 *
 * @param headingLine the index of the row that holds the headings, or -1 where there is none
 * @param headings by column, as they stand in the table; empty texts where there is none
 * @param samples by column, the first value in it; empty for secrets
 * @param meaning by column, {@link #UNIT}, {@link #MEMBER}, {@link #RACK}, {@link #RACK_UNIT} or the name of a fact
 */
public record SheetColumns(int headingLine, List<String> headings, List<String> samples, Map<Integer, String> meaning) {

    public static final String UNIT = "unit";
    public static final String MEMBER = "member";
    /** The rack alone, where the rack unit has a column of its own. */
    public static final String RACK = "rack";

    public static final String RACK_UNIT = "rack-unit";

    private static final Set<String> UNITS =
            Set.of("unit", "unit name", "host", "host name", "hostname", "device", "device name", "node name", "name");
    private static final Set<String> MEMBERS = Set.of("member", "controller", "node", "side", "member name");
    private static final Set<String> RACK_UNITS = Set.of("u", "ru", "rack unit", "u position", "height unit");

    /** Titles of a table stand above its headings, and few they are. */
    private static final int MOST_TITLES = 10;

    /** How much of a column must be names of units for it to count as the column of units. */
    private static final double MOST_OF_IT = 0.8;

    public SheetColumns {
        headings = List.copyOf(headings);
        samples = List.copyOf(samples);
        meaning = Map.copyOf(meaning);
    }

    /**
     * Proposes what the columns hold.
     *
     * @param keys what the units are called, in lowercase
     * @param facts that any unit has
     */
    static SheetColumns guess(List<List<String>> rows, Set<String> keys, List<FactSpec> facts) {
        for (int i = 0; i < Math.min(MOST_TITLES, rows.size()); i++) {
            Map<Integer, String> meaning = byHeadings(rows.get(i), facts);
            if (meaning.containsValue(UNIT) && meaning.size() >= 2) {
                return of(rows, i, meaning, facts);
            }
        }
        int first = IntStream.range(0, Math.min(MOST_TITLES + 1, rows.size()))
                .filter(i -> rows.get(i).stream().anyMatch(cell -> isUnit(cell, keys)))
                .findFirst()
                .orElse(1);
        int heading = first - 1;
        Map<Integer, String> meaning =
                heading < 0 || rows.isEmpty() ? new HashMap<>() : byHeadings(rows.get(heading), facts);
        unitColumn(rows.subList(Math.min(first, rows.size()), rows.size()), keys)
                .ifPresent(index -> {
                    meaning.values().remove(UNIT);
                    meaning.put(index, UNIT);
                });
        return of(rows, heading, meaning, facts);
    }

    /** The same with what a person chose: exactly these columns are read. */
    SheetColumns choosing(Map<Integer, String> chosen, List<FactSpec> facts) {
        List<String> shown = new ArrayList<>(samples);
        chosen.forEach((index, meaning) -> {
            if (index < shown.size() && isSecret(meaning, facts)) {
                shown.set(index, "");
            }
        });
        return new SheetColumns(headingLine, headings, shown, chosen);
    }

    private static SheetColumns of(
            List<List<String>> rows, int heading, Map<Integer, String> meaning, List<FactSpec> facts) {
        int width = rows.stream().mapToInt(List::size).max().orElse(0);
        List<String> headings = new ArrayList<>();
        List<String> samples = new ArrayList<>();
        for (int i = 0; i < width; i++) {
            int column = i;
            headings.add(heading < 0 ? "" : cell(rows.get(heading), i));
            samples.add(
                    isSecret(meaning.get(i), facts)
                            ? ""
                            : rows.stream()
                                    .skip(heading + 1L)
                                    .map(row -> cell(row, column))
                                    .filter(text -> !text.isEmpty())
                                    .findFirst()
                                    .orElse(""));
        }
        return new SheetColumns(heading, headings, samples, meaning);
    }

    private static boolean isSecret(String meaning, List<FactSpec> facts) {
        return facts.stream().anyMatch(fact -> fact.name().equals(meaning) && fact.type() == FactType.SECRET);
    }

    private static String cell(List<String> row, int index) {
        return index < row.size() ? row.get(index).strip() : "";
    }

    private static boolean isUnit(String cell, Set<String> keys) {
        return keys.contains(cell.strip().toLowerCase(Locale.ROOT));
    }

    private static Optional<Integer> unitColumn(List<List<String>> rows, Set<String> keys) {
        int width = rows.stream().mapToInt(List::size).max().orElse(0);
        return IntStream.range(0, width)
                .filter(index -> {
                    long units = rows.stream()
                            .filter(row -> isUnit(cell(row, index), keys))
                            .count();
                    return units > 0 && units >= MOST_OF_IT * rows.size();
                })
                .boxed()
                .findFirst();
    }

    private static Map<Integer, String> byHeadings(List<String> row, List<FactSpec> facts) {
        Map<Integer, String> meaning = new HashMap<>();
        for (int i = 0; i < row.size(); i++) {
            int index = i;
            meaning(row.get(i), facts)
                    .filter(each -> !meaning.containsValue(each))
                    .ifPresent(each -> meaning.put(index, each));
        }
        // a rack alone is half of a position where the unit in it has a column of its own
        if (meaning.containsValue(RACK_UNIT)) {
            facts.stream()
                    .filter(fact -> fact.type() == FactType.POSITION)
                    .findFirst()
                    .ifPresent(place -> meaning.replaceAll((index, each) ->
                            each.equals(place.name()) && plain(row.get(index)).contains(RACK) ? RACK : each));
        }
        return meaning;
    }

    /** What a heading says: the title or the name of a fact, a word for a label's column, or words like a title. */
    private static Optional<String> meaning(String heading, List<FactSpec> facts) {
        String plain = plain(heading);
        if (plain.isEmpty()) {
            return Optional.empty();
        }
        Optional<String> exact = facts.stream()
                .filter(fact ->
                        plain(fact.title()).equals(plain) || plain(fact.name()).equals(plain))
                .map(FactSpec::name)
                .findFirst();
        return exact.or(() -> word(plain))
                .or(() -> LabelColumns.means(heading)
                        .map(LabelList.Column::fact)
                        .filter(name ->
                                facts.stream().anyMatch(fact -> fact.name().equals(name))))
                .or(() -> alike(plain, facts));
    }

    private static Optional<String> word(String plain) {
        return UNITS.contains(plain)
                ? Optional.of(UNIT)
                : MEMBERS.contains(plain)
                        ? Optional.of(MEMBER)
                        : RACK_UNITS.contains(plain) ? Optional.of(RACK_UNIT) : Optional.empty();
    }

    /** The only fact all words of whose title are in the heading. */
    private static Optional<String> alike(String plain, List<FactSpec> facts) {
        Set<String> words = new HashSet<>(Arrays.asList(plain.split(" ")));
        List<String> fitting = facts.stream()
                .filter(fact ->
                        words.containsAll(Arrays.asList(plain(fact.title()).split(" "))))
                .map(FactSpec::name)
                .distinct()
                .toList();
        return fitting.size() == 1 ? Optional.of(fitting.get(0)) : Optional.empty();
    }

    private static String plain(String heading) {
        return heading.toLowerCase(Locale.ROOT)
                .replace("\ufeff", "")
                .replaceAll("\\([^)]*\\)", " ")
                .replaceAll("[^a-z0-9]+", " ")
                .strip();
    }
}
