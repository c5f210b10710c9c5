package lychnos.e2e;

import java.io.IOException;
import java.net.BindException;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ThreadLocalRandom;
import java.util.concurrent.locks.LockSupport;
import java.util.function.BooleanSupplier;
import java.util.function.Supplier;

/**
 * A whole installation for one journey: a database of its own, stand-in machines on the far side of the wire, and the
 * packaged server as a process that can be killed. Runs inside the namespace that {@code ./lychnos test} makes.
 */
final class Stage implements AutoCloseable {

    static final Path ROOT = Path.of("..").toAbsolutePath().normalize();
    /** Looking all the time would take the processor from what is waited for: the pause grows. */
    private static final Duration FIRST_PAUSE = Duration.ofMillis(20);

    private static final Duration LONGEST_PAUSE = Duration.ofMillis(160);

    /** Where the line server of the machines with a console listens. */
    private static final int LOWEST_PORT = 20_000;

    private static final int FIRST_OF_CONNECTIONS = 32_768;

    static final String LINES = "10.40.8.2";

    private static final List<String> PLAIN = List.of("-XX:TieredStopAtLevel=1", "-XX:+UseSerialGC");
    private static int next = 1;

    private final Path directory;
    private final String database;
    private final Map<String, String> settings;
    private final List<String> options;
    private final int port;
    private final List<String> hallCommand;
    private Process hall;
    private Process server;
    private Process second;
    private Process dhcp;

    private static Map<String, String> consoles(String lines) {
        return Map.of("--machines", "", "--consoles", lines);
    }

    /** @param machines a hall file's lines */
    Stage(String machines, long restartMillis) throws IOException {
        this(machines, restartMillis, Map.of(), PLAIN);
    }

    /** A hall of machines with a console, their lines at {@link #LINES}. */
    static Stage ofConsoles(String consoles, long restartMillis) throws IOException {
        return new Stage(consoles(consoles), restartMillis, Map.of(), PLAIN);
    }

    /** A hall of machines that are set up on their own pages. */
    static Stage ofOwnPages(String machines) throws IOException {
        return new Stage(Map.of("--machines", "", "--own-pages", machines), 500, Map.of(), PLAIN);
    }

    /** A hall of machines with a console, and the server in another network. */
    static Stage ofConsolesAndOffice(String consoles, long restartMillis, Office office) throws IOException {
        return new Stage(
                consoles(consoles),
                restartMillis,
                Map.of("INSIDE", office.inside(), "QUARKUS_HTTP_HOST", Office.SERVER),
                PLAIN);
    }

    /**
     * The same with what such machines lean on besides: a proxy, and a DHCP server that leases from this
     * pool.
     */
    static Stage ofConsolesAndServices(String consoles, long restartMillis, String subnet, String pool)
            throws IOException {
        Path dhcp = Path.of(env("LYCHNOS_E2E_RUN"), "dhcp");
        Process server = StageDhcp.start(dhcp, subnet, pool);
        Stage stage = new Stage(
                consoles(consoles),
                restartMillis,
                Map.of("LYCHNOS_DHCP_LEASE_FILES", dhcp.resolve("leases.csv").toString()),
                PLAIN,
                "--proxy",
                "10.40.8.25",
                "--dhcp",
                "127.0.0.1:10067/127.0.0.2:10068");
        stage.dhcp = server;
        return stage;
    }

    /**
     * @param settings of the server, besides those that every stage has
     * @param options of the server's Java
     */
    Stage(String machines, long restartMillis, Map<String, String> settings, List<String> options) throws IOException {
        this(Map.of("--machines", machines), restartMillis, settings, options);
    }

    private Stage(
            Map<String, String> machines,
            long restartMillis,
            Map<String, String> settings,
            List<String> options,
            String... services)
            throws IOException {
        this.settings = settings;
        this.options = options;
        int number = next++;
        directory = Files.createDirectories(Path.of(env("LYCHNOS_E2E_RUN"), "stage" + number));
        database = "stage" + number;
        StageDatabase.sql("postgres", "create database " + database);
        String classes = ROOT.resolve("lab/target/classes") + ":" + ROOT.resolve("lab/target/lib/*");
        List<String> command = new ArrayList<>(List.of(env("HALL").split(" ")));
        command.addAll(List.of(
                "java",
                "-XX:TieredStopAtLevel=1",
                "-cp",
                classes,
                "lychnos.lab.hall.Hall",
                "--restart-millis",
                String.valueOf(restartMillis),
                "--state",
                directory.resolve("state").toString()));
        for (Map.Entry<String, String> file : machines.entrySet()) {
            command.add(file.getKey());
            command.add(Files.writeString(directory.resolve(file.getKey().substring(2) + ".txt"), file.getValue())
                    .toString());
        }
        if (machines.containsKey("--consoles")) {
            command.addAll(List.of("--lines", LINES));
            command.addAll(List.of(services));
        }
        hallCommand = command;
        if (elsewhere()) {
            port = Office.PORT;
        } else {
            port = freePort();
        }
        try {
            startHall();
            startServer();
        } catch (IOException | RuntimeException | AssertionError e) {
            // what is left running would hold the addresses of the next stage
            close();
            throw e;
        }
    }

