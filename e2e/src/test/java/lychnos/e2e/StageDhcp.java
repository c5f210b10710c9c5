package lychnos.e2e;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;

/** The DHCP server of a stage. */
final class StageDhcp {

    private StageDhcp() {}

    /** Starts one that leases from a pool, and waits until it does. */
    static Process start(Path dhcp, String subnet, String pool) throws IOException {
        List<String> command = new ArrayList<>(List.of(Stage.env("HALL").split(" ")));
        command.addAll(List.of(
                Stage.ROOT.resolve("lab/services/dhcp.sh").toString(),
                dhcp.toString(),
                "10067",
                "127.0.0.2",
                subnet,
                pool,
                subnet.replaceFirst("0/24$", "1")));
        Process server = new ProcessBuilder(command)
                .redirectErrorStream(true)
                .redirectOutput(Files.createDirectories(dhcp).resolve("log").toFile())
                .start();
        Stage.until("the DHCP server is up", Duration.ofSeconds(20), () -> Stage.text(dhcp.resolve("log"))
                .contains("DHCP4_STARTED"));
        return server;
    }
}
