package lychnos.e2e;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.microsoft.playwright.options.ColorScheme;
import java.io.IOException;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.locks.LockSupport;

/**
 * Measures console lines: two hundred dialogues at once against one pair alone, what processor time a question costs
 * the server, and how long a byte takes from the line to the browser. Run by {@code ./lychnos bench lines}.
 */
public final class LinesBench {

    private static final int PAIRS = BenchSize.of(100, 2);
    /**
     * Set up before anything is measured, a hundred at a time: a server that has just started is still being compiled.
     */
    private static final int WARM_UP = BenchSize.of(201, 1);
    /** What a machine takes for a restart: next to nothing, and a third of what this kind usually takes. */
    private static final long SHORT_MILLIS = 2000;

    private static final long LONG_MILLIS = 60_000;
    /** How often somebody looks who says yes where one waits for it. */
    private static final Duration BETWEEN_LOOKS = Duration.ofSeconds(1);

    private static final int BYTES = BenchSize.of(300, 20);
    private static final int RAW_PORT = 4901;
    private static final int FIRST_PORT = 6101;

    private LinesBench() {}

    public static void main(String[] args) throws Exception {
        System.out.println();
        dialogues(SHORT_MILLIS, WARM_UP);
        if (BenchSize.of(1, 0) == 1) {
            dialogues(LONG_MILLIS, 1);
        }
        bytes();
    }

    // --- two hundred at once ---

    private static String machines(int pairs) {
        StringBuilder file = new StringBuilder();
        for (int i = 0; i < 2 * pairs; i++) {
            file.append(String.format(
                    "orrel LB-%d 02:4c:59:f0:%02x:%02x %d pair%d %s - -%n",
                    i, i >> 8, i & 255, FIRST_PORT + i, i / 2, i % 2 == 0 ? "left" : "right"));
        }
        return file.toString();
    }

    private static void dialogues(long restartMillis, int warmUp) throws Exception {
        try (Stage stage = Stage.ofConsoles(machines(warmUp + 1 + PAIRS), restartMillis)) {
            Api api = new Api(stage.url(), "hall-lead", "lead-of-the-hall");
            Hall warm = new Hall(api, stage.url(), 1, "wrm", "10.40.32.0/20", "10.40.33.0-10.40.47.200");
            List<Long> before = warm.prepare(0, warmUp);
            // the first of its kind goes alone
            warm.run(before.subList(0, 1));
            for (int from = 1; from < warmUp; from += PAIRS) {
                warm.run(before.subList(from, Math.min(warmUp, from + PAIRS)));
            }
            // what is measured is looked at alone
            Hall hall = new Hall(api, stage.url(), 2, "lin", "10.40.16.0/21", "10.40.17.0-10.40.23.200");
            List<Long> units = hall.prepare(warmUp, 1 + PAIRS);
            double alone = hall.run(units.subList(0, 1));
            long used = stage.processorMillis();
            double together = hall.run(units.subList(1, units.size()));
            used = stage.processorMillis() - used;
            int questions = Integer.parseInt(
                    stage.sql("\\pset tuples_only\n\\pset format unaligned\nselect sum(times_sent) from dialogue_step "
                                    + "s join dialogue d on d.id = s.dialogue_id where d.unit_id > "
                                    + units.get(0) + ";")
                            .replaceAll("(?s).*\n(?=\\d)", "")
                            .strip());
            System.out.printf(
                    Locale.ROOT,
                    "%nmachines that restart in %d s, after %d pairs as a warm-up%n",
                    restartMillis / 1000,
                    warmUp);
            System.out.printf(
                    Locale.ROOT,
                    "%-52s %8.1f s %8.1f s %7.2f×%n",
                    2 * PAIRS + " dialogues at once, against one pair alone",
                    together,
                    alone,
                    together / alone);
            System.out.printf(
                    Locale.ROOT,
                    "%-52s %8.2f ms (%d questions)%n",
                    "processor time of the server for each question",
                    (double) used / questions,
                    questions);
            System.out.printf(
                    Locale.ROOT, "%-52s %8d MB%n", "memory of the server after that", stage.residentMegabytes());
        }
    }

    /** One bring-up of pairs. */
    private record Hall(Api api, String url, int bringUp, String site, String prefix, String pool) {

        private String at(String path) {
            return "/api/bring-ups/" + bringUp + "/" + path;
        }

