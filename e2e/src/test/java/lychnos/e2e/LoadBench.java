package lychnos.e2e;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.LongStream;
import java.util.stream.Stream;

/**
 * Twenty engineers at once on a hall of 5,000 units, for so many seconds: each opens views, looks at units, types
 * facts, and pauses in between as people do. Says how long answers took and what was refused. Bounded: it ends by
 * itself, and asks nothing but its own server.
 */
public final class LoadBench {

    private static final int ENGINEERS = Integer.parseInt(
            System.getenv().getOrDefault("LYCHNOS_LOAD_ENGINEERS", String.valueOf(BenchSize.of(20, 2))));
    private static final int UNITS = BenchSize.of(5000, 40);
    /** What people pause for between two looks, in milliseconds, at least and at most. */
    private static final int LEAST_PAUSE = 400;

    private static final int MOST_PAUSE = 3000;

    private final Stage stage;
    private final Api api;
    private final Map<String, List<Double>> times = new ConcurrentHashMap<>();
    private final AtomicInteger faults = new AtomicInteger();
    private final List<Long> units = new ArrayList<>();

    private LoadBench(Stage stage) throws Exception {
        this.stage = stage;
        api = new Api(stage.url());
    }

    public static void main(String[] args) throws Exception {
        int seconds = Integer.parseInt(
                System.getenv().getOrDefault("LYCHNOS_LOAD_SECONDS", String.valueOf(BenchSize.of(600, 6))));
        Map<String, String> settings = Map.of(
                "LYCHNOS_VANTAGE_HEARS_SILENCE",
                "false",
                "LYCHNOS_DEMO_ACCOUNTS",
                "rack-one:Engineer at rack one:engineer:engineer-at-rack-one;"
                        + IntStream.range(0, ENGINEERS)
                                .mapToObj(LoadBench::account)
                                .collect(Collectors.joining(";")));
        try (Stage stage = new Stage("", 500, settings, List.of())) {
            LoadBench bench = new LoadBench(stage);
            bench.fill();
            bench.run(seconds);
        }
    }

    private static String account(int number) {
        return "engineer-" + number + ":Engineer " + number + ":engineer:" + password(number);
    }

    private static String password(int number) {
        return "one-of-twenty-people-" + number;
    }

    private JsonNode ask(String method, String path, JsonNode body) throws IOException, InterruptedException {
        return api.ask(stage.url(), method, "/api/bring-ups/1/" + path, body);
    }

    private void fill() throws Exception {
        ObjectNode begin = Api.JSON
                .createObjectNode()
                .put("name", "Five thousand")
                .put("siteCode", "ard")
                .put("siteName", "Ardal");
        begin.putArray("positions");
        api.ask(stage.url(), "POST", "/api/bring-ups", begin);
        ask(
                "PUT",
                "network",
                Api.JSON.readTree(
                        """
                {"name":"Management","prefix":"10.41.0.0/16","gateway":"10.41.0.1","vlan":500,
                 "domain":"ardal.example","nameServers":[],"timeServers":[],
                 "ranges":[{"purpose":"pool","run":"10.41.1.0-10.41.250.255","note":""}]}"""));
        for (Map.Entry<String, Integer> kind :
                new TreeMap<>(Map.of("interconnect-pair", UNITS / 2, "hypervisor-host", UNITS / 2)).entrySet()) {
            ask(
                            "POST",
                            "units",
                            Api.JSON
                                    .createObjectNode()
                                    .put("kind", kind.getKey())
                                    .put("count", kind.getValue())
                                    .put("members", 0))
                    .forEach(id -> units.add(id.asLong()));
        }
        ObjectNode taking = Api.JSON.createObjectNode();
        ArrayNode lines = taking.putArray("lines");
        ask("GET", "proposal", null).path("lines").forEach(lines::add);
        ask("POST", "allocations", taking);
    }

