package lychnos.core.sheet;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.List;
import java.util.Map;
import lychnos.core.fact.Fact;
import lychnos.core.fact.Fact.Source;
import lychnos.core.kind.KindReader;
import lychnos.core.text.Texts;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class SheetCsvTest {

    private static final SheetCsv.Line PAIR = new SheetCsv.Line(
            "ard-fic-1",
            UnitFacts.resolve(
                    KindReader.shipped("interconnect-pair"),
                    2,
                    Map.of("left", Map.of("serial", new Fact("=FX-1", Source.TYPED))),
                    Map.of("licence-terms", "yes")));
    private static final SheetCsv.Line SERVER = new SheetCsv.Line(
            "ard-srv-001", UnitFacts.resolve(KindReader.shipped("server-controller"), 1, Map.of(), Map.of()));
    private static final List<SheetCsv.Line> LINES = List.of(PAIR, SERVER);

    @Test
    void writesNothingThatASpreadsheetWouldCompute() {
        String text = SheetCsv.write(LINES);
        assertTrue(text.startsWith("unit,member,serial,MAC address,"), text);
        assertTrue(text.contains("ard-fic-1,left,'=FX-1,"), text);
        assertEquals(4, text.lines().count());
    }

    @Test
    void readsBackWhatItWrote() {
        SheetCsv.Table table = SheetCsv.read(SheetCsv.write(LINES), LINES);
        assertEquals(List.of(), table.faults());
        assertTrue(table.cells().stream()
                .anyMatch(cell -> cell.member().equals("left") && cell.value().equals("=FX-1")));
    }

    @Test
    void readsColumnsPastedFromASpreadsheet() {
        SheetCsv.Table table = SheetCsv.read(
                "\ufeffunit\tmember\tserial\tconsole "
                        + "line\nARD-FIC-1\tleft\tFX-881\t6101\nard-fic-1\tright\t\"FX\"\"882\"\t6102\n",
                LINES);
        assertEquals(List.of(), table.faults());
        assertEquals(
                List.of("FX-881", "6101", "FX\"882", "6102"),
                table.cells().stream().map(SheetCsv.Cell::value).toList());
    }

    @Test
    void readsTheHeadingsOfALabelList() {
        SheetCsv.Table table = SheetCsv.read(
                "unit\tS/N\tOOB MAC\tRack position\nard-srv-001\tSRV-1\t02:4c:59:00:00:01\tR1 u4\n", LINES);
        assertEquals(List.of(), table.faults());
        assertEquals(
                List.of("serial", "mac", "location"),
                table.cells().stream().map(cell -> cell.fact().name()).toList());
    }

    /** Titles above the headings, other words, other order, rack and unit apart, and a column that means nothing. */
    @Test
    void readsATableAsSomebodyElseKeepsIt() {
        SheetCsv.Table table = SheetCsv.read(
                "Hall 2;;;;;\nas of Monday;;;;;\nOOB MAC address;Rack;U;Owner;Hostname;Serial no. (label)\n"
                        + "02-4C-59-00-00-01;R1;4;team a;ard-srv-001;SRV-1\n",
                LINES);
        assertEquals(
                Map.of("mac", "02:4c:59:00:00:01", "location", "R1 u4", "serial", "SRV-1"),
                table.cells().stream()
                        .collect(java.util.stream.Collectors.toMap(
                                cell -> cell.fact().name(), SheetCsv.Cell::value)));
        assertEquals(
                List.of("Owner"),
                table.faults().stream().map(fault -> fault.column()).toList());
        assertEquals(2, table.columns().headingLine());
    }

    @Test
    void theColumnOfUnitsIsKnownByWhatStandsInIt() {
        SheetCsv.Table table = SheetCsv.read("what;serial\nard-srv-001;SRV-1\n", LINES);
        assertEquals(List.of(), table.faults());
        assertEquals(1, table.cells().size());
    }

    @Test
    void whatAPersonChoosesIsRead() {
        String text = "a;b;c\nSRV-1;ard-srv-001;SRV-2\n";
        SheetCsv.Table table = SheetCsv.read(text, LINES, columns -> Map.of(1, "unit", 2, "serial"));
        assertEquals(List.of(), table.faults());
        assertEquals(
                List.of("SRV-2"),
                table.cells().stream().map(SheetCsv.Cell::value).toList());
    }

    @Test
    void whatASpreadsheetHasSpoiltIsRefused() {
        SheetCsv.Table table = SheetCsv.read("unit;serial;mac\nard-srv-001;1.23E+11;24590001\n", LINES);
        assertEquals(List.of(), table.cells());
        assertTrue(
                Texts.says(
                        "core.fact.FactText.NUMBER_OF_SPREADSHEET",
                        table.faults().get(0).reason()),
                table.faults()::toString);
        assertTrue(
                Texts.says("core.fact.FactText.MAC_ZEROS", table.faults().get(1).reason()), table.faults()::toString);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "unit;member;serial~ard-fic-9;left;X | 2 | core.sheet.SheetText.NO_SUCH_UNIT",
                "unit;member;serial~ard-fic-1;middle;X | 2 | core.sheet.SheetText.NO_SUCH_MEMBER",
                "unit;serial~ard-fic-1;X | 2 | core.sheet.SheetText.WHICH_MEMBER",
                "unit;member;MAC address~ard-fic-1;left;zz | 2 | core.fact.FactText.NOT_A_MAC",
                "unit;console line~ard-srv-001;6101 | 2 | core.sheet.SheetText.NEVER_ASKED",
                "unit;colour~ard-srv-001;red | 1 | core.sheet.SheetText.NO_SUCH_FACT",
                "colour;serial~a;b | 1 | core.sheet.SheetText.NO_UNIT_COLUMN",
                "unit;serial~ard-srv-001;\"X | 2 | core.fact.FactText.OPEN_QUOTE",
            })
    void saysWhatIsWrongWhere(String text, int line, String reason) {
        SheetCsv.Table table = SheetCsv.read(text.replace('~', '\n'), LINES);
        assertTrue(
                table.faults().stream().anyMatch(fault -> fault.line() == line && Texts.says(reason, fault.reason())),
                table.faults().toString());
    }

    @Test
    void knowsWhatIsMissingAndWhoAnswers() {
        List<String> missing = PAIR.facts().missing().stream()
                .map(each -> each.member() + "/" + each.fact().name())
                .toList();
        assertEquals(
                List.of("right/serial", "left/location", "right/location", "left/console", "right/console"), missing);
        assertEquals(
                Source.SITE,
                PAIR.facts().fact("", "licence-terms").orElseThrow().source());
        assertEquals(
                Source.KIND,
                PAIR.facts().fact("", "password-policy").orElseThrow().source());
        assertFalse(PAIR.facts().known());
    }

    @Test
    void namesEveryAddressOfAUnit() {
        Map<String, String> names = KindReader.shipped("backup-store").hostNames("ard-obj-1", 2, Map.of());
        assertEquals("ard-obj-1", names.get("cluster"));
        assertEquals("ard-obj-1-n2b", names.get("node 2 port 2"));
        assertEquals("ard-obj-1-n1-oob", names.get("node 1 controller"));
        assertEquals(
                "ard-blk-1-l2",
                KindReader.shipped("block-array")
                        .hostNames("ard-blk-1", 2, Map.of())
                        .get("lower 2"));
        assertEquals(
                Map.of("management", "ard-blk-1-mgmt"),
                KindReader.shipped("block-array").aliases("ard-blk-1", 2, Map.of()));
    }
}