        List<Long> prepare(int firstPair, int pairs) throws Exception {
            ask(
                    api,
                    url,
                    "POST",
                    "/api/bring-ups",
                    Map.of("name", site, "siteCode", site, "siteName", site, "positions", List.of()));
            network(api, url, bringUp, prefix, pool);
            ask(
                    api,
                    url,
                    "PUT",
                    at("site-resources"),
                    Map.of(
                            "sort",
                            "lines",
                            "name",
                            "lines-1",
                            "values",
                            Map.of("address", Stage.LINES, "protocol", "rfc2217", "ports", FIRST_PORT + "-7999")));
            ask(
                    api,
                    url,
                    "PUT",
                    at("site-resources"),
                    Map.of(
                            "sort",
                            "policy",
                            "name",
                            "licence-terms",
                            "values",
                            Map.of("answer", "yes", "reason", "bought", "who", "lead", "when", "2026-11-02")));
            List<Long> units = new ArrayList<>();
            api.ask(
                            url,
                            "POST",
                            at("units"),
                            Api.JSON.valueToTree(Map.of("kind", "interconnect-pair", "count", pairs, "members", 2)))
                    .forEach(id -> units.add(id.asLong()));
            StringBuilder facts = new StringBuilder("unit,member,serial,MAC address,location,console line\n");
            for (int i = 0; i < units.size(); i++) {
                String name = ask(api, url, "GET", "/api/units/" + units.get(i) + "/bench", null)
                        .path("name")
                        .asText();
                for (int side = 0; side < 2; side++) {
                    int n = 2 * (firstPair + i) + side;
                    facts.append(String.format(
                            "%s,%s,LB-%d,02:4c:59:f0:%02x:%02x,R%d u%d,%d%n",
                            name,
                            side == 0 ? "left" : "right",
                            n,
                            n >> 8,
                            n & 255,
                            1 + n / 40,
                            1 + n % 40,
                            FIRST_PORT + n));
                }
            }
            api.text(url, at("facts.csv"), facts.toString());
            JsonNode proposal = ask(api, url, "GET", at("proposal"), null);
            ObjectNode taking = Api.JSON.createObjectNode();
            taking.set("lines", proposal.path("lines"));
            taking.set("growth", proposal.path("growth"));
            api.ask(url, "POST", at("allocations"), taking);
            return units;
        }

        /** Begins units and says yes wherever one waits for it, until all are set up; gives the seconds. */
        double run(List<Long> units) throws Exception {
            long begin = System.nanoTime();
            ask(
                    api,
                    url,
                    "POST",
                    at("consoles"),
                    Map.of("mode", "run", "units", units, "reason", "all of them are measured at once"));
            while (true) {
                boolean done = true;
                List<Long> held = new ArrayList<>();
                for (JsonNode lane : ask(api, url, "GET", at("lanes"), null).path("lanes")) {
                    done &= lane.path("state").asText().equals("DONE");
                    if (lane.path("state").asText().equals("HELD")) {
                        held.add(lane.path("dialogueId").asLong());
                    }
                }
                if (done) {
                    return (System.nanoTime() - begin) / 1e9;
                }
                for (long dialogue : held) {
                    api.send(
                            url,
                            "POST",
                            "/api/dialogues/" + dialogue + "/decision",
                            Api.JSON.createObjectNode().put("typed", ""));
                }
                LockSupport.parkNanos(BETWEEN_LOOKS.toNanos());
            }
        }
    }

    /** Large enough for three addresses a pair. */
    private static void network(Api api, String url, int bringUp, String prefix, String pool) throws Exception {
        ask(
                api,
                url,
                "PUT",
                "/api/bring-ups/" + bringUp + "/network",
                Map.of(
                        "name",
                        "Management",
                        "prefix",
                        prefix,
                        "gateway",
                        prefix.replace(".0/", ".1/").replaceFirst("/.*", ""),
                        "domain",
                        "ardal.example",
                        "nameServers",
                        List.of("10.40.8.3", "10.40.8.4"),
                        "timeServers",
                        List.of("10.40.8.6", "10.40.8.7", "10.40.8.8"),
                        "ranges",
                        List.of(Map.of("purpose", "pool", "run", pool, "note", ""))));
    }

