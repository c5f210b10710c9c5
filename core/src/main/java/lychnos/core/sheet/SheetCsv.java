package lychnos.core.sheet;

import java.io.IOException;
import java.io.StringWriter;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Function;
import lychnos.core.fact.AsPrinted;
import lychnos.core.fact.CsvText;
import lychnos.core.fact.Fact;
import lychnos.core.fact.FactSpec;
import lychnos.core.fact.FactType;
import lychnos.core.fact.LabelFault;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;

/** The fact sheet as a table of values: one line a member, or a unit that has one member; one column a fact. */
public final class SheetCsv {

    private static final String UNIT = SheetColumns.UNIT;
    private static final String MEMBER = SheetColumns.MEMBER;

    private SheetCsv() {}

    /** A unit of the sheet. {@code key} is what it is called in the table. */
    public record Line(String key, UnitFacts facts) {

        /** The rows it fills: one a member. */
        public List<String> members() {
            return facts.kind().members().of(facts.members());
        }
    }

    /** One value of a table, already in its canonical form. */
    public record Cell(int line, String key, String member, FactSpec fact, String value) {}

    /** What a table says, and what is wrong with it. */
    public record Table(List<Cell> cells, List<LabelFault> faults, SheetColumns columns) {}

    /** The facts of all units, each once, in the order in which the kinds name them. */
    public static List<FactSpec> columns(List<Line> lines) {
        Map<String, FactSpec> columns = new LinkedHashMap<>();
        lines.forEach(line -> line.facts.kind().facts().forEach(fact -> columns.putIfAbsent(fact.name(), fact)));
        return List.copyOf(columns.values());
    }

    /** Writes the sheet. What a spreadsheet would take for a formula is led by an apostrophe. Secrets stay out. */
    public static String write(List<Line> lines) {
        List<FactSpec> columns = columns(lines);
        StringWriter text = new StringWriter();
        try (CSVPrinter printer = new CSVPrinter(text, CSVFormat.RFC4180)) {
            List<String> heading = new ArrayList<>(List.of(UNIT, MEMBER));
            columns.forEach(column -> heading.add(column.title()));
            printer.printRecord(heading);
            for (Line line : lines) {
                List<String> members = line.members();
                for (int i = 0; i < members.size(); i++) {
                    List<String> row = new ArrayList<>(List.of(CsvText.safe(line.key), CsvText.safe(members.get(i))));
                    for (FactSpec column : columns) {
                        row.add(CsvText.safe(value(line, column.name(), members.get(i), i == 0)));
                    }
                    printer.printRecord(row);
                }
            }
        } catch (IOException e) {
            throw new IllegalStateException("a string can be written to", e);
        }
        return text.toString();
    }

    private static String value(Line line, String name, String member, boolean first) {
        Optional<FactSpec> own = line.facts.kind().fact(name);
        if (own.isEmpty()
                || own.get().type() == FactType.SECRET
                || own.get().scope() == FactSpec.Scope.UNIT && !first) {
            return "";
        }
        return line.facts
                .fact(own.get().scope() == FactSpec.Scope.UNIT ? "" : member, name)
                .map(Fact::value)
                .orElse("");
    }

    /**
     * Reads a table that has a column of units, one of members where units have several, and any facts by their titles.
     * Empty cells say nothing. A wrong cell is reported and never hides a right one.
     */
    public static Table read(String text, List<Line> lines) {
        return read(text, lines, columns -> Map.of());
    }

    /**
     * The same with what a person says of the columns.
     *
     * @param chosen gives for the columns as they are proposed what each holds, counted from 0; others are left out.
     *     Empty to take what is proposed
     */
    public static Table read(String text, List<Line> lines, Function<SheetColumns, Map<Integer, String>> chosen) {
        List<List<String>> rows = new ArrayList<>();
        List<Integer> numbers = new ArrayList<>();
        List<LabelFault> faults = new ArrayList<>(CsvText.read(text, (row, line) -> {
            rows.add(row.toList());
            numbers.add(line);
        }));
        Reader reader = new Reader(lines);
        SheetColumns guessed = SheetColumns.guess(rows, reader.byKey.keySet(), reader.known);
        Map<Integer, String> own = chosen.apply(guessed);
        SheetColumns columns = own.isEmpty() ? guessed : guessed.choosing(own, reader.known);
        int heading = columns.headingLine();
        if (!rows.isEmpty()) {
            int line = numbers.get(Math.max(0, heading));
            if (own.isEmpty()) {
                reader.strange(columns, line);
            }
            if (reader.hasUnits(columns, line)) {
                for (int i = heading + 1; i < rows.size(); i++) {
                    reader.cells(rows.get(i), numbers.get(i));
                }
            }
        }
        faults.addAll(0, reader.faults);
        return new Table(List.copyOf(reader.cells), List.copyOf(faults), columns);
    }

