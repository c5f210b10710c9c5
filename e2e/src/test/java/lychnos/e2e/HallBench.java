package lychnos.e2e;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Measures the server with a hall of 5,000 units: 10,000 addresses taken in one transaction against a plain COPY of the
 * same rows, the first view and the scrolling of the two large screens, and what memory the server holds then.
 */
public final class HallBench {

    private static final int ROUNDS = BenchSize.of(5, 1);
    /**
     * Units with three addresses, and with one; of the latter so many are announced again before the screens are looked
     * at.
     */
    private static final int PAIRS = BenchSize.of(3000, 20);

    private static final int SINGLES = BenchSize.of(1000, 130);
    private static final int FRAMES = BenchSize.of(120, 10);
    private static final Pattern MILLIS = Pattern.compile("Time: ([0-9.]+) ms");

    private final Stage stage;
    private final Api api;
    private long bringUp;

    private HallBench(Stage stage) throws Exception {
        this.stage = stage;
        api = new Api(stage.url());
    }

    public static void main(String[] args) throws Exception {
        // nothing is to answer here, and silence is not what is measured; Java is started as ./lychnos start does
        try (Stage stage = new Stage("", 500, Map.of("LYCHNOS_VANTAGE_HEARS_SILENCE", "false"), List.of())) {
            HallBench bench = new HallBench(stage);
            bench.fill();
            bench.take();
            bench.look();
        }
    }

    private JsonNode ask(String method, String path, JsonNode body) throws IOException, InterruptedException {
        return api.ask(stage.url(), method, "/api/bring-ups/" + bringUp + "/" + path, body);
    }

    /** 3,000 units that need three addresses each and 1,000 that need one, in a /16. */
    private void fill() throws Exception {
        ObjectNode begin = Api.JSON
                .createObjectNode()
                .put("name", "Five thousand")
                .put("siteCode", "ard")
                .put("siteName", "Ardal");
        begin.putArray("positions");
        bringUp =
                api.ask(stage.url(), "POST", "/api/bring-ups", begin).path("id").asLong();
        ask(
                "PUT",
                "network",
                Api.JSON.readTree(
                        """
                {"name":"Management","prefix":"10.41.0.0/16","gateway":"10.41.0.1","vlan":500,
                 "domain":"ardal.example","nameServers":[],"timeServers":[],
                 "ranges":[{"purpose":"pool","run":"10.41.1.0-10.41.250.255","note":""}]}"""));
        announce("interconnect-pair", PAIRS, 2);
        announce("hypervisor-host", SINGLES, 1);
    }

    private void announce(String kind, int count, int members) throws IOException, InterruptedException {
        ask(
                "POST",
                "units",
                Api.JSON
                        .createObjectNode()
                        .put("kind", kind)
                        .put("count", count)
                        .put("members", members));
    }

    private void take() throws Exception {
        ObjectNode taking = Api.JSON.createObjectNode();
        ArrayNode lines = taking.putArray("lines");
        ask("GET", "proposal", null).path("lines").forEach(lines::add);
        int addresses = 3 * PAIRS + SINGLES;
        if (lines.size() != addresses) {
            throw new IllegalStateException(addresses + " addresses were to be placed, not " + lines.size());
        }
        double[] ours = new double[ROUNDS];
        double[] copies = new double[ROUNDS];
        for (int round = -2; round < ROUNDS; round++) {
            long start = System.nanoTime();
            String id = ask("POST", "allocations", taking).path("allocation").asText();
            double millis = (System.nanoTime() - start) / 1e6;
            double copy = copy(id);
            if (round >= 0) {
                ours[round] = millis;
                copies[round] = copy;
            }
            if (round < ROUNDS - 1) {
                ask("POST", "allocations/" + id + "/undo", null);
            }
        }
        row(
                String.format(Locale.ROOT, "%,d addresses taken, with names and journal; COPY", addresses),
                median(ours),
                median(copies));
    }

