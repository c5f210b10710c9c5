package lychnos.core.proof;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestFactory;

/** What was found and what it comes to, as a table. */
class VerdictTableTest {

    private record Found(Trouble trouble, String seen) {

        static Found of(String cell) {
            int colon = cell.indexOf(':');
            return colon < 0
                    ? new Found(null, "")
                    : new Found(
                            Trouble.valueOf(cell.substring(0, colon)),
                            cell.substring(colon + 1).strip());
        }
    }

    private static List<String> rows() throws IOException {
        try (InputStream in = VerdictTableTest.class.getResourceAsStream("/verdicts/table.txt")) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8)
                    .lines()
                    .filter(line -> !line.startsWith("#") && !line.isBlank())
                    .toList();
        }
    }

    private static List<String> cells(String half) {
        return Arrays.stream(half.split("\\|", -1)).map(String::strip).toList();
    }

    private static List<Outcome> outcomes(String letters, Found found) {
        List<Outcome> outcomes = new ArrayList<>();
        for (Rung rung : Rung.values()) {
            outcomes.add(
                    switch (letters.charAt(rung.ordinal())) {
                        case 'h' -> Outcome.holds(rung, "seen");
                        case 'b' -> Outcome.broken(rung, found.trouble, found.seen);
                        case 'm' -> Outcome.notMeasured(rung, "not from here");
                        default -> Outcome.notReached(rung);
                    });
        }
        return outcomes;
    }

    private static List<Beside> beside(String letters, Found found) {
        List<Beside> beside = new ArrayList<>();
        for (SideMark mark : SideMark.values()) {
            beside.add(
                    switch (letters.charAt(mark.ordinal())) {
                        case 'h' -> Beside.holds(mark, "seen", List.of());
                        case 'b' -> Beside.broken(mark, found.trouble, found.seen, List.of());
                        default -> Beside.notMeasured(mark, "not from here");
                    });
        }
        return beside;
    }

    @Tag("wording")
    @TestFactory
    List<DynamicTest> everyRowComesToItsVerdict() throws IOException {
        return rows().stream()
                .map(row -> DynamicTest.dynamicTest(row, () -> holds(row)))
                .toList();
    }

    private static void holds(String row) {
        String[] halves = row.split("\\|\\|");
        List<String> given = cells(halves[0]);
        List<String> wanted = cells(halves[1]);
        Verdict verdict = Verdict.of(
                outcomes(given.get(0), Found.of(given.get(1))), beside(given.get(2), Found.of(given.get(3))));
        List<String> is = List.of(
                String.valueOf(verdict.height()),
                name(verdict.broken()),
                name(verdict.beside()),
                verdict.proven() ? "yes" : "no",
                verdict.ladder() ? "yes" : "no",
                verdict.sentence());
        assertEquals(wanted, is);
        assertEquals(
                verdict.proven(),
                verdict.press().isEmpty() && verdict.ladder(),
                "who is not proven is told what to do: " + verdict);
    }

    private static String name(Enum<?> value) {
        return value == null ? "" : value.name();
    }

    @Test
    void everyTroubleStandsInTheTable() throws IOException {
        Set<Trouble> told = rows().stream()
                .flatMap(row -> cells(row.split("\\|\\|")[0]).stream())
                .map(cell -> cell.contains(":") ? Found.of(cell).trouble : null)
                .filter(trouble -> trouble != null)
                .collect(Collectors.toCollection(() -> EnumSet.noneOf(Trouble.class)));
        assertEquals(EnumSet.allOf(Trouble.class), told);
        assertTrue(rows().size() >= 40);
    }
}
