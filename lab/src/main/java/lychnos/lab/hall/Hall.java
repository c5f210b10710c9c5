package lychnos.lab.hall;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import io.vertx.core.Vertx;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import lychnos.lab.Controller;
import lychnos.lab.Dhcp;
import lychnos.lab.Machine;
import lychnos.lab.MachineSpec;
import lychnos.lab.OwnPages;
import lychnos.lab.Plug;
import lychnos.lab.WholeFile;
import lychnos.lab.console.ConsoleHall;
import lychnos.lab.console.ConsoleSpec;
import lychnos.lab.console.WebProxy;

/**
 * A hall of stand-in machines.
 *
 * <pre>
 * Hall --machines FILE [--own-pages FILE] [--consoles FILE --lines ADDRESS] [--dhcp SERVER:PORT/RELAY:PORT] [--port
 * 443] [--restart-millis 3000]
 *      [--device lych-hall | --loopback] [--state DIR]
 * </pre>
 *
 * With {@code --state} the true state of every machine is written to DIR/SERIAL.json at each change, for those who
 * check from outside what was really done to it; and what the machines keep while they have no power is kept there, so
 * that a hall that is started on the same directory is the one that it was.
 */
public final class Hall implements AutoCloseable {

    private static final ObjectMapper JSON = new ObjectMapper();

    private final Vertx vertx = Vertx.vertx();
    private final List<Machine> machines = new ArrayList<>();
    private int others;

    /** Powers every machine on; each answers at its first address when this returns. */
    public Hall(List<MachineSpec> specs, Plug plug, int port, Duration restart, Path stateDirectory) {
        for (MachineSpec spec : specs) {
            machines.add(new Machine(
                    vertx,
                    plug,
                    spec,
                    machines.size(),
                    port,
                    restart,
                    stateDirectory == null ? null : stateDirectory.resolve(spec.serial() + ".kept"),
                    machine -> write(machine, stateDirectory)));
        }
        machines.forEach(Machine::powerOn);
    }

    public Machine machine(String serial) {
        return machines.stream()
                .filter(m -> m.spec().serial().equals(serial))
                .findFirst()
                .orElseThrow();
    }

    public List<Machine> machines() {
        return List.copyOf(machines);
    }

    /** The number of the next interface: machines with a console have theirs far above. */
    private int next() {
        return machines.size() + others++;
    }

    private static void write(Machine machine, Path directory) {
        if (directory == null) {
            return;
        }
        Controller controller = machine.controller();
        ObjectNode state = JSON.createObjectNode()
                .put("serial", machine.spec().serial())
                .put("address", machine.address())
                .put("restarts", machine.restarts())
                .put("passwordChanges", controller.passwordChanges())
                .put("writes", controller.writes())
                .put("refusedLogins", controller.refusedLogins())
                .put("factoryPhraseWorks", controller.admits(machine.spec().phrase()));
        WholeFile.write(directory.resolve(machine.spec().serial() + ".json"), state.toString());
    }

    @Override
    public void close() {
        machines.forEach(Machine::powerOff);
        vertx.close().toCompletionStage().toCompletableFuture().join();
    }

    public static void main(String[] args) throws IOException {
        Map<String, String> options = new TreeMap<>(Map.of("--port", "443", "--restart-millis", "3000"));
        for (int i = 0; i < args.length; i++) {
            options.put(args[i], args[i].equals("--loopback") ? "" : args[++i]);
        }
        Path state = options.containsKey("--state") ? Files.createDirectories(Path.of(options.get("--state"))) : null;
        Plug plug = options.containsKey("--loopback")
                ? Plug.loopback()
                : Plug.ownInterface(options.getOrDefault("--device", "lych-hall"));
        Duration restart = Duration.ofMillis(Long.parseLong(options.get("--restart-millis")));
        Hall hall = new Hall(
                MachineSpec.read(Path.of(options.get("--machines"))),
                plug,
                Integer.parseInt(options.get("--port")),
                restart,
                state);
        if (options.containsKey("--own-pages")) {
            for (MachineSpec spec : MachineSpec.read(Path.of(options.get("--own-pages")))) {
                new OwnPages(hall.vertx, plug, spec, hall.next()).powerOn();
            }
        }
        Optional<Dhcp> dhcp = Optional.ofNullable(options.get("--dhcp")).map(Dhcp::at);
        int consoles = 0;
        if (options.containsKey("--consoles")) {
            if (options.containsKey("--proxy")) {
                new WebProxy(
                        Vertx.vertx(),
                        options.get("--proxy"),
                        3128,
                        "hall",
                        "out-by-the-gate",
                        "activate.ardal.example:443");
            }
            consoles = new ConsoleHall(
                            ConsoleSpec.read(Path.of(options.get("--consoles"))),
                            options.get("--lines"),
                            plug,
                            Integer.parseInt(options.get("--port")),
                            restart,
                            state,
                            dhcp)
                    .count();
        }
        System.out.println("hall ready: " + hall.machines().size() + " machines, " + consoles + " with a console");
    }
}