    private static final class Reader {

        private final Map<String, Line> byKey = new HashMap<>();
        private final List<Cell> cells = new ArrayList<>();
        private final List<LabelFault> faults = new ArrayList<>();
        private final Map<String, Integer> columns = new LinkedHashMap<>();
        private final List<FactSpec> known;

        Reader(List<Line> lines) {
            lines.forEach(line -> byKey.put(line.key.toLowerCase(Locale.ROOT), line));
            known = columns(lines);
        }

        /** Reports the columns that mean nothing here; a person who has chosen the columns knows. */
        private void strange(SheetColumns of, int line) {
            for (int i = 0; i < of.headings().size(); i++) {
                String title = of.headings().get(i);
                if (!title.isEmpty()
                        && !of.meaning().containsKey(i)
                        && of.meaning().containsValue(UNIT)) {
                    faults.add(new LabelFault(line, title, "", SheetText.NO_SUCH_FACT.text()));
                }
            }
        }

        private boolean hasUnits(SheetColumns of, int line) {
            new TreeMap<>(of.meaning()).forEach((index, meaning) -> columns.put(meaning, index));
            if (!columns.containsKey(UNIT)) {
                faults.add(new LabelFault(line, "", "", SheetText.NO_UNIT_COLUMN.text()));
            }
            return columns.containsKey(UNIT);
        }

        private void cells(List<String> row, int line) {
            String key = text(row, UNIT);
            Line unit = byKey.get(key.toLowerCase(Locale.ROOT));
            if (unit == null) {
                faults.add(new LabelFault(
                        line,
                        UNIT,
                        key,
                        key.isEmpty() ? SheetText.UNIT_IS_MISSING.text() : SheetText.NO_SUCH_UNIT.text()));
                return;
            }
            String member = text(row, MEMBER);
            List<String> members = unit.members();
            if (!members.contains(member) && !(member.isEmpty() && members.size() > 1)) {
                faults.add(new LabelFault(
                        line, MEMBER, member, SheetText.NO_SUCH_MEMBER.text(unit.key, String.join(", ", members))));
                return;
            }
            for (String meaning : columns.keySet()) {
                if (known.stream().anyMatch(fact -> fact.name().equals(meaning))) {
                    cell(unit, member, meaning, text(row, meaning), line);
                }
            }
            position(unit, member, row, line);
        }

        /** Rack and unit of the rack in two columns give one position. */
        private void position(Line unit, String member, List<String> row, int line) {
            String rack = text(row, SheetColumns.RACK);
            String height = text(row, SheetColumns.RACK_UNIT);
            unit.facts.kind().facts().stream()
                    .filter(fact -> fact.type() == FactType.POSITION)
                    .filter(fact -> !rack.isEmpty() && !height.isEmpty())
                    .findFirst()
                    .ifPresent(fact ->
                            cell(unit, member, fact.name(), rack + " u" + height.replaceFirst("^[uU]", ""), line));
        }

        private void cell(Line unit, String member, String name, String value, int line) {
            FactSpec fact = unit.facts.kind().fact(name).orElse(null);
            if (value.isEmpty()) {
                return;
            }
            if (fact == null) {
                faults.add(new LabelFault(
                        line,
                        name,
                        value,
                        SheetText.NEVER_ASKED.text(unit.facts.kind().title())));
                return;
            }
            boolean ofUnit = fact.scope() == FactSpec.Scope.UNIT;
            if (!ofUnit && member.isEmpty() && unit.members().size() > 1) {
                faults.add(new LabelFault(
                        line, fact.title(), value, SheetText.WHICH_MEMBER.text(String.join(", ", unit.members()))));
                return;
            }
            try {
                cells.add(new Cell(line, unit.key, ofUnit ? "" : member, fact, fact.read(asPrinted(fact, value))));
            } catch (IllegalArgumentException e) {
                faults.add(new LabelFault(line, fact.title(), value, e.getMessage()));
            }
        }

        private static String asPrinted(FactSpec fact, String value) {
            return switch (fact.type()) {
                case SERIAL -> AsPrinted.text(value);
                case MAC -> AsPrinted.mac(value);
                default -> value;
            };
        }

        private String text(List<String> row, String meaning) {
            Integer index = columns.get(meaning);
            String value =
                    index == null || index >= row.size() ? "" : row.get(index).strip();
            return value.matches("'[=+\\-@].*") ? value.substring(1) : value;
        }
    }
}