    private void run(int seconds) throws Exception {
        ExecutorService people = Executors.newFixedThreadPool(ENGINEERS);
        List<Api> signedIn = new ArrayList<>();
        for (int i = 0; i < ENGINEERS; i++) {
            signedIn.add(new Api(stage.url(), "engineer-" + i, password(i)));
        }
        Processors before = Processors.now();
        long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(seconds);
        List<Future<?>> all = new ArrayList<>();
        for (int i = 0; i < ENGINEERS; i++) {
            int number = i;
            all.add(people.submit(() -> work(number, signedIn.get(number), end)));
        }
        for (Future<?> person : all) {
            person.get();
        }
        people.shutdown();
        System.out.printf(
                Locale.ROOT,
                "%n%d engineers on %,d units for %d s%n%-28s %9s %9s %9s %9s%n",
                ENGINEERS,
                UNITS,
                seconds,
                "",
                "asked",
                "median",
                "p95",
                "longest");
        List<Double> reads = new ArrayList<>();
        new TreeMap<>(times).forEach((what, list) -> {
            line(what, list);
            if (!what.startsWith("set")) {
                reads.addAll(list);
            }
        });
        line("all reads", reads);
        System.out.printf(Locale.ROOT, "processors: %s%n", Processors.now().since(before));
        System.out.printf(
                Locale.ROOT, "refused or failed: %d; server %d MB resident%n", faults.get(), stage.residentMegabytes());
    }

    /**
     * What the processors did, in ticks (proc(5), {@code /proc/stat}): a host that gives them to others makes every
     * figure worse.
     */
    private record Processors(long all, long idle, long stolen) {

        static Processors now() throws IOException {
            try (Stream<String> lines = Files.lines(Path.of("/proc/stat"))) {
                // cpu user nice system idle iowait irq softirq steal; what follows is contained in user and nice
                long[] ticks = Stream.of(lines.findFirst().orElseThrow().split(" +"))
                        .skip(1)
                        .limit(8)
                        .mapToLong(Long::parseLong)
                        .toArray();
                return new Processors(LongStream.of(ticks).sum(), ticks[3] + ticks[4], ticks[7]);
            }
        }

        String since(Processors before) {
            double spent = all - before.all;
            double stolen = 100 * (stolen() - before.stolen) / spent;
            return String.format(
                    Locale.ROOT,
                    "%.0f %% at work, %.0f %% taken by the host",
                    100 - 100 * (idle - before.idle) / spent - stolen,
                    stolen);
        }
    }

    private static void line(String what, List<Double> list) {
        List<Double> sorted = new ArrayList<>(list);
        Collections.sort(sorted);
        System.out.printf(
                Locale.ROOT,
                "%-28s %9d %6.0f ms %6.0f ms %6.0f ms%n",
                what,
                sorted.size(),
                at(sorted, 0.5),
                at(sorted, 0.95),
                at(sorted, 1));
    }

    private static double at(List<Double> sorted, double part) {
        return sorted.isEmpty() ? 0 : sorted.get((int) Math.min(sorted.size() - 1, Math.floor(sorted.size() * part)));
    }

    private Void work(int number, Api own, long end) throws Exception {
        Random random = new Random(number);
        while (System.nanoTime() < end) {
            String view =
                    List.of("board", "prepare", "prove", "handover", "ribbon").get(random.nextInt(5));
            look(own, "view " + view, "/api/bring-ups/1/" + view);
            for (int i = 0; i < 6 && System.nanoTime() < end; i++) {
                pause(random);
                long unit = units.get(random.nextInt(units.size()));
                look(own, "unit, at the bench", "/api/units/" + unit + "/bench");
                look(own, "course of the bring-up", "/api/bring-ups/1/board?rows=false");
            }
            pause(random);
            set(own, units.get(random.nextInt(units.size())), number);
        }
        return null;
    }

    private static void pause(Random random) throws InterruptedException {
        TimeUnit.MILLISECONDS.sleep(LEAST_PAUSE + random.nextInt(MOST_PAUSE - LEAST_PAUSE));
    }

    private void look(Api own, String what, String path) throws IOException, InterruptedException {
        timed(what, () -> own.send(stage.url(), "GET", path, null));
    }

    private void set(Api own, long unit, int number) throws IOException, InterruptedException {
        ObjectNode cells = Api.JSON.createObjectNode();
        cells.putArray("cells")
                .addObject()
                .put("unitId", unit)
                .put("member", "")
                .put("name", "location")
                .put("value", "R" + unit + " u" + (1 + number));
        timed("set a fact", () -> own.send(stage.url(), "PUT", "/api/bring-ups/1/facts", cells));
    }

    private interface Exchange {
        HttpResponse<String> carryOut() throws IOException, InterruptedException;
    }

    private void timed(String what, Exchange exchange) throws IOException, InterruptedException {
        long start = System.nanoTime();
        HttpResponse<String> answer = exchange.carryOut();
        times.computeIfAbsent(what, key -> Collections.synchronizedList(new ArrayList<>()))
                .add((System.nanoTime() - start) / 1e6);
        if (answer.statusCode() >= 400) {
            faults.incrementAndGet();
        }
    }
}
