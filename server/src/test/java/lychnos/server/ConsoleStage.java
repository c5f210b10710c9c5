package lychnos.server;

import static org.junit.jupiter.api.Assertions.assertTrue;

import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.BooleanSupplier;
import java.util.function.Predicate;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import lychnos.lab.Dhcp;
import lychnos.lab.Plug;
import lychnos.lab.console.ConsoleHall;
import lychnos.lab.console.ConsoleSpec;
import lychnos.lab.console.Habit;
import lychnos.server.http.Json;
import lychnos.server.http.Request;
import lychnos.server.http.Response;

/** A bring-up with machines on a line server, prepared and placed, ready to be set up on their consoles. */
final class ConsoleStage implements AutoCloseable {

    private static final String SERVER = "127.40.8.40";
    private static final int WEB = 18444;
    private static final Duration PATIENCE = Duration.ofSeconds(120);
    private static final Duration AGAIN = Duration.ofSeconds(5);
    private static final AtomicInteger PORT = new AtomicInteger(3001);

    final Client client;
    final long bringUp;
    private final List<ConsoleSpec> specs = new ArrayList<>();
    /** One row for each member, by the titles of its facts. */
    private final List<Map<String, String>> facts = new ArrayList<>();

    private ConsoleHall hall;
    private Optional<Dhcp> dhcp = Optional.empty();

    ConsoleStage() {
        this(Client.engineer());
    }

    ConsoleStage(Client client) {
        this.client = client;
        bringUp = client.bringUp();
        client.network(bringUp, Client.network("127.40.8.0/24", "127.40.8.1", "pool 127.40.8.100-199"));
        thing("lines", "lines-1", Map.of("address", SERVER, "protocol", "rfc2217", "ports", "3001-3999"));
        thing(
                "policy",
                "licence-terms",
                Map.of(
                        "answer",
                        "yes",
                        "reason",
                        "bought with the hall",
                        "who",
                        "lead of the hall",
                        "when",
                        "2026-11-02"));
    }

    /** What the site answers to what every machine asks. */
    void policy(String name) {
        thing(
                "policy",
                name,
                Map.of(
                        "answer",
                        "no",
                        "reason",
                        "the hall is isolated",
                        "who",
                        "lead of the hall",
                        "when",
                        "2026-11-02"));
    }

    void thing(String sort, String name, Map<String, String> values) {
        (values.containsKey("key") ? Client.lead() : client)
                .request()
                .body(Map.of("sort", sort, "name", name, "values", values))
                .put("/api/bring-ups/" + bringUp + "/site-resources")
                .statusCode(200);
    }

    private record Announced(int id, String name) {}

    private Announced announce(String kind, int members) {
        int unit = client.post(
                        "/api/bring-ups/" + bringUp + "/units", Map.of("kind", kind, "count", 1, "members", members))
                .statusCode(200)
                .json()
                .getInt("[0]");
        return new Announced(unit, client.get("/api/units/" + unit + "/bench").getString("name"));
    }

    private ConsoleSpec machine(String model, String group, String place, String first, Habit... habits) {
        int port = PORT.getAndIncrement();
        ConsoleSpec spec = new ConsoleSpec(
                model,
                "CT-" + bringUp + "-" + port,
                String.format("02:4c:59:d0:%02x:%02x", port >> 8, port & 255),
                port,
                group,
                place,
                first,
                habits.length == 0 ? java.util.Set.of() : java.util.Set.of(habits));
        specs.add(spec);
        return spec;
    }

    private void row(String unit, String member, ConsoleSpec spec, Map<String, String> more) {
        Map<String, String> row = new HashMap<>(Map.of(
                "unit",
                unit,
                "member",
                member,
                "serial",
                spec.serial(),
                "MAC address",
                spec.mac(),
                "location",
                "R" + (bringUp % 90 + 1) + " u" + (spec.port() % 40 + 1),
                "console line",
                String.valueOf(spec.port())));
        row.putAll(more);
        facts.add(row);
    }

    private String csv() {
        List<String> columns =
                facts.stream().flatMap(row -> row.keySet().stream()).distinct().toList();
        StringBuilder csv = new StringBuilder(String.join(",", columns)).append('\n');
        facts.forEach(row -> csv.append(columns.stream()
                        .map(column -> row.getOrDefault(column, ""))
                        .collect(Collectors.joining(",")))
                .append('\n'));
        return csv.toString();
    }

