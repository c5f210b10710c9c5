package lychnos.wire.bench;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.ByteArrayOutputStream;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Every row of these benches can still be measured; what is measured in so small a size means nothing. */
class BenchTest {

    @BeforeAll
    static void small() {
        System.setProperty("lychnos.bench.small", "true");
    }

    @AfterAll
    static void whole() {
        System.clearProperty("lychnos.bench.small");
    }

    @ParameterizedTest
    @CsvSource({"placing, 3", "pings, 2", "proving, 7"})
    void everyRowIsMeasured(String what, int rows) throws Exception {
        PrintStream out = System.out;
        ByteArrayOutputStream said = new ByteArrayOutputStream();
        System.setOut(new PrintStream(said, true, StandardCharsets.UTF_8));
        try {
            Bench.main(new String[] {what});
        } finally {
            System.setOut(out);
        }
        String text = said.toString(StandardCharsets.UTF_8);
        assertEquals(
                rows,
                text.lines().filter(line -> line.matches(".* ms .* ms .*×")).count(),
                text);
        assertTrue(!text.contains("NaN") && !text.contains("Infinity"), text);
    }
}