    /**
     * A port that nobody listens on, below those that the kernel gives to connections: one of those may become the near
     * end of a connection, even of the one that asks whether the server is up.
     */
    static int freePort() throws IOException {
        while (true) {
            int port = ThreadLocalRandom.current().nextInt(LOWEST_PORT, FIRST_OF_CONNECTIONS);
            try (ServerSocket free = new ServerSocket(port)) {
                return free.getLocalPort();
            } catch (BindException e) {
                // the next one is free
            }
        }
    }

    static String env(String name) {
        String value = System.getenv(name);
        if (value == null) {
            throw new IllegalStateException(name + " is not set: run the journeys with ./lychnos test");
        }
        return value;
    }

    void startHall() throws IOException {
        Files.deleteIfExists(directory.resolve("hall.log"));
        hall = start(hallCommand, Map.of(), "hall.log");
        comesUp("the hall", hall, "hall.log", () -> log("hall.log").contains("hall ready"));
    }

    /** Takes the power from every machine; what they had stored stays. */
    void killHall() throws InterruptedException {
        hall.descendants().forEach(ProcessHandle::destroyForcibly);
        hall.destroyForcibly().waitFor();
    }

    /** What a machine with a console keeps under a name. */
    String kept(String serial, String name) throws IOException {
        java.util.Properties kept = new java.util.Properties();
        try (java.io.Reader reader =
                Files.newBufferedReader(directory.resolve("state").resolve(serial + ".memory"))) {
            kept.load(reader);
        }
        return kept.getProperty(name, "");
    }

    void startServer() throws IOException {
        server = serverAt(port, "server.log");
    }

    /** Another server on the same database; gives its address. */
    String startSecondServer() throws IOException {
        int other = freePort();
        second = serverAt(other, "second.log");
        return "http://127.0.0.1:" + other;
    }

    /** A vantage that dials in to a server; what it keeps stays for one that comes after. */
    Process vantage(String server, String token) throws IOException {
        return vantage(List.of(), server, token);
    }

    /** @param inside what a command begins with that is to run in another network */
    Process vantage(List<String> inside, String server, String token) throws IOException {
        List<String> command = new ArrayList<>(inside);
        command.addAll(List.of(
                ROOT.resolve("lychnos").toString(),
                "vantage",
                "--join",
                server,
                "--state",
                directory.resolve("kept").toString()));
        return start(command, Map.of("LYCHNOS_LAB", "true", "LYCHNOS_VANTAGE_TOKEN", token), "vantage.log");
    }

    /** The server stands in a network of its own. */
    private boolean elsewhere() {
        return settings.containsKey("INSIDE");
    }

    private Process serverAt(int port, String log) throws IOException {
        Map<String, String> environment = new HashMap<>(Map.of(
                "QUARKUS_DATASOURCE_JDBC_URL", "jdbc:postgresql://127.0.0.1:" + env("LYCHNOS_E2E_PG") + "/" + database,
                "QUARKUS_DATASOURCE_USERNAME", "lychnos",
                "QUARKUS_DATASOURCE_PASSWORD", "none",
                "QUARKUS_HTTP_PORT", String.valueOf(port),
                "LYCHNOS_LAB", "true",
                "LYCHNOS_VANTAGE_NAME", "hall-2 jump host",
                "LYCHNOS_RUN_LEASE", "3s",
                "LYCHNOS_RUN_FOLLOW_AT_MOST", "25s",
                "LYCHNOS_SEAL_KEY_FILE", directory.resolve("seal.key").toString(),
                "LYCHNOS_DEMO_ACCOUNTS",
                        "hall-lead:Hall lead:lead:lead-of-the-hall;rack-one:Engineer at rack "
                                + "one:engineer:engineer-at-rack-one;night-watch:Night "
                                + "watch:viewer:only-looking-around"));
        // a lab has no secrets, and each stage signs several people in
        environment.put("LYCHNOS_LAB_HASH_COST", "4");
        environment.put("LYCHNOS_IMAGES", directory.resolve("images").toString());
        environment.putAll(settings);
        List<String> command =
                new ArrayList<>(elsewhere() ? List.of(settings.get("INSIDE").split(" ")) : List.of());
        command.add("java");
        command.addAll(options);
        StageClasses.of(options).ifPresent(command::add);
        command.addAll(List.of(
                "-jar",
                ROOT.resolve("server/target/quarkus-app/quarkus-run.jar").toString()));
        Process started = start(command, environment, log);
        comesUp("the server", started, log, () -> {
            try (Socket socket = new Socket()) {
                socket.connect(new InetSocketAddress(host(), port), 500);
                return true;
            } catch (IOException e) {
                return false;
            }
        });
        return started;
    }

