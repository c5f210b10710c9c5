package lychnos.e2e;

import java.io.IOException;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;

/** A network outside of the management networks, from which the machines can be reached as well. */
final class Annex implements AutoCloseable {

    static final String ADDRESS = "10.41.0.2";
    private static final String HERE = "10.41.0.1";
    private static final String NET = "10.41.0.0/30";
    private static final String LINK = "lych-annex";

    private final OtherNetwork network = new OtherNetwork();
    private final List<Process> doors = new ArrayList<>();
    private final String inside = network.inside();

    /** @param server reached from inside at the same address of loopback */
    Annex(String server) throws IOException, InterruptedException {
        // the name of its end says that nothing there leads out
        run("ip link add " + LINK + " type veth peer name lych-jump netns " + network.pid());
        run("ip addr add " + HERE + "/30 dev " + LINK);
        run("ip link set " + LINK + " up");
        run(inside + " ip link set lo up");
        run(inside + " ip addr add " + ADDRESS + "/30 dev lych-jump");
        run(inside + " ip link set lych-jump up");
        run(inside + " ip route add 10.40.0.0/16 via " + HERE);
        Files.writeString(Path.of("/proc/sys/net/ipv4/ip_forward"), "1");
        run(Stage.env("HALL") + " ip route add " + NET + " via 10.40.8.5 dev lych-hall");
        int port = URI.create(server).getPort();
        Path door = Files.createTempDirectory(Path.of(Stage.env("LYCHNOS_E2E_RUN")), "annex")
                .resolve("server");
        doors.add(start("socat UNIX-LISTEN:" + door + ",fork TCP:127.0.0.1:" + port));
        doors.add(start(inside + " socat TCP-LISTEN:" + port + ",bind=127.0.0.1,reuseaddr,fork UNIX-CONNECT:" + door));
        Stage.until("the door to the server is there", Duration.ofSeconds(10), () -> Files.exists(door));
    }

    private static Process start(String command) throws IOException {
        return new ProcessBuilder(command.split(" ")).redirectErrorStream(true).start();
    }

    private static void run(String command) throws IOException, InterruptedException {
        Process process = start(command);
        String said = new String(process.getInputStream().readAllBytes(), java.nio.charset.StandardCharsets.UTF_8);
        if (!process.waitFor(20, TimeUnit.SECONDS) || process.exitValue() != 0) {
            throw new IOException(command + ": " + said);
        }
    }

    /** What a command begins with that is to run there. */
    List<String> inside() {
        return List.of(inside.split(" "));
    }

    @Override
    public void close() throws IOException, InterruptedException {
        doors.forEach(Process::destroy);
        run("ip link del " + LINK);
        run(Stage.env("HALL") + " ip route del " + NET);
        network.close();
        Files.writeString(Path.of("/proc/sys/net/ipv4/ip_forward"), "0");
    }
}
