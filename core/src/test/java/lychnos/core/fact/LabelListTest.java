package lychnos.core.fact;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import lychnos.core.text.Texts;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

class LabelListTest {

    private static List<String> faults(LabelList list) {
        return list.faults().stream()
                .map(fault -> fault.line() + " " + fault.column())
                .toList();
    }

    @Test
    void readsCsvWithAHeadingInAnyOrder() {
        LabelList list = LabelList.parse("model,Rack,Serial Number,MAC address\r\nC4,R1 "
                + "u5,BF-1,02:4c:59:a1:00:01\r\nC4,R1-U07,BF-2,024c.59a1.0002\r\n");
        assertEquals(List.of(), list.faults());
        assertEquals(
                List.of("BF-1", "BF-2"),
                list.labels().stream().map(Label::serial).toList());
        assertEquals("R1 u7", list.labels().get(1).position().toString());
    }

    @Test
    void readsColumnsPastedFromASpreadsheet() {
        LabelList list = LabelList.parse("BF-1\t02-4C-59-A1-00-01\tR1 u5\tC4\nBF-2\t02-4C-59-A1-00-02\tR1 u7\tC4");
        assertEquals(List.of(), list.faults());
        assertEquals(2, list.labels().size());
    }

    @Test
    void readsSemicolonsByteOrderMarkAndQuotedNewlines() {
        LabelList list = LabelList.parse("\ufeffserial;mac;rack position;model\n\"BF-1\";024C59A10001;R1 u5;\"C4;\nrev "
                + "2\"\nBF-2;024C59A10002;R1 u7;C4\n");
        assertEquals(List.of(), list.faults());
        assertEquals("C4;\nrev 2", list.labels().get(0).model());
        assertEquals(4, list.labels().get(1).line(), "a quoted newline counts as a line");
    }

    @Test
    void setsWrongLinesAsideAndKeepsTheRightOnes() {
        LabelList list = LabelList.parse(
                """
                serial,mac,rack position,model
                BF-1,02:4c:59:a1:00:01,R1 u5,C4
                ,02:4c:59:a1:00:02,R1 u7,C4
                BF-3,02:4c:59:a1:00:0z,R1,C4

                BF-1,02:4c:59:a1:00:01,R1 u5,C4
                BF-4,02:4c:59:a1:00:04,R1 u9,C4
                """);
        assertEquals(
                List.of("BF-1", "BF-4"),
                list.labels().stream().map(Label::serial).toList());
        assertEquals(
                List.of("3 serial", "4 mac", "4 rack position", "6 serial", "6 mac", "6 rack position"), faults(list));
        assertEquals(
                FactText.CELL_TWICE.text("2", "serial"), list.faults().get(3).reason());
    }

    @Test
    void namesTheColumnsThatTheHeadingLacks() {
        LabelList list = LabelList.parse("serial,model\nBF-1,C4\n");
        assertTrue(list.faults().get(0).reason().contains("mac, rack position"));
        assertEquals(List.of(), list.labels());
    }

    @Test
    void keepsWhatStandsBeforeAnOpenQuotationMark() {
        LabelList list = LabelList.parse(
                "serial,mac,rack position,model\nBF-1,02:4c:59:a1:00:01,R1 u5,C4\nBF-2,\"02:4c:59:a1:00:02,R1 "
                        + "u7,C4\nBF-3,02:4c:59:a1:00:03,R1 u9,C4\n");
        assertEquals(List.of("BF-1"), list.labels().stream().map(Label::serial).toList());
        assertEquals(1, list.faults().size());
        assertEquals(3, list.faults().get(0).line());
    }

    @Test
    void refusesWhatIsNoText() {
        for (String text :
                new String[] {"", "  \n ", "PK\u0003\u0004\0\0", "a\ufffdb", "x".repeat(CsvText.MAX_LENGTH + 1)}) {
            LabelList list = LabelList.parse(text);
            assertEquals(1, list.faults().size());
            assertEquals(List.of(), list.labels());
        }
    }

    @Test
    void stopsAtTheMostLines() {
        String body =
                IntStream.range(0, CsvText.MAX_LINES + 5).mapToObj(i -> "x").collect(Collectors.joining("\n"));
        LabelList list = LabelList.parse(body);
        assertTrue(Texts.says(
                FactText.LIST_TOO_MANY_LINES,
                list.faults().get(list.faults().size() - 1).reason()));
    }

