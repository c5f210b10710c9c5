package lychnos.server;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.TimeUnit;
import lychnos.lab.Dhcp;

/** A real DHCP server on loopback, with its lease file. */
final class DhcpServer implements AutoCloseable {

    private static final int PORT = 10067;
    private static final String RELAY = "127.0.0.2";

    private final Process process;

    /** @param directory where its leases are, in {@code leases.csv}; what was there is forgotten */
    DhcpServer(Path directory, String pool) throws IOException {
        Files.createDirectories(directory);
        Files.deleteIfExists(directory.resolve("leases.csv"));
        process = new ProcessBuilder(
                        "../lab/services/dhcp.sh",
                        directory.toString(),
                        String.valueOf(PORT),
                        RELAY,
                        "127.40.8.0/24",
                        pool,
                        "127.40.8.1")
                .redirectErrorStream(true)
                .redirectOutput(directory.resolve("log").toFile())
                .start();
        ConsoleStage.until("the DHCP server is up", () -> {
            if (!process.isAlive()) {
                throw new IllegalStateException("the DHCP server has ended: " + text(directory.resolve("log")));
            }
            return text(directory.resolve("log")).contains("DHCP4_STARTED");
        });
    }

    private static String text(Path file) {
        try {
            return Files.readString(file);
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
    }

    /** The way of machines to it. */
    Dhcp way() {
        return Dhcp.at("127.0.0.1:" + PORT + "/" + RELAY + ":" + (PORT + 1));
    }

    @Override
    public void close() {
        process.destroy();
        try {
            process.waitFor(10, TimeUnit.SECONDS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
