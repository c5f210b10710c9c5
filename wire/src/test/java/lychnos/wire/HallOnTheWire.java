package lychnos.wire;

import static org.junit.jupiter.api.Assertions.assertEquals;

import io.vertx.core.Vertx;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import lychnos.core.address.Prefix;
import lychnos.wire.dial.Dialler;
import lychnos.wire.vantage.LocalVantage;

/** A hall in the lab's own namespace, with machines on a segment that this side is on as well. */
public final class HallOnTheWire implements AutoCloseable {

    private final Process hall;
    private final Vertx vertx = Vertx.vertx();
    /** Where this side looks from. */
    public final LocalVantage jump;

    /**
     * Starts one and waits until it is there.
     *
     * @param machines a line for each, as {@code lychnos.lab.hall.Hall} reads it
     * @param more networks that may be reached besides 10.40.8.0/24 and its IPv6 twin
     */
    public HallOnTheWire(Path directory, String machines, Prefix... more) throws IOException {
        Path list = Files.writeString(directory.resolve("hall.txt"), machines);
        Path log = directory.resolve("hall.log");
        hall = new ProcessBuilder(beyond(
                        "java",
                        "-cp",
                        System.getProperty("java.class.path"),
                        "lychnos.lab.hall.Hall",
                        "--machines",
                        list.toString()))
                .redirectErrorStream(true)
                .redirectOutput(log.toFile())
                .start();
        LoopbackHall.until("the hall is ready", () -> {
            try {
                return Files.readString(log).contains("hall ready");
            } catch (IOException e) {
                return false;
            }
        });
        List<Prefix> declared = new ArrayList<>(List.of(more));
        declared.add(Prefix.parse("10.40.8.0/24"));
        declared.add(Prefix.parse("fd40:a4da:1:8::/64"));
        jump = new LocalVantage("jump", true, new Dialler(() -> declared, true), vertx);
    }

    private static List<String> beyond(String... command) {
        List<String> whole = new ArrayList<>(List.of(System.getenv("HALL").split(" ")));
        whole.addAll(List.of(command));
        return whole;
    }

    /** Does something on the machines' side. */
    public void does(String... command) throws IOException, InterruptedException {
        assertEquals(0, new ProcessBuilder(beyond(command)).inheritIO().start().waitFor());
    }

    /** The kernel here may have taken another machine for it. */
    public static void forgetNeighbour(Object address) throws IOException, InterruptedException {
        assertEquals(
                0,
                new ProcessBuilder("ip", "neigh", "flush", "to", address.toString())
                        .inheritIO()
                        .start()
                        .waitFor());
    }

    @Override
    public void close() throws InterruptedException {
        jump.close();
        vertx.close().toCompletionStage().toCompletableFuture().join();
        hall.destroy();
        hall.waitFor();
    }
}