    @Property(tries = 300)
    void neverThrowsForWhatPeopleType(@ForAll String text) {
        LabelList.parse(text);
        LabelList.parse("serial,mac,rack position\n" + text);
    }

    private static List<String> read(LabelList list) {
        assertEquals(List.of(), list.faults());
        return list.labels().stream()
                .map(label -> label.serial() + " " + label.mac() + " " + label.position())
                .toList();
    }

    @Test
    void readsAListAsAMakerShipsIt() {
        LabelList list = LabelList.parse(
                """
                Delivery 4 for Ardal, hall 2
                as of week 48

                Pos;NIC 1 MAC;Product Type;Serial Number (S/N);BMC MAC;Rack;U position;Default Password
                1;02:4c:59:ff:00:01;C4;BF-1;024C59A10001;R1;5;tag-1
                2;02:4c:59:ff:00:02;C4;BF-2;02-4C-59-A1-00-02;R1;U07;tag-2
                """);
        assertEquals(List.of("BF-1 02:4c:59:a1:00:01 R1 u5", "BF-2 02:4c:59:a1:00:02 R1 u7"), read(list));
        assertEquals(
                "tag-1", list.labels().get(0).factoryPassword().orElseThrow().use(text -> text));
        assertEquals("C4", list.labels().get(0).model());
        assertEquals(LabelList.Column.MAC, list.columns().meaning().get(4), "not the one of the first NIC");
        assertEquals(3, list.columns().headings().indexOf("Serial Number (S/N)"));
    }

    @Test
    void findsColumnsWithoutAHeadingByWhatStandsInThem() {
        assertEquals(
                List.of("BF-1 02:4c:59:a1:00:01 R1 u5", "BF-2 02:4c:59:a1:00:02 R1 u7"),
                read(LabelList.parse("R1 u5\tBF-1\t024c.59a1.0001\nR1 u7\tBF-2\t024c.59a1.0002\n")));
    }

    @Test
    void aSerialThatReadsLikeARackPositionIsNone() {
        assertEquals(List.of("PC-1 02:4c:59:a1:00:01 R1 u5"), read(LabelList.parse("PC-1\t024c59a10001\tR1 u5\tC4\n")));
        assertEquals(List.of("PC-1 02:4c:59:a1:00:01 R1 u5"), read(LabelList.parse("PC-1\t024c59a10001\tR1/5\n")));
    }

    @Test
    void readsWhatAPersonChose() {
        String text = "Asset,Machine,LAN,Place\nA-1,BF-1,024c59a10001,R1 u5\n";
        assertEquals("A-1", LabelList.parse(text).labels().get(0).serial(), "no heading tells which one it is");
        LabelList list = LabelList.parse(
                text,
                java.util.Map.of(1, LabelList.Column.SERIAL, 2, LabelList.Column.MAC, 3, LabelList.Column.POSITION));
        assertEquals(List.of("BF-1 02:4c:59:a1:00:01 R1 u5"), list.faults().isEmpty() ? read(list) : List.of());
    }

    @Test
    void refusesWhatASpreadsheetHasChanged() {
        LabelList list = LabelList.parse(
                """
                serial,mac,rack position
                1.23457E+11,02:4c:59:a1:00:01,R1 u1
                3-Jan,02:4c:59:a1:00:02,R1 u2
                2026-01-03 00:00:00,02:4c:59:a1:00:03,R1 u3
                BF-4,24059100001,R1 u4
                BF-5,"2,4059E+11",R1 u5
                12E5,02:4c:59:a1:00:06,R1 u6
                """);
        assertEquals(List.of("12E5"), list.labels().stream().map(Label::serial).toList());
        assertEquals(List.of("2 serial", "3 serial", "4 serial", "5 mac", "6 mac"), faults(list));
        assertTrue(
                Texts.says(FactText.NUMBER_OF_SPREADSHEET, list.faults().get(0).reason()));
        assertTrue(Texts.says(FactText.DATE_OF_SPREADSHEET, list.faults().get(1).reason()));
        assertTrue(Texts.says(FactText.MAC_ZEROS, list.faults().get(3).reason()));
    }
}
