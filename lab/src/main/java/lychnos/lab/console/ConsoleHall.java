package lychnos.lab.console;

import io.vertx.core.Vertx;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.BiFunction;
import java.util.function.Supplier;
import lychnos.lab.Dhcp;
import lychnos.lab.MachineSpec;
import lychnos.lab.Plug;

/** Console machines and the line server that they are plugged into. */
public final class ConsoleHall implements AutoCloseable {

    /** Interfaces of console machines are numbered from here, behind those of the others. */
    private static final int FIRST_INDEX = 500;

    private final Vertx vertx = Vertx.vertx();
    private final List<ConsoleMachine> machines = new ArrayList<>();
    private final List<String> names = new ArrayList<>();
    private final LineServer lines;
    private final Optional<Dhcp> dhcp;
    private final LinePorts linePorts = new LinePorts(vertx);

    /**
     * Powers every machine on.
     *
     * @param address where the line server listens
     * @param webPort the port of the machines' sign-in pages; on another than 443 there is no greeting over SSH
     * @param state where each machine keeps its memory; null for nowhere
     */
    public ConsoleHall(List<ConsoleSpec> specs, String address, Plug plug, int webPort, Duration restart, Path state) {
        this(specs, address, plug, webPort, restart, state, Optional.empty());
    }

    /** The same with a DHCP server for machines that ask one. */
    public ConsoleHall(
            List<ConsoleSpec> specs,
            String address,
            Plug plug,
            int webPort,
            Duration restart,
            Path state,
            Optional<Dhcp> dhcp) {
        this.dhcp = dhcp;
        lines = new LineServer(vertx, address);
        for (ConsoleSpec spec : specs) {
            Memory memory = new Memory(state == null ? null : state.resolve(name(specs, spec) + ".memory"));
            ConsoleMachine machine = machine(spec, memory, plug, webPort, restart.toMillis());
            machines.add(machine);
            names.add(name(specs, spec));
            if (spec.port() == 0) {
                continue; // it has no console
            }
            if (spec.host().isEmpty()) {
                lines.plug(spec.port(), machine);
            } else {
                linePorts.plug(spec.host(), spec.port(), machine);
            }
        }
        machines.forEach(ConsoleMachine::powerOn);
    }

    /** The serial, and which one it is where two in one chassis share it. */
    private static String name(List<ConsoleSpec> specs, ConsoleSpec spec) {
        boolean alone = specs.stream()
                        .filter(each -> each.serial().equals(spec.serial()))
                        .count()
                == 1;
        return alone ? spec.serial() : spec.serial() + "-" + spec.place();
    }

