package lychnos.server;

import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.Collectors;
import lychnos.lab.console.ConsoleSpec;
import lychnos.lab.console.Habit;

/** A bring-up with units whose machines have consoles, one of each kind. */
abstract class ConsoleUnits {

    static final String PROXY = "127.40.8.45";

    static final String SERVER = "127.40.8.40";
    static final int WEB = 18444;
    static final Duration PATIENCE = Duration.ofSeconds(120);
    static final Duration AGAIN = Duration.ofSeconds(5);
    static final AtomicInteger PORT = new AtomicInteger(3001);

    final Client client;
    final long bringUp;
    final List<ConsoleSpec> specs = new ArrayList<>();
    /** One row for each member, by the titles of its facts. */
    final List<Map<String, String>> facts = new ArrayList<>();

    ConsoleUnits() {
        this(Client.engineer());
    }

    ConsoleUnits(Client client) {
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

    /** Terms of a kind that were accepted in an earlier year. */
    void acceptedBefore(String kind, String digest) {
        thing(
                "terms",
                kind + " " + digest.substring(0, 12),
                Map.of("kind", kind, "digest", digest, "who", "lead of the hall", "when", "2025-03-07"));
    }

    /** Who accepted the terms of a kind, each text once. */
    List<String> acceptedBy(String kind) {
        return client.get("/api/bring-ups/" + bringUp + "/prepare")
                .getList("siteResources.findAll { it.sort == 'terms' && it.values.kind == '" + kind + "' }.values.who");
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

    record Announced(int id, String name) {}

    Announced announce(String kind, int members) {
        int unit = client.post(
                        "/api/bring-ups/" + bringUp + "/units", Map.of("kind", kind, "count", 1, "members", members))
                .statusCode(200)
                .json()
                .getInt("[0]");
        return new Announced(unit, client.get("/api/units/" + unit + "/bench").getString("name"));
    }

    ConsoleSpec machine(String model, String group, String place, String first, Habit... habits) {
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

    void row(String unit, String member, ConsoleSpec spec, Map<String, String> more) {
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

    String csv() {
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
        return onHost(
                "wireless-controller",
                "mungris",
                6103,
                Map.of(
                        "image file",
                        "mungris-air.img",
                        "image size",
                        "4 GiB",
                        "image digest",
                        "sha256:" + "5d".repeat(32),
                        "DHCP server for clients",
                        "127.40.8.22",
                        "roaming group",
                        "ardal-air"));
    }

    /** A host of licences on a line port, which may take authority from a day on. */
    int licenceHost(String day, Habit... habits) {
        return onHost(
                "licence-host",
                "buttermere",
                6104,
                Map.of(
                        "image file",
                        "buttermere-licences.img",
                        "image size",
                        "2 GiB",
                        "image digest",
                        "sha256:" + "4d".repeat(32),
                        "account of the licences",
                        "ardal-halls",
                        "share of the licences",
                        "hall-2",
                        "number of licences",
                        "120",
                        "authority granted on",
                        day),
                habits);
    }

    /** An access appliance on a line port, with a key that counts for a time only. */
    int accessAppliance() {
        thing("proxy", "proxy-1", Map.of("address", PROXY, "port", "3128", "user", "hall", "key", "out-by-the-gate"));
        return onHost(
                "access-appliance",
                "rossett",
                6105,
                Map.of(
                        "image file",
                        "rossett-access.ova",
                        "image size",
                        "3 GiB",
                        "image digest",
                        "sha256:" + "6d".repeat(32),
                        "proxy",
                        "yes",
                        "temporary key",
                        "T2-ARD-118",
                        "temporary key ends on",
                        "2999-12-31"));
    }

    private int onHost(String kind, String model, int port, Map<String, String> more, Habit... habits) {
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
                        "6101-6116"));
        Announced unit = announce(kind, 1);
        ConsoleSpec spec = new ConsoleSpec(
                model,
                "CT-" + bringUp + "-W",
                String.format("02:4c:59:d3:00:%02x", bringUp % 250),
                "127.40.8.23",
                port,
                unit.name,
                "1",
                "-",
                java.util.Set.of(habits));
        specs.add(spec);
        Map<String, String> row = new HashMap<>(Map.of(
                "unit",
                unit.name,
                "serial",
                spec.serial(),
                "virtualisation host",
                "hv-11",
                "line port",
                String.valueOf(port)));
        row.putAll(more);
        facts.add(row);
        return unit.id;
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
        dataNetwork();
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
                            "10.45.0.0/16",
                            "control VLAN",
                            "3900",
                            "fabric name",
                            "ardal-fabric",
                            "switches planned",
                            i == 1 ? "6" : ""));
        }
        return unit.id;
    }

    int host(Habit... habits) {
        return single(
                "hypervisor-host", "greenup", "127.40.8.20", Map.of("memory", "256 GiB", "disk", "2 TiB"), habits);
    }

    /** Defines the network that data addresses lie in. */
    void dataNetwork() {
        Map<String, Object> network = Client.network("127.40.16.0/24", "", "pool 127.40.16.100-150");
        network.putAll(Map.of("name", "Storage data", "purpose", "storage-data", "mtu", 9000, "vlan", 416));
        client.request()
                .body(network)
                .put("/api/bring-ups/" + bringUp + "/networks")
                .statusCode(204);
    }
}