    /** A single machine of any kind. */
    int single(String kind, String model, String first, Map<String, String> more, Habit... habits) {
        Announced unit = announce(kind, 1);
        row(unit.name, "", machine(model, unit.name, "1", first, habits), more);
        return unit.id;
    }

    /** A wireless controller on a line port of its host. */
    int wireless() {
        thing(
                "host",
                "hv-11",
                Map.of(
                        "cores",
                        "16",
                        "memory",
                        "64 GiB",
                        "disk",
                        "1 TiB",
                        "address",
                        "127.40.8.23",
                        "line-ports",
                        "2001-2016"));
        Announced unit = announce("wireless-controller", 1);
        ConsoleSpec spec = new ConsoleSpec(
                "mungris",
                "CT-" + bringUp + "-W",
                String.format("02:4c:59:d3:00:%02x", bringUp % 250),
                "127.40.8.23",
                2003,
                unit.name,
                "1",
                "-",
                java.util.Set.of());
        specs.add(spec);
        facts.add(Map.of(
                "unit",
                unit.name,
                "serial",
                spec.serial(),
                "virtualisation host",
                "hv-11",
                "line port",
                "2003",
                "image file",
                "wireless-7.1.img",
                "image size",
                "4 GiB",
                "image digest",
                "sha256:" + "5d".repeat(32),
                "DHCP server behind it",
                "127.40.8.22",
                "roaming domain",
                "ardal-air"));
        return unit.id;
    }

    /** The network that data addresses lie in. */
    ConsoleStage withDataNetwork() {
        Map<String, Object> network = Client.network("127.40.16.0/24", "", "pool 127.40.16.100-150");
        network.putAll(Map.of("name", "Storage data", "purpose", "storage-data", "mtu", 9000, "vlan", 416));
        client.request()
                .body(network)
                .put("/api/bring-ups/" + bringUp + "/networks")
                .statusCode(204);
        return this;
    }

    void fact(int unit, String name, String value) {
        fact(unit, "", name, value);
    }

    void fact(int unit, String member, String name, String value) {
        client.request()
                .body(Map.of("cells", List.of(Map.of("unitId", unit, "member", member, "name", name, "value", value))))
                .put("/api/bring-ups/" + bringUp + "/facts")
                .statusCode(200);
    }

    /** Two controllers of one chassis, of which the first stands by. */
    int chassis() {
        Announced unit = announce("blade-chassis", 2);
        ConsoleSpec first = machine("wythop", unit.name, "1", "-", Habit.STANDS_BY);
        ConsoleSpec second = machine("wythop", unit.name, "2", "-", Habit.STANDS_BY);
        specs.set(
                specs.indexOf(second),
                second = new ConsoleSpec(
                        "wythop", first.serial(), second.mac(), second.port(), unit.name, "2", "-", second.habits()));
        row(unit.name, "bay 1", first, Map.of());
        row(unit.name, "bay 2", second, Map.of("serial", "", "location", ""));
        return unit.id;
    }

    /** An array with two controllers, whose data lie in a network of their own. */
    int array(Map<String, String> more, Habit... habits) {
        withDataNetwork();
        Announced unit = announce("block-array", 2);
        ConsoleSpec first = machine("bannisdale", unit.name, "1", "-", habits);
        ConsoleSpec second = machine("bannisdale", unit.name, "2", "-");
        specs.set(
                specs.indexOf(second),
                second = new ConsoleSpec(
                        "bannisdale",
                        first.serial(),
                        second.mac(),
                        second.port(),
                        unit.name,
                        "2",
                        "-",
                        second.habits()));
        Map<String, String> facts = new HashMap<>(Map.of(
                "federation name",
                "ardal-blocks",
                "data VLAN",
                "416",
                "licence key",
                "K7-ARD-118",
                "mail sender",
                "arrays@ardal.example",
                "mail recipient",
                "operations@ardal.example"));
        facts.putAll(more);
        row(unit.name, "controller a", first, facts);
        row(unit.name, "controller b", second, Map.of("serial", "", "location", ""));
        return unit.id;
    }

