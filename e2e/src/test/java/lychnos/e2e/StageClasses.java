package lychnos.e2e;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.TimeUnit;

/**
 * The classes that a server has loaded, kept for the servers after it: these start with less than three quarters of the
 * processor time. The first server that is ended, not killed, writes them.
 */
final class StageClasses {

    private static final Path KEPT = Path.of(Stage.env("LYCHNOS_E2E_RUN"), "server.jsa");
    private static final Path WRITTEN = KEPT.resolveSibling("server.jsa.part");

    private StageClasses() {}

    /** The option for a server that is started with these; none where its speed is measured. */
    static Optional<String> of(List<String> options) {
        if (!options.contains("-XX:TieredStopAtLevel=1")) {
            return Optional.empty();
        }
        return Optional.of(
                Files.exists(KEPT) ? "-XX:SharedArchiveFile=" + KEPT : "-XX:ArchiveClassesAtExit=" + WRITTEN);
    }

    /** Waits for a server that is ending where it is the one that writes them. */
    static void written(Process server) {
        if (Files.exists(KEPT)) {
            return;
        }
        try {
            server.waitFor(30, TimeUnit.SECONDS);
            if (Files.exists(WRITTEN)) {
                Files.move(WRITTEN, KEPT);
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
