package lychnos.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.ByteArrayOutputStream;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/** Every row of {@code ./lychnos bench} can still be measured; what is measured in so small a size means nothing. */
class BenchesTest {

    @BeforeAll
    static void small() {
        System.setProperty("lychnos.bench.small", "true");
    }

    @AfterAll
    static void whole() {
        System.clearProperty("lychnos.bench.small");
    }

    private interface Main {
        void run(String[] args) throws Exception;
    }

    private static String said(Main bench) throws Exception {
        PrintStream out = System.out;
        ByteArrayOutputStream said = new ByteArrayOutputStream();
        System.setOut(new PrintStream(said, true, StandardCharsets.UTF_8));
        try {
            bench.run(new String[0]);
        } finally {
            System.setOut(out);
        }
        String text = said.toString(StandardCharsets.UTF_8);
        assertTrue(!text.contains("NaN") && !text.contains("Infinity"), text);
        return text;
    }

    private static void says(String text, String... rows) {
        for (String row : rows) {
            assertTrue(text.contains(row), () -> row + " is missing in:\n" + text);
        }
    }

    @Test
    void aLargeHall() throws Exception {
        says(
                said(HallBench::main),
                "190 addresses taken",
                "screens of 280 units",
                "Board",
                "fact sheet",
                "hand over",
                "MB resident");
    }

    @Test
    void keepingWhatChecksFind() throws Exception {
        says(
                said(KeepingBench::main),
                "40 silent endpoints judged and kept for the first time",
                "again, with nothing new");
    }

    @Test
    void consoleLines() throws Exception {
        String text = said(LinesBench::main);
        says(text, "a byte from the line to the browser");
        assertEquals(
                1,
                text.lines()
                        .filter(line -> line.contains("4 dialogues at once"))
                        .count(),
                text);
    }

    @Test
    void engineersAtOnce() throws Exception {
        says(said(LoadBench::main), "2 engineers on 40 units", "all reads", "refused or failed: 0");
    }
}