    private ConsoleMachine machine(ConsoleSpec spec, Memory memory, Plug plug, int webPort, long restart) {
        int index = FIRST_INDEX + machines.size();
        BiFunction<String, Supplier<String>, Face> faced =
                (software, title) -> face(memory, spec.plugged(), plug, index, webPort, software, title);
        return switch (spec.model()) {
            case "orrel" ->
                new Interconnect(
                        spec,
                        memory,
                        restart,
                        faced.apply("Orrel_3.1", () -> "ORREL " + spec.place()),
                        () -> other(spec, Interconnect.class));
            case "sallow" ->
                new FabricController(
                        spec,
                        memory,
                        restart,
                        faced.apply("Sallow_7", () -> "Sallow " + memory.get("name")),
                        () -> group(spec, FabricController.class));
            case "greenup" ->
                new HypervisorHost(
                        spec, memory, restart, faced.apply("Greenup_2", () -> "Greenup " + memory.get("Own name")));
            case "brathay" ->
                new FabricGateway(
                        spec, memory, restart, faced.apply("Brathay_5", () -> "Brathay " + memory.get("name")));
            case "skeggle" ->
                new FileArray(
                        spec,
                        memory,
                        restart,
                        faced.apply("Skeggle_1.0", () -> "Skeggle " + memory.get("name")),
                        vertx);
            case "wythop" ->
                new BladeChassis(
                        spec,
                        memory,
                        restart,
                        faced.apply("Wythop_9", () -> "Wythop " + memory.get("name")),
                        () -> other(spec, BladeChassis.class));
            case "ullock" ->
                new SetupScreen(
                        spec,
                        memory,
                        restart,
                        faced.apply("Ullock_4", () -> "Ullock " + memory.get("controller.Name")));
            case "bannisdale" ->
                new BlockArray(
                        spec,
                        memory,
                        restart,
                        vertx,
                        faced.apply("Bannisdale_2", () -> "Bannisdale " + memory.get("array")),
                        () -> other(spec, BlockArray.class));
            case "harrop" ->
                new IndexAppliance(
                        spec, memory, restart, faced.apply("Harrop_4", () -> "Harrop " + memory.get("Host name")));
            case "seathwaite" ->
                new StoreNode(
                        spec,
                        memory,
                        restart,
                        vertx,
                        plug,
                        index,
                        webPort,
                        dhcp,
                        face(
                                memory,
                                spec.beside(),
                                plug,
                                index,
                                webPort,
                                "Seathwaite_2",
                                () -> "Seathwaite " + memory.get("cluster")),
                        () -> group(spec, StoreNode.class));
            case "dunmail" ->
                new ConsoleManager(
                        spec, memory, restart, faced.apply("Dunmail_1", () -> "Dunmail " + memory.get("host")));
            case "rossett" ->
                new AccessAppliance(
                        spec, memory, restart, faced.apply("Rossett_8", () -> "Rossett " + memory.get("name")));
            case "rosthwaite" ->
                new FleetManager(
                        spec,
                        memory,
                        restart,
                        faced.apply("Rosthwaite_3", () -> "Rosthwaite " + memory.get("full name")));
            case "loweswater" ->
                new LoadBalancer(
                        spec, memory, restart, faced.apply("Loweswater_2", () -> "Loweswater " + memory.get("called")));
            case "ennerdale" ->
                new DeliveryNode(
                        spec,
                        memory,
                        restart,
                        faced.apply("Ennerdale_7", () -> "Ennerdale " + memory.get("name")),
                        () -> other(spec, DeliveryNode.class));
            case "crummock" ->
                new BalancerConsole(
                        spec, memory, restart, faced.apply("Crummock_1", () -> "Crummock " + memory.get("name")));
            case "buttermere" ->
                new LicenceHost(
                        spec, memory, restart, faced.apply("Buttermere_4", () -> "Buttermere " + memory.get("called")));
            case "ullscarf" ->
                new ClusterManager(
                        spec,
                        memory,
                        restart,
                        faced.apply("Ullscarf_5", () -> "Ullscarf " + memory.get("cluster")),
                        () -> group(spec, ClusterManager.class));
            case "mungris" ->
                new WirelessController(
                        spec, memory, restart, faced.apply("Mungris_6", () -> "Mungris " + memory.get("name")));
            default -> throw new IllegalArgumentException("no stand-in is called " + spec.model());
        };
    }

    private Face face(
            Memory memory,
            MachineSpec plugged,
            Plug plug,
            int index,
            int webPort,
            String software,
            Supplier<String> title) {
        return new Face(vertx, plug, plugged, index, webPort, software, title, memory);
    }

    /** The other machine of a pair. */
    private <M extends ConsoleMachine> Optional<M> other(ConsoleSpec spec, Class<M> model) {
        return machines.stream()
                .filter(each -> each.spec != spec && each.spec.group().equals(spec.group()))
                .filter(model::isInstance)
                .map(model::cast)
                .findFirst();
    }

    /** The machines of one model that know each other. */
    private <M extends ConsoleMachine> List<M> group(ConsoleSpec spec, Class<M> model) {
        return machines.stream()
                .filter(each -> each.spec.group().equals(spec.group()))
                .filter(model::isInstance)
                .map(model::cast)
                .toList();
    }

    private ConsoleMachine machine(String serial) {
        return machines.get(names.indexOf(serial));
    }

    /**
     * What a machine, told by its serial and its place where two share it, keeps under a name; empty for nothing. Names
     * that begin with {@code seen.} count what was done to it.
     */
    public String kept(String serial, String name) {
        return machine(serial).memory.get(name);
    }

    /** A person sets the network of the controller inside a machine at the machine's own screen. */
    public void setControllerAtScreen(String serial, String address, String mask, String gateway) {
        ((StoreNode) machine(serial)).setControllerAtScreen(address, mask, gateway);
    }

    /** Whether a machine waits for an answer now. */
    public boolean asks(String serial) {
        return machine(serial).isAsking();
    }

    public int count() {
        return machines.size();
    }

    @Override
    public void close() {
        lines.close();
        linePorts.close();
        machines.forEach(ConsoleMachine::powerOff);
        vertx.close().toCompletionStage().toCompletableFuture().join();
    }
}
