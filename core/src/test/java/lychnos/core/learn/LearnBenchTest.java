package lychnos.core.learn;

import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.ByteArrayOutputStream;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.Test;

/** Both rows can still be measured. */
class LearnBenchTest {

    @Test
    void bothRowsAreMeasured() {
        PrintStream out = System.out;
        ByteArrayOutputStream said = new ByteArrayOutputStream();
        System.setProperty("lychnos.bench.small", "true");
        System.setOut(new PrintStream(said, true, StandardCharsets.UTF_8));
        try {
            LearnBench.main(new String[0]);
        } finally {
            System.setOut(out);
            System.clearProperty("lychnos.bench.small");
        }
        String text = said.toString(StandardCharsets.UTF_8);
        assertTrue(text.contains("without a person 3,"), text);
        assertTrue(text.contains("×"), text);
    }
}
