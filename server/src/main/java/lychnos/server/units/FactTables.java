package lychnos.server.units;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import lychnos.core.fact.Fact;
import lychnos.core.fact.FactSpec;
import lychnos.core.fact.FactType;
import lychnos.core.fact.LabelFault;
import lychnos.core.sheet.SheetColumns;
import lychnos.core.sheet.SheetCsv;
import lychnos.core.sheet.UnitFacts;
import lychnos.server.identity.caller.Who;
import lychnos.server.site.BringUp;
import lychnos.server.text.PrepareText;
import org.jspecify.annotations.Nullable;

/** Facts as a table: read from other people's files, and written. */
@ApplicationScoped
public class FactTables {

    private final BringUps bringUps;
    private final Facts facts;
    private final FactChanges factChanges;
    private final ColumnMappings mappings;

    FactTables(BringUps bringUps, Facts facts, FactChanges factChanges, ColumnMappings mappings) {
        this.bringUps = bringUps;
        this.facts = facts;
        this.factChanges = factChanges;
        this.mappings = mappings;
    }

    /**
     * Reads a table into the sheet, or only says what it would do.
     *
     * @param columns what a person says of the columns, {@code 0:unit,1:serial}; empty for what is proposed, or was
     * chosen for a table with the same headings before
     */
    @Transactional
    public FactTableReport readTable(long bringUpId, String text, boolean preview, String columns, Who.Person person) {
        BringUp bringUp = bringUps.get(bringUpId);
        Map<Unit, UnitFacts> all = facts.of(bringUp);
        Map<String, Unit> byKey = new HashMap<>();
        all.keySet().forEach(unit -> byKey.put(unit.label(), unit));
        List<SheetCsv.Line> lines = lines(all);
        List<ColumnMeaning> meanings = meanings(lines);
        Map<Integer, String> chosen = ColumnMappings.parse(
                columns, meanings.stream().map(ColumnMeaning::word).toList());
        SheetCsv.Table table = SheetCsv.read(
                text,
                lines,
                proposed -> chosen.isEmpty()
                        ? mappings.of(ColumnMappings.Sort.FACTS, proposed.headingLine(), proposed.headings())
                        : chosen);
        SheetColumns read = table.columns();
        List<ColumnMappings.ColumnView> views = ColumnMappings.views(read.headings(), read.samples(), read.meaning());
        List<LabelFault> faults = new ArrayList<>(table.faults());
        if (preview || table.cells().isEmpty()) {
            return new FactTableReport(null, table.cells().size(), faults, views, meanings);
        }
        if (!chosen.isEmpty()) {
            mappings.remember(ColumnMappings.Sort.FACTS, read.headingLine(), read.headings(), read.meaning(), person);
        }
        List<FactChanges.FactCell> cells = table.cells().stream()
                .map(cell -> new FactChanges.FactCell(
                        byKey.get(cell.key()).id, cell.member(), cell.fact().name(), cell.value()))
                .toList();
        FactChanges.FactsReport report = factChanges.set(bringUpId, cells, Fact.Source.IMPORTED, person);
        report.faults().forEach(fault -> faults.add(new LabelFault(0, fault.name(), fault.value(), fault.reason())));
        return new FactTableReport(report.changeId(), report.changed(), faults, views, meanings);
    }

    /** What a column may hold: its word, and how people call it. */
    public record ColumnMeaning(String word, String title) {}

    /**
     * What became of a table.
     *
     * @param columns what was read from which column
     * @param meanings what a column may hold
     */
    public record FactTableReport(
            @Nullable Long changeId,
            int cells,
            List<LabelFault> faults,
            List<ColumnMappings.ColumnView> columns,
            List<ColumnMeaning> meanings) {}

    private static List<ColumnMeaning> meanings(List<SheetCsv.Line> lines) {
        List<FactSpec> asked = SheetCsv.columns(lines);
        boolean placed = asked.stream().anyMatch(fact -> fact.type() == FactType.POSITION);
        List<ColumnMeaning> all = new ArrayList<>(List.of(
                new ColumnMeaning(SheetColumns.UNIT, "unit"), new ColumnMeaning(SheetColumns.MEMBER, "member")));
        asked.forEach(fact -> all.add(new ColumnMeaning(fact.name(), fact.title())));
        if (placed) {
            all.add(new ColumnMeaning(SheetColumns.RACK, PrepareText.RACK_ALONE.text()));
            all.add(new ColumnMeaning(SheetColumns.RACK_UNIT, PrepareText.RACK_UNIT_ALONE.text()));
        }
        return all;
    }

    private static List<SheetCsv.Line> lines(Map<Unit, UnitFacts> all) {
        return all.entrySet().stream()
                .map(entry -> new SheetCsv.Line(entry.getKey().label(), entry.getValue()))
                .toList();
    }

    @Transactional
    public String table(long bringUpId) {
        return SheetCsv.write(lines(facts.of(bringUps.get(bringUpId))));
    }
}
