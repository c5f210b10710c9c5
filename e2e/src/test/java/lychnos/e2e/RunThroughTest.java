package lychnos.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * A whole hall of every kind there is a stand-in for, from its labels to a signed pack, by the command that people
 * have.
 */
class RunThroughTest {

    /** Above the command's own limit, which says what it waited for. */
    private static final long LONGEST_MINUTES = 13;

    @TempDir
    Path directory;

    private record Ended(int exit, String said) {}

    private Ended demo(String... more) throws IOException, InterruptedException {
        List<String> command = new ArrayList<>(List.of(
                Path.of("..").toAbsolutePath().normalize().resolve("lychnos").toString(), "demo"));
        command.addAll(List.of(more));
        Path log = directory.resolve("said");
        ProcessBuilder builder = new ProcessBuilder(command)
                .directory(directory.toFile())
                .redirectErrorStream(true)
                .redirectOutput(log.toFile());
        builder.environment()
                .putAll(Map.of(
                        "LYCHNOS_DATA", directory.resolve("data").toString(), "LYCHNOS_DEMO_RESTART_MILLIS", "2500"));
        Process demo = builder.start();
        try {
            assertTrue(demo.waitFor(LONGEST_MINUTES, TimeUnit.MINUTES), () -> text(log));
        } finally {
            demo.destroy();
        }
        return new Ended(demo.exitValue(), text(log));
    }

    private static String text(Path file) {
        try {
            return Files.readString(file);
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    @Test
    void aWholeHallIsTakenFromItsLabelsToASignedPack() throws Exception {
        Path pack = directory.resolve("pack.zip");
        Ended ended = demo("--run-through", "--say-yes", "--pack", pack.toString());
        assertEquals(0, ended.exit, ended.said);
        assertTrue(ended.said.contains("34 records signed, 81 endpoints"), ended.said);
        assertTrue(ended.said.contains("holds: 45 files, 34 records"), ended.said);
        assertTrue(ended.said.contains("said yes to destroys: 1"), "a used interconnect is wiped: " + ended.said);
        assertTrue(Files.size(pack) > 100_000);
        assertFalse(Files.exists(directory.resolve("data/demo.pid")), "nothing is left of it");
    }

    @Test
    void nobodyIsAgreedForWhereThatWasNotAskedFor() throws Exception {
        Ended ended = demo("--run-through");
        assertEquals(3, ended.exit, ended.said);
        assertTrue(ended.said.contains("it wants a yes ("), ended.said);
        assertFalse(Files.exists(directory.resolve("ardal-hall-2-pack.zip")), "nothing is signed");
    }
}