    /** The same rows of the same three tables by COPY, into twins with the same indexes, checks and foreign keys. */
    private double copy(String taking) throws IOException {
        String rows =
                """
                drop table if exists twin_claim, twin_name, twin_journal;
                create table twin_claim (like claim including all, foreign key (unit_id) references unit,
                    foreign key (network_id, realm_id) references network (id, realm_id),
                    foreign key (taken_by) references account);
                create table twin_name (like name_record including all, foreign key (claim_id) references claim);
                create table twin_journal (like journal including all, foreign key (account_id) references account);
                \\copy (select * from claim where allocation = '%1$s') to '%2$s/claim'
                \\copy (select n.* from name_record n join claim c on c.id = n.claim_id \
                where c.allocation = '%1$s') to '%2$s/name'
                \\copy (select * from journal where act like 'allocated %%' order by id desc limit 1) to '%2$s/journal'
                begin;
                \\timing on
                \\copy twin_claim from '%2$s/claim'
                \\copy twin_name from '%2$s/name'
                \\copy twin_journal from '%2$s/journal'
                commit;
                """
                        .formatted(taking, stage.directory());
        Matcher times = MILLIS.matcher(stage.sql(rows));
        double sum = 0;
        int found = 0;
        while (times.find()) {
            sum += Double.parseDouble(times.group(1));
            found++;
        }
        if (found != 4) {
            throw new IOException("psql told " + found + " times instead of 4");
        }
        return sum;
    }

    private void look() throws Exception {
        announce("hypervisor-host", SINGLES, 1);
        System.out.printf(
                Locale.ROOT,
                "%nscreens of %,d units     first rows   of that, server   median frame   longest   over 50 ms of %d%n",
                PAIRS + 2 * SINGLES,
                FRAMES);
        try (Screen screen = new Screen()) {
            // the page itself notes when it happens: polling from outside would be too coarse
            screen.page.addInitScript(
                    """
                    window.firstSeen = {};
                    new MutationObserver(() => {
                      for (const selector of ['tr[id^=unit-]', 'td[id^=fact-]', 'td.proof']) {
                        if (!(selector in window.firstSeen) && document.querySelector(selector))
                          window.firstSeen[selector] = performance.now();
                      }
                    }).observe(document, { childList: true, subtree: true });""");
            screen.signIn(stage.url());
            look(screen.page, "Board", "/b/" + bringUp, "tr[id^=unit-]", ".windowed");
            look(screen.page, "fact sheet", "/b/" + bringUp + "/prepare", "td[id^=fact-]", ".windowed");
            look(screen.page, "hand over", "/b/" + bringUp + "/handover", "td.proof", ".windowed");
        }
        System.out.printf(Locale.ROOT, "server after that: %d MB resident%n", stage.residentMegabytes());
    }

    private void look(Page page, String what, String path, String row, String box) {
        double[] first = new double[BenchSize.of(5, 1)];
        double[] server = new double[first.length];
        // a server that people work with has been looked at before
        for (int i = -first.length; i < first.length; i++) {
            page.navigate(stage.url() + path);
            page.locator(row).first().waitFor(new Locator.WaitForOptions().setTimeout(30_000));
            double rows = ((Number) page.evaluate("selector => window.firstSeen[selector]", row)).doubleValue();
            Object answer =
                    page.evaluate("() => Math.max(...performance.getEntriesByType('resource').filter((entry) => "
                            + "entry.name.includes('/api/bring-ups/') && !entry.name.includes('rows=')).map((entry) "
                            + "=> entry.responseStart - entry.requestStart))");
            if (i >= 0) {
                first[i] = rows;
                server[i] = ((Number) answer).doubleValue();
            }
        }
        Object measured = page.evaluate(
                """
                async ([box, frames]) => {
                  const scrolled = document.querySelector(box);
                  const gaps = [];
                  let last = await new Promise(requestAnimationFrame);
                  for (let i = 0; i < frames; i++) {
                    scrolled.scrollTop += 200;
                    const now = await new Promise(requestAnimationFrame);
                    gaps.push(now - last);
                    last = now;
                  }
                  return gaps;
                }""",
                List.of(box, FRAMES));
        List<Double> gaps = new ArrayList<>();
        ((List<?>) measured).forEach(gap -> gaps.add(((Number) gap).doubleValue()));
        double[] sorted =
                gaps.stream().mapToDouble(Double::doubleValue).sorted().toArray();
        long late = Arrays.stream(sorted).filter(gap -> gap > 50).count();
        System.out.printf(
                Locale.ROOT,
                "%-26s %7.0f ms %14.0f ms %11.1f ms %6.1f ms %8d%n",
                what,
                median(first),
                median(server),
                median(sorted),
                sorted[sorted.length - 1],
                late);
    }

    private static void row(String what, double ours, double plain) {
        System.out.printf(Locale.ROOT, "%-55s %8.1f ms %8.1f ms %7.1f×%n", what, ours, plain, ours / plain);
    }

    private static double median(double[] values) {
        double[] sorted = values.clone();
        Arrays.sort(sorted);
        return sorted[sorted.length / 2];
    }
}
