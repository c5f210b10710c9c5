package lychnos.wire.console;

import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;

/** A program of somebody else's that a test talks to. What it prints can be waited for. */
public final class Peer implements AutoCloseable {

    private final Process process;
    private final BlockingQueue<String> lines = new LinkedBlockingQueue<>();

    private Peer(Process process) {
        this.process = process;
        Thread reader = new Thread(this::read, "peer output");
        reader.setDaemon(true);
        reader.start();
    }

    public static Peer start(List<String> command) throws IOException {
        ProcessBuilder program = new ProcessBuilder(command).redirectErrorStream(true);
        // what was unpacked and not installed finds its libraries beside itself
        Path unpacked = Path.of("..", ".tools", "debian").toAbsolutePath().normalize();
        String libraries = Stream.of(
                        "usr/lib/x86_64-linux-gnu",
                        "lib/x86_64-linux-gnu",
                        "usr/lib/aarch64-linux-gnu",
                        "lib/aarch64-linux-gnu",
                        "usr/lib/ganesha")
                .map(folder -> unpacked.resolve(folder).toString())
                .collect(java.util.stream.Collectors.joining(":"));
        program.environment().put("LD_LIBRARY_PATH", libraries);
        return new Peer(program.start());
    }

    private void read() {
        try (BufferedReader output =
                new BufferedReader(new InputStreamReader(process.getInputStream(), StandardCharsets.UTF_8))) {
            for (String line = output.readLine(); line != null; line = output.readLine()) {
                lines.add(line);
            }
        } catch (IOException e) {
            lines.add("output ended: " + e.getMessage());
        }
    }

    /** Waits for a line that contains this. */
    public String await(String part) throws InterruptedException {
        List<String> lines = until(part);
        return lines.get(lines.size() - 1);
    }

    /** Waits for a line that contains this, and gives everything up to it. */
    public List<String> until(String part) throws InterruptedException {
        List<String> seen = new ArrayList<>();
        while (true) {
            String line = lines.poll(20, TimeUnit.SECONDS);
            if (line == null) {
                throw new AssertionError("“" + part + "” was not printed; printed was " + seen);
            }
            seen.add(line);
            if (line.contains(part)) {
                return seen;
            }
        }
    }

    /** A program that the tests' own set-up brings; without it the test has no peer. */
    public static String program(String name) {
        return Stream.of((System.getenv("PATH") + ":/usr/sbin").split(":"))
                .map(folder -> Path.of(folder, name))
                .filter(Files::isExecutable)
                .findFirst()
                .map(Path::toString)
                .orElseGet(() -> {
                    assumeTrue(false, name + " is not here; ./lychnos test brings it");
                    return "";
                });
    }

    public static int freePort() throws IOException {
        try (java.net.ServerSocket socket =
                new java.net.ServerSocket(0, 1, java.net.InetAddress.getByName("127.0.0.1"))) {
            return socket.getLocalPort();
        }
    }

    @Override
    public void close() {
        process.descendants().forEach(ProcessHandle::destroyForcibly);
        process.destroyForcibly();
    }
}