    /**
     * Nodes of a store for backups, of which the first has habits. They have no console, and a DHCP server must be
     * told.
     */
    int store(int nodes, Habit... habits) {
        Announced unit = announce("backup-store", nodes);
        for (int i = 1; i <= nodes; i++) {
            int number = PORT.getAndAdd(2);
            ConsoleSpec spec = new ConsoleSpec(
                    "seathwaite",
                    "OB-" + bringUp + "-" + number,
                    String.format("02:4c:59:d4:%02x:%02x", number >> 8, number & 255),
                    0,
                    unit.name,
                    String.valueOf(i),
                    "tag-of-node-" + number,
                    i == 1 ? Set.of(habits) : Set.of());
            specs.add(spec);
            facts.add(Map.of(
                    "unit",
                    unit.name,
                    "member",
                    "node " + i,
                    "serial",
                    spec.serial(),
                    "controller's MAC address",
                    spec.mac(),
                    "controller's password",
                    spec.first(),
                    "location",
                    "R9 u" + (number % 40 + 1),
                    "cluster name",
                    i == 1 ? "ardal-backup" : ""));
        }
        return unit.id;
    }

    ConsoleStage with(Dhcp server) {
        dhcp = Optional.of(server);
        return this;
    }

    /** A pair of interconnects. */
    int pair(Habit[] left, Habit... right) {
        Announced unit = announce("interconnect-pair", 2);
        row(unit.name, "left", machine("orrel", unit.name, "left", "-", left), Map.of());
        row(unit.name, "right", machine("orrel", unit.name, "right", "-", right), Map.of());
        return unit.id;
    }

    /** A cluster of three controllers, of which the first has habits. */
    int cluster(Habit... habits) {
        Announced unit = announce("fabric-controller", 3);
        for (int i = 1; i <= 3; i++) {
            row(
                    unit.name,
                    "controller " + i,
                    machine("sallow", unit.name, String.valueOf(i), "-", i == 1 ? habits : new Habit[0]),
                    Map.of(
                            "tunnel endpoints",
                            "172.20.0.0/16",
                            "control VLAN",
                            "3900",
                            "switches planned",
                            i == 1 ? "6" : ""));
        }
        return unit.id;
    }

    int host(Habit... habits) {
        return single(
                "hypervisor-host", "greenup", "127.40.8.20", Map.of("memory", "256 GiB", "disk", "2 TiB"), habits);
    }

    /** Facts in, addresses taken, machines on. */
    ConsoleStage ready(Duration restart, java.nio.file.Path state) {
        Response read = Request.given()
                .cookie("lychnos", client.cookie())
                .contentType("text/plain; charset=UTF-8")
                .body(csv())
                .post("/api/bring-ups/" + bringUp + "/facts.csv");
        // columns that none of these kinds has are left out with a word
        assertTrue(read.json().<Integer>getList("faults.line").stream().allMatch(line -> line == 1), read.asString());
        for (Map<String, Object> unit :
                client.get("/api/bring-ups/" + bringUp + "/prepare").<Map<String, Object>>getList("units")) {
            Json fits = client.get("/api/bring-ups/" + bringUp + "/fits?unit=" + unit.get("id"));
            Map<String, Object> taking = new HashMap<>(Map.of("lines", fits.getList("fits[0].lines")));
            taking.put("growth", fits.getList("fits[0].growth"));
            client.post("/api/bring-ups/" + bringUp + "/allocations", taking).statusCode(200);
        }
        power(restart, state);
        return this;
    }

    ConsoleStage ready() {
        return ready(Duration.ofMillis(300), null);
    }

    /** Switches everything on, with the memory that was left. */
    void power(Duration restart, java.nio.file.Path state) {
        hall = new ConsoleHall(specs, SERVER, Plug.loopback(), WEB, restart, state, dhcp);
    }

    ConsoleHall hall() {
        return hall;
    }

    /** The serial of the machine that was added at this place. */
    String serial(int index) {
        return specs.get(index).serial();
    }

    void begin(int unit, String mode) {
        Response begun = client.post("/api/units/" + unit + "/console", Map.of("mode", mode));
        assertTrue(begun.statusCode() == 204, begun::asString);
    }

    Json bench(int unit) {
        return client.get("/api/units/" + unit + "/bench");
    }

    /** What was found at the address that a unit has for something. */
    Json proof(int unit, String role) {
        int claim = client.get("/api/bring-ups/" + bringUp + "/prove")
                .getInt("endpoints.find { it.unitId == " + unit + " && it.role == '" + role + "' }.claimId");
        return client.get("/api/units/" + unit + "/proof?claim=" + claim);
    }

