package lychnos.e2e;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.concurrent.TimeUnit;

/** Statements for the databases of stages, run by the program that PostgreSQL brings for it. */
final class StageDatabase {

    private StageDatabase() {}

    /** What a database answers. */
    static String sql(String database, String statements) throws IOException {
        Process process = new ProcessBuilder(
                        Stage.env("PSQL"),
                        "-q",
                        "-v",
                        "ON_ERROR_STOP=1",
                        "-h",
                        "127.0.0.1",
                        "-p",
                        Stage.env("LYCHNOS_E2E_PG"),
                        "-U",
                        "lychnos",
                        "-d",
                        database)
                .redirectErrorStream(true)
                .start();
        try (OutputStream in = process.getOutputStream()) {
            in.write(statements.getBytes(StandardCharsets.UTF_8));
        }
        String output = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        try {
            if (!process.waitFor(60, TimeUnit.SECONDS) || process.exitValue() != 0) {
                throw new IOException(statements + ": " + output);
            }
        } catch (InterruptedException e) {
            throw new IOException(e);
        }
        return output;
    }
}