    /** Waits for a process of ours; one that ends instead is told at once, with what it said last. */
    private void comesUp(String what, Process process, String log, BooleanSupplier ready) {
        until(
                what + " is ready",
                Duration.ofSeconds(120),
                () -> {
                    if (ready.getAsBoolean()) {
                        return true;
                    }
                    // a hall without machines has ended as soon as it was ready
                    if (!process.isAlive() && !ready.getAsBoolean()) {
                        throw new AssertionError(what + " ended with " + process.exitValue() + ":\n" + tail(log));
                    }
                    return false;
                },
                () -> tail(log));
    }

    private String tail(String name) {
        String text = log(name);
        return text.substring(Math.max(0, text.length() - 3000));
    }

    /** Ends the server as a power cut would. */
    void killServer() throws InterruptedException {
        server.destroyForcibly().waitFor();
    }

    /** Stops the server's process where it is, as a starved machine or a paused virtual one does, or lets it go on. */
    void standStill(boolean still) throws IOException, InterruptedException {
        String signal = still ? "-STOP" : "-CONT";
        int ended = new ProcessBuilder("kill", signal, String.valueOf(server.pid()))
                .inheritIO()
                .start()
                .waitFor();
        if (ended != 0) {
            throw new IOException("kill " + signal + " ended with " + ended);
        }
    }

    String url() {
        return "http://" + host() + ":" + port;
    }

    private String host() {
        return settings.getOrDefault("QUARKUS_HTTP_HOST", "127.0.0.1");
    }

    /** The true state of a machine, as the hall itself tells it. */
    String machine(String serial) throws IOException {
        return Files.readString(directory.resolve("state").resolve(serial + ".json"));
    }

    private String log(String name) {
        return text(directory.resolve(name));
    }

    static String text(Path file) {
        try {
            return Files.exists(file) ? Files.readString(file) : "";
        } catch (IOException e) {
            return "";
        }
    }

    private Process start(List<String> command, Map<String, String> environment, String log) throws IOException {
        ProcessBuilder builder = new ProcessBuilder(command)
                .redirectErrorStream(true)
                .redirectOutput(
                        ProcessBuilder.Redirect.appendTo(directory.resolve(log).toFile()));
        builder.environment().putAll(environment);
        return builder.start();
    }

    /** What the stage's database answers. */
    String sql(String statements) throws IOException {
        return StageDatabase.sql(database, statements);
    }

    Path directory() {
        return directory;
    }

    /** How much processor time the first server has used. */
    long processorMillis() {
        return server.toHandle().info().totalCpuDuration().orElse(Duration.ZERO).toMillis();
    }

    /** What memory the first server holds. */
    long residentMegabytes() throws IOException {
        return StageHall.residentMegabytes(server);
    }

    /** Waits for a condition, at most so long. */
    static void until(String what, Duration atMost, BooleanSupplier holds) {
        until(what, atMost, holds, () -> "");
    }

    /** @param shown what is said of it where it never holds */
    static void until(String what, Duration atMost, BooleanSupplier holds, Supplier<String> shown) {
        long deadline = System.nanoTime() + atMost.toNanos();
        long pause = FIRST_PAUSE.toNanos();
        while (!holds.getAsBoolean()) {
            if (System.nanoTime() > deadline) {
                throw new AssertionError("never: " + what + "\n" + shown.get());
            }
            LockSupport.parkNanos(pause);
            pause = Math.min(pause * 5 / 4, LONGEST_PAUSE.toNanos());
        }
    }

    @Override
    public void close() {
        if (server != null) {
            server.destroy();
            StageClasses.written(server);
        }
        if (second != null) {
            second.destroy();
        }
        if (dhcp != null) {
            dhcp.destroy();
        }
        unplug();
    }

    private void unplug() {
        try {
            killHall();
            StageHall.unplug(directory.resolve("unplug.log"));
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
