package lychnos.e2e;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.concurrent.TimeUnit;

/** A database of a test's own, on a disk of its own, that can be stopped and whose disk can be filled. */
final class OwnDatabase implements AutoCloseable {

    private static final Path ROOT = Path.of("..").toAbsolutePath().normalize();
    private static final long LONGEST_SECONDS = 90;

    private final Path disk;
    private final int port;

    /** @param megabytes what its disk holds */
    OwnDatabase(String name, int megabytes) throws IOException, InterruptedException {
        // where the database's own user may look into
        disk = Files.createDirectories(Path.of(System.getenv("LYCHNOS_E2E_RUN"), "disk-" + name));
        port = Stage.freePort();
        bash("mount -t tmpfs -o size=" + megabytes + "m,mode=755 lychnos-" + name + " " + disk);
        start();
        bash("pg_createdb " + port + " lychnos");
    }

    /** The settings of a server on it. */
    Map<String, String> settings() {
        return Map.of("QUARKUS_DATASOURCE_JDBC_URL", "jdbc:postgresql://127.0.0.1:" + port + "/lychnos");
    }

    /** Returns once it answers. */
    void start() throws IOException, InterruptedException {
        bash("pg_start " + disk + "/pg " + port + " fast");
    }

    /** As somebody who administers it does: sessions are ended, nothing is lost. Returns once it is gone. */
    void stop() throws IOException, InterruptedException {
        bash("pid=$(head -n1 " + disk + "/pg/postmaster.pid); kill -INT $pid; wait_for 'the end of the database' 30 "
                + disk + "/pg.log eval '! kill -0 '$pid' 2>/dev/null'");
    }

    /** Leaves nothing free on its disk. */
    void fill() throws IOException, InterruptedException {
        bash("dd if=/dev/zero of=" + disk + "/ballast bs=64k 2>/dev/null || true");
    }

    void makeRoom() throws IOException, InterruptedException {
        bash("rm " + disk + "/ballast");
    }

    private void bash(String script) throws IOException, InterruptedException {
        Path log = Files.createTempFile("own-database", ".log");
        ProcessBuilder builder = new ProcessBuilder(
                        "bash", "-c", "set -euo pipefail; . \"$ROOT/bin/common.sh\"; " + script)
                .redirectErrorStream(true)
                .redirectOutput(log.toFile());
        builder.environment().put("ROOT", ROOT.toString());
        Process process = builder.start();
        if (!process.waitFor(LONGEST_SECONDS, TimeUnit.SECONDS) || process.exitValue() != 0) {
            process.destroyForcibly();
            throw new IOException(script + ": " + Files.readString(log));
        }
        Files.delete(log);
    }

    @Override
    public void close() {
        try {
            bash("pid=$(head -n1 " + disk
                    + "/pg/postmaster.pid 2>/dev/null || true); [ -z \"$pid\" ] || { kill -QUIT $pid; wait_for 'the "
                    + "end of the database' 30 /dev/null eval '! kill -0 '$pid' 2>/dev/null'; }; umount "
                    + disk);
        } catch (IOException e) {
            throw new AssertionError(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
