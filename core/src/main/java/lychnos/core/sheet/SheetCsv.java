package lychnos.core.sheet;

import java.io.IOException;
import java.io.StringWriter;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import lychnos.core.fact.CsvText;
import lychnos.core.fact.Fact;
import lychnos.core.fact.FactSpec;
import lychnos.core.fact.FactType;
import lychnos.core.fact.LabelFault;
import lychnos.core.fact.LabelList;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.apache.commons.csv.CSVRecord;

/** The fact sheet as a table of values: one line a member, or a unit that has one member; one column a fact. */
public final class SheetCsv {

    private static final String UNIT = "unit";
    private static final String MEMBER = "member";

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
    public record Table(List<Cell> cells, List<LabelFault> faults) {}

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
     * Reads a table that has the columns unit and member (where units have several) and any facts by their titles.
     * Empty cells say nothing. A wrong cell is told and never hides a right one.
     */
    public static Table read(String text, List<Line> lines) {
        Reader reader = new Reader(lines);
        List<LabelFault> faults = CsvText.read(text, reader::take);
        reader.faults.addAll(faults);
        return new Table(List.copyOf(reader.cells), List.copyOf(reader.faults));
    }

    private static final class Reader {

        private final Map<String, Line> byKey = new HashMap<>();
        private final List<Cell> cells = new ArrayList<>();
        private final List<LabelFault> faults = new ArrayList<>();
        private Map<Integer, String> columns;
        private int unitColumn = -1;
        private int memberColumn = -1;
        private final List<FactSpec> known;

        Reader(List<Line> lines) {
            lines.forEach(line -> byKey.put(line.key.toLowerCase(Locale.ROOT), line));
            known = columns(lines);
        }

        void take(CSVRecord row, int line) {
            if (columns == null) {
                heading(row, line);
            } else if (unitColumn >= 0) {
                cells(row, line);
            }
        }

        private void heading(CSVRecord row, int line) {
            columns = new HashMap<>();
            LinkedHashSet<String> strange = new LinkedHashSet<>();
            for (int i = 0; i < row.size(); i++) {
                String title = row.get(i).strip().toLowerCase(Locale.ROOT);
                if (title.equals(UNIT)) {
                    unitColumn = i;
                } else if (title.equals(MEMBER)) {
                    memberColumn = i;
                } else {
                    Optional<FactSpec> fact = named(title)
                            .or(() -> LabelList.Column.named(title).flatMap(column -> named(column.fact())));
                    if (fact.isPresent()) {
                        columns.put(i, fact.get().name());
                    } else if (!title.isEmpty()) {
                        strange.add(row.get(i).strip());
                    }
                }
            }
            if (unitColumn < 0) {
                faults.add(new LabelFault(
                        line,
                        "",
                        "",
                        "The first line must name the columns, and one of them must be “unit”. The rest was "
                                + "not read."));
            }
            strange.forEach(title -> faults.add(
                    new LabelFault(line, title, "", "No unit here has a fact of this name; the column was left out.")));
        }

        private Optional<FactSpec> named(String title) {
            return known.stream()
                    .filter(each -> each.title().toLowerCase(Locale.ROOT).equals(title)
                            || each.name().equals(title))
                    .findFirst();
        }

        private void cells(CSVRecord row, int line) {
            String key = text(row, unitColumn);
            Line unit = byKey.get(key.toLowerCase(Locale.ROOT));
            if (unit == null) {
                faults.add(new LabelFault(
                        line,
                        UNIT,
                        key,
                        key.isEmpty() ? "The unit is missing." : "There is no such unit in this bring-up."));
                return;
            }
            String member = memberColumn < 0 ? "" : text(row, memberColumn);
            List<String> members = unit.members();
            if (!members.contains(member) && !(member.isEmpty() && members.size() > 1)) {
                faults.add(new LabelFault(
                        line,
                        MEMBER,
                        member,
                        unit.key + " has no such member; it has " + String.join(", ", members) + "."));
                return;
            }
            columns.forEach((index, name) -> cell(unit, member, name, text(row, index), line));
        }

        private void cell(Line unit, String member, String name, String value, int line) {
            FactSpec fact = unit.facts.kind().fact(name).orElse(null);
            if (value.isEmpty()) {
                return;
            }
            if (fact == null) {
                faults.add(new LabelFault(line, name, value, unit.facts.kind().title() + " never asks for this."));
                return;
            }
            boolean ofUnit = fact.scope() == FactSpec.Scope.UNIT;
            if (!ofUnit && member.isEmpty() && unit.members().size() > 1) {
                faults.add(new LabelFault(
                        line,
                        fact.title(),
                        value,
                        "Say in the column “member” whose this is: " + String.join(", ", unit.members()) + "."));
                return;
            }
            try {
                cells.add(new Cell(line, unit.key, ofUnit ? "" : member, fact, fact.read(value)));
            } catch (IllegalArgumentException e) {
                faults.add(new LabelFault(line, fact.title(), value, e.getMessage()));
            }
        }

        private static String text(CSVRecord row, int index) {
            String value =
                    index < 0 || index >= row.size() ? "" : row.get(index).strip();
            return value.matches("'[=+\\-@].*") ? value.substring(1) : value;
        }
    }
}