    /**
     * Waits until an endpoint is proven, and gives what was found there; the fault is shown where it never
     * is.
     */
    Json proven(int unit, String role) {
        AtomicReference<Json> last = new AtomicReference<>();
        until(
                role + " is proven",
                () -> {
                    last.set(proof(unit, role));
                    return last.get().getBoolean("endpoint.proven");
                },
                () -> last.get().prettify());
        return last.get();
    }

    long dialogue(int unit, int member) {
        return bench(unit).getLong("members[" + member + "].dialogueId");
    }

    Response decide(long dialogue, String what, Map<String, ?> body) {
        return client.post("/api/dialogues/" + dialogue + "/" + what, body);
    }

    /**
     * Says yes to everything that a person can pass, as it comes, until the unit is done or something stands that
     * cannot be passed; what must be typed is typed.
     */
    Json toTheEnd(int unit) {
        return toTheEnd(unit, hold -> true);
    }

    /** The same, but stops before a hold that is not to be passed. */
    Json toTheEnd(int unit, Predicate<Map<String, Object>> pass) {
        long end = System.nanoTime() + PATIENCE.toNanos();
        Map<Integer, String> passed = new HashMap<>();
        Map<Integer, Long> since = new HashMap<>();
        while (System.nanoTime() < end && !Thread.currentThread().isInterrupted()) {
            Json bench = bench(unit);
            if (bench.getString("runState").equals("DONE")) {
                return bench;
            }
            List<Map<String, Object>> members = bench.getList("members");
            for (int i = 0; i < members.size(); i++) {
                @SuppressWarnings("unchecked")
                Map<String, Object> hold = (Map<String, Object>) members.get(i).get("hold");
                if (hold != null
                        && members.get(i).get("state").equals("HELD")
                        && !List.of("PREREQUISITE", "PEER", "STANDBY").contains(hold.get("why"))) {
                    if (!Boolean.TRUE.equals(hold.get("passable")) || !pass.test(hold)) {
                        return bench;
                    }
                    // said once; again only where nobody was there to hear it, or who heard it has lost the unit since
                    boolean heard =
                            hold.toString().equals(passed.get(i)) && System.nanoTime() - since.get(i) < AGAIN.toNanos();
                    if (!heard
                            && decide(
                                                    ((Number) members.get(i).get("dialogueId")).longValue(),
                                                    "decision",
                                                    Map.of("typed", hold.get("typed")))
                                            .statusCode()
                                    < 300) {
                        passed.put(i, hold.toString());
                        since.put(i, System.nanoTime());
                    }
                } else {
                    passed.remove(i);
                }
            }
            pause();
        }
        throw new AssertionError("not at its end: " + bench(unit).prettify());
    }

    /** Says yes wherever one can be said now. */
    void yes(int unit) {
        for (Map<String, Object> member : bench(unit).<Map<String, Object>>getList("members")) {
            @SuppressWarnings("unchecked")
            Map<String, Object> hold = (Map<String, Object>) member.get("hold");
            if (hold != null && Boolean.TRUE.equals(hold.get("passable"))) {
                decide(((Number) member.get("dialogueId")).longValue(), "decision", Map.of("typed", hold.get("typed")));
            }
        }
    }

    private static void pause() {
        java.util.concurrent.locks.LockSupport.parkNanos(40_000_000);
    }

    static void until(String what, BooleanSupplier holds) {
        until(what, holds, () -> "");
    }

    /** @param shown what is said of it where it never holds */
    static void until(String what, BooleanSupplier holds, Supplier<String> shown) {
        long end = System.nanoTime() + PATIENCE.toNanos();
        while (!holds.getAsBoolean()) {
            assertTrue(System.nanoTime() < end, () -> what + " " + shown.get());
            pause();
        }
    }

    /** Waits until a member is held for a reason. */
    Map<String, Object> held(int unit, int member, String why) {
        until(
                "member " + member + " is held for " + why,
                () -> why.equals(bench(unit).getString("members[" + member + "].hold.why")));
        return bench(unit).getMap("members[" + member + "].hold");
    }

    @Override
    public void close() {
        for (Map<String, Object> unit :
                client.get("/api/bring-ups/" + bringUp + "/prepare").<Map<String, Object>>getList("units")) {
            client.post("/api/units/" + unit.get("id") + "/console/close", Map.of());
        }
        if (hall != null) {
            hall.close();
        }
    }
}
