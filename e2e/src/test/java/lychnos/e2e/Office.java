package lychnos.e2e;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;

/**
 * A network for the server, away from the machines. Between the two stands a firewall: the server reaches nothing on
 * this side, and this side reaches the server's port alone. The database is reached through a Unix socket, which no
 * network is needed for.
 */
final class Office implements AutoCloseable {

    static final String SERVER = "10.40.25.2";
    static final int PORT = 8080;
    private static final String HERE = "10.40.25.1";

    private final OtherNetwork network = new OtherNetwork();
    private final List<Process> doors = new ArrayList<>();
    private final String inside = network.inside();
    private final Path directory;

    Office() throws IOException, InterruptedException {
        run(
                "ip",
                "link",
                "add",
                "lych-office",
                "type",
                "veth",
                "peer",
                "name",
                "lych-jump",
                "netns",
                String.valueOf(network.pid()));
        run("ip", "addr", "add", HERE + "/30", "dev", "lych-office");
        run("ip", "link", "set", "lych-office", "up");
        run(
                "sh",
                "-c",
                inside + " sh -c 'ip link set lo up; ip addr add " + SERVER
                        + "/30 dev lych-jump; ip link set lych-jump up; ip route add 10.40.0.0/13 via " + HERE + "'");
        // it would route; what keeps the server out is the firewall
        Files.writeString(Path.of("/proc/sys/net/ipv4/ip_forward"), "1");
        nft("add table inet wall");
        nft("add chain inet wall through { type filter hook forward priority 0 ; policy drop ; }");
        nft("add chain inet wall here { type filter hook input priority 0 ; policy accept ; }");
        closed(false);
        directory = Files.createTempDirectory(Path.of(System.getenv("LYCHNOS_E2E_RUN")), "office");
        String database = System.getenv("LYCHNOS_E2E_PG");
        doors.add(new ProcessBuilder(
                        "socat", "UNIX-LISTEN:" + directory.resolve("db") + ",fork", "TCP:127.0.0.1:" + database)
                .start());
        List<String> door = new ArrayList<>(List.of(inside.split(" ")));
        door.addAll(List.of(
                "socat",
                "TCP-LISTEN:" + database + ",bind=127.0.0.1,reuseaddr,fork",
                "UNIX-CONNECT:" + directory.resolve("db")));
        doors.add(new ProcessBuilder(door).start());
        Stage.until(
                "the door to the database is there",
                Duration.ofSeconds(10),
                () -> Files.exists(directory.resolve("db")));
    }

    private static void nft(String command) throws IOException, InterruptedException {
        String program = Path.of("..", ".tools", "debian", "usr", "sbin", "nft")
                .toAbsolutePath()
                .normalize()
                .toString();
        ProcessBuilder builder =
                new ProcessBuilder(Files.exists(Path.of(program)) ? program : "nft", command).redirectErrorStream(true);
        Path unpacked = Path.of("..", ".tools", "debian").toAbsolutePath().normalize();
        builder.environment()
                .put(
                        "LD_LIBRARY_PATH",
                        unpacked.resolve("usr/lib/x86_64-linux-gnu") + ":" + unpacked.resolve("lib/x86_64-linux-gnu")
                                + ":" + unpacked.resolve("usr/lib/aarch64-linux-gnu"));
        finish(builder.start());
    }

    private static void run(String... command) throws IOException, InterruptedException {
        finish(new ProcessBuilder(command).redirectErrorStream(true).start());
    }

    private static void finish(Process process) throws IOException, InterruptedException {
        String said = new String(process.getInputStream().readAllBytes(), java.nio.charset.StandardCharsets.UTF_8);
        if (!process.waitFor(20, TimeUnit.SECONDS) || process.exitValue() != 0) {
            throw new IOException(said);
        }
    }

    /** Cuts the way between the two networks, or lets through again what may pass. */
    void closed(boolean all) throws IOException, InterruptedException {
        nft("flush chain inet wall here");
        if (!all) {
            nft("add rule inet wall here iifname lych-office tcp sport " + PORT + " accept");
        }
        nft("add rule inet wall here iifname lych-office drop");
    }

    /** What a command begins with that is to run there. */
    String inside() {
        return inside;
    }

    @Override
    public void close() throws IOException, InterruptedException {
        doors.forEach(Process::destroy);
        run("ip", "link", "del", "lych-office");
        network.close();
        nft("delete table inet wall");
        Files.writeString(Path.of("/proc/sys/net/ipv4/ip_forward"), "0");
    }
}