    private static JsonNode ask(Api api, String url, String method, String path, Map<String, ?> body)
            throws IOException, InterruptedException {
        return api.ask(url, method, path, body == null ? null : Api.JSON.valueToTree(body));
    }

    // --- a byte from the line to the browser ---

    private static void bytes() throws Exception {
        try (Stage stage = Stage.ofConsoles(machines(1), 500);
                ServerSocket line = new ServerSocket(RAW_PORT, 5, InetAddress.getByName("127.0.0.1"));
                Screen screen = new Screen(1280, 800, ColorScheme.LIGHT)) {
            Api api = new Api(stage.url(), "hall-lead", "lead-of-the-hall");
            ask(
                    api,
                    stage.url(),
                    "POST",
                    "/api/bring-ups",
                    Map.of("name", "Byte", "siteCode", "byt", "siteName", "Ardal", "positions", List.of()));
            network(api, stage.url(), 1, "10.40.16.0/21", "10.40.17.0-10.40.23.200");
            ask(
                    api,
                    stage.url(),
                    "PUT",
                    "/api/bring-ups/1/site-resources",
                    Map.of(
                            "sort",
                            "lines",
                            "name",
                            "lines-1",
                            "values",
                            Map.of("address", "127.0.0.1", "protocol", "raw", "ports", String.valueOf(RAW_PORT))));
            long unit = ask(
                            api,
                            stage.url(),
                            "POST",
                            "/api/bring-ups/1/units",
                            Map.of("kind", "fabric-controller", "count", 1, "members", 1))
                    .path(0)
                    .asLong();
            api.text(
                    stage.url(),
                    "/api/bring-ups/1/facts.csv",
                    "unit,member,serial,MAC address,location,console line,tunnel endpoints,control "
                            + "VLAN,switches planned,nodes in the cluster,fabric name\nbyt-fdc-1,controller "
                            + "1,BY-1,02:4c:59:f1:00:01,R1 u1,"
                            + RAW_PORT + ",10.45.0.0/16,3900,6,1,byt-fabric\n");
            JsonNode fits = ask(api, stage.url(), "GET", "/api/bring-ups/1/fits?unit=" + unit, null)
                    .path("fits");
            ObjectNode taking = Api.JSON.createObjectNode();
            taking.set("lines", fits.path(0).path("lines"));
            taking.set("growth", fits.path(0).path("growth"));
            api.ask(stage.url(), "POST", "/api/bring-ups/1/allocations", taking);
            ask(api, stage.url(), "POST", "/api/units/" + unit + "/console", Map.of("mode", "watch"));
            try (Socket console = line.accept()) {
                console.setTcpNoDelay(true);
                measure(stage, screen, console.getOutputStream(), unit);
            }
        }
    }

    private static void measure(Stage stage, Screen screen, OutputStream machine, long unit) throws Exception {
        // notes when each numbered word has come to the page
        screen.page.addInitScript("window.came = {}; const Plain = WebSocket; window.WebSocket = class extends Plain { "
                + "constructor(...a) { super(...a);"
                + " this.addEventListener('message', (event) => { for (const word of "
                + "String(event.data).matchAll(/#(\\d+)#/g)) window.came[word[1]] = Date.now(); "
                + "}); } };");
        screen.signIn(stage.url());
        screen.page.navigate(stage.url() + "/b/1/configure?unit=" + unit);
        screen.page.getByText("recording").first().waitFor();
        long[] sent = new long[BYTES];
        for (int i = 0; i < BYTES; i++) {
            sent[i] = System.currentTimeMillis();
            machine.write(("#" + i + "# a log line of the machine\r\n").getBytes(StandardCharsets.US_ASCII));
            machine.flush();
            LockSupport.parkNanos(Duration.ofMillis(20).toNanos());
        }
        screen.page.waitForFunction("() => window.came['" + (BYTES - 1) + "'] !== undefined");
        long[] took = new long[BYTES];
        for (int i = 0; i < BYTES; i++) {
            took[i] = ((Number) screen.page.evaluate("i => window.came[i]", String.valueOf(i))).longValue() - sent[i];
        }
        Arrays.sort(took);
        System.out.printf(
                Locale.ROOT,
                "%-52s median %d ms, p95 %d ms, longest %d ms%n",
                "a byte from the line to the browser",
                took[BYTES / 2],
                took[BYTES * 95 / 100],
                took[BYTES - 1]);
    }
}
