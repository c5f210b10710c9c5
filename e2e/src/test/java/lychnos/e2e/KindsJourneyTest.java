package lychnos.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.junit.jupiter.api.Assertions.assertEquals;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.TimeoutError;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import java.io.IOException;
import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/**
 * A machine of each kind that the other journeys do not have, set up through the browser: by lines, by pages, over
 * Redfish, by hand.
 */
class KindsJourneyTest {

    private static final Duration LONG = Duration.ofSeconds(240);

    private static final String HALL =
            """
            brathay KI-1 02:4c:59:e7:01:01 6101 iog 1 - -
            wythop KC-1 02:4c:59:e7:02:01 6102 bch 1 - stands-by
            wythop KC-1 02:4c:59:e7:02:02 6103 bch 2 - stands-by
            skeggle KF-1 02:4c:59:e7:03:01 6104 fil 1 ferry-hazel-31-loft -
            ullock KU-1 02:4c:59:e7:04:01 6105 srh 1 - -
            mungris KM-1 02:4c:59:e7:05:01 10.40.8.23:6103 air 1 - old-release
            bannisdale KB-1 02:4c:59:e7:06:01 6106 blk 1 - -
            bannisdale KB-1 02:4c:59:e7:06:02 6107 blk 2 - -
            harrop KH-1 02:4c:59:e7:07:01 0 idx 1 10.47.254.1 -
            crummock KL-1 02:4c:59:e7:09:01 10.40.8.23:6104 lbc 1 - -
            seathwaite KS-1 02:4c:59:e7:08:01 0 obj 1 tag-of-the-first -
            seathwaite KS-2 02:4c:59:e7:08:08 0 obj 2 tag-of-the-second -
            """;

    private static final Map<String, String> FIRMWARE = Map.of(
            "kin-iog-1", "3.10.0",
            "kin-bch-1", "5.1.3",
            "kin-fil-1", "14.2",
            "kin-air-1", "1.0.8.1",
            "kin-blk-1", "8.0.2",
            "kin-lbc-1", "3.4.0");

    private Api api;
    private String server;
    private final Map<String, Long> units = new LinkedHashMap<>();

    private JsonNode ask(String method, String path, Map<String, ?> body) throws IOException, InterruptedException {
        return api.ask(server, method, path, body == null ? null : Api.JSON.<ObjectNode>valueToTree(body));
    }

    private void thing(String sort, String name, Map<String, String> values) throws IOException, InterruptedException {
        new Api(server, "hall-lead", "lead-of-the-hall")
                .ask(
                        server,
                        "PUT",
                        "/api/bring-ups/1/site-resources",
                        Api.JSON.<ObjectNode>valueToTree(Map.of("sort", sort, "name", name, "values", values)));
    }

    private void network(String how, Map<String, Object> network) throws IOException, InterruptedException {
        ask("PUT", "/api/bring-ups/1/" + how, network);
    }

    private static Map<String, Object> network(String name, String base, String pool) {
        Map<String, Object> network =
                new LinkedHashMap<>(Map.of("name", name, "prefix", base + ".0/24", "domain", "ardal.example"));
        network.put("nameServers", List.of("10.40.8.3", "10.40.8.4"));
        network.put("timeServers", List.of("10.40.8.6", "10.40.8.7", "10.40.8.8"));
        network.put("ranges", List.of(Map.of("purpose", "pool", "run", pool, "note", "")));
        return network;
    }

    /** FreeSpace, facts and addresses, through the interface without a browser. */
    private void prepare() throws IOException, InterruptedException {
        ask(
                "POST",
                "/api/bring-ups",
                Map.of("name", "Kinds", "siteCode", "kin", "siteName", "Ardal", "positions", List.of()));
        Map<String, Object> management = network("Management", "10.40.16", ".100-.199");
        management.put("gateway", "10.40.16.1");
        network("network", management);
        Map<String, Object> data = network("Storage data", "10.40.9", ".200-.239");
        data.putAll(Map.of("purpose", "storage-data", "mtu", 9000, "vlan", 409));
        network("networks", data);
        thing("lines", "lines-1", Map.of("address", Stage.LINES, "protocol", "rfc2217", "ports", "6101-6199"));
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
                        "10.40.8.23",
                        "line-ports",
                        "6101-6116"));
        thing("fabric", "compute", Map.of("switches", "4"));
        thing("relay", "relay", Map.of("address", "10.40.8.20"));
        thing(
                "proxy",
                "proxy-1",
                Map.of("address", "10.40.8.25", "port", "3128", "user", "hall", "key", "out-by-the-gate"));
        for (String policy : List.of("telemetry", "remote-support", "diagnostics", "licence-terms")) {
            thing(
                    "policy",
                    policy,
                    Map.of(
                            "answer",
                            policy.equals("licence-terms") ? "yes" : "no",
                            "reason",
                            "the hall is isolated",
                            "who",
                            "lead of the hall",
                            "when",
                            "2026-11-02"));
        }
        for (String kind : List.of(
                "infiniband-gateway 1",
                "blade-chassis 2",
                "file-array 1",
                "server-controller-by-hand 1",
                "wireless-controller 1",
                "block-array 2",
                "index-appliance 1",
                "balancer-console 1",
                "backup-store 2")) {
            long id = ask(
                            "POST",
                            "/api/bring-ups/1/units",
                            Map.of(
                                    "kind",
                                    kind.split(" ")[0],
                                    "count",
                                    1,
                                    "members",
                                    Integer.parseInt(kind.split(" ")[1])))
                    .path(0)
                    .asLong();
            units.put(bench(id).path("name").asText(), id);
        }
        List<String> titles = KindsFacts.ALL.values().stream()
                .flatMap(row -> row.keySet().stream())
                .distinct()
                .toList();
        StringBuilder csv = new StringBuilder("unit,member," + String.join(",", titles) + "\n");
        KindsFacts.ALL.forEach((unit, row) -> csv.append(unit)
                .append(titles.stream()
                        .map(title -> "," + row.getOrDefault(title, ""))
                        .reduce("", String::concat))
                .append('\n'));
        assertEquals(
                200,
                api.text(server, "/api/bring-ups/1/facts.csv", csv.toString()).statusCode());
        for (long unit : units.values()) {
            JsonNode fit = ask("GET", "/api/bring-ups/1/fits?unit=" + unit, null)
                    .path("fits")
                    .path(0);
            ObjectNode taking = Api.JSON.createObjectNode();
            taking.set("lines", fit.path("lines"));
            taking.set("growth", fit.path("growth"));
            api.ask(server, "POST", "/api/bring-ups/1/allocations", taking);
        }
    }

    private JsonNode bench(long unit) throws IOException, InterruptedException {
        return ask("GET", "/api/units/" + unit + "/bench", null);
    }

    private boolean done(long unit) {
        try {
            return bench(unit).path("runState").asText().equals("DONE");
        } catch (IOException e) {
            throw new AssertionError(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new AssertionError(e);
        }
    }

    @Test
    void eachKindIsSetUpThroughTheBrowser() throws Exception {
        try (Stage stage = Stage.ofConsolesAndServices(HALL, 400, "10.40.16.0/24", "10.40.16.224 - 10.40.16.229");
                Screen screen = new Screen(1280, 800, ColorScheme.DARK)) {
            server = stage.url();
            api = new Api(server);
            prepare();
            screen.signIn(server);
            for (long unit : units.values()) {
                screen.page.navigate(server + "/b/1/configure?unit=" + unit);
                screen.button("Start and run to the next decision").click();
                assertThat(screen.button("Start and run to the next decision")).isHidden();
            }
            for (Map.Entry<String, Long> unit : units.entrySet()) {
                screen.page.navigate(server + "/b/1/configure?unit=" + unit.getValue());
                try {
                    Stage.until(unit.getKey() + " is set up", LONG, () -> {
                        sayYes(screen);
                        return done(unit.getValue());
                    });
                } catch (AssertionError e) {
                    throw new AssertionError(standing(unit.getValue()), e);
                }
            }
            assertFirmware();
            restricted(stage);
            assertEquals("serves ardal-backup", stage.kept("KS-2", "state"));
            assertEquals("in service", stage.kept("KB-1-1", "service"));
            assertEquals("storage-team", stage.kept("KF-1", "group"));
            // a machine may continue between a look and the press of the button; that press is refused
            assertEquals(
                    List.of(),
                    screen.complaints().stream()
                            .filter(each -> !each.matches(".*status of 409 .* at \\S+/decision:.*"))
                            .toList());
        }
    }

    /** What each machine shows of its own software is read at its check, and one is older than the site wants. */
    private void assertFirmware() throws IOException, InterruptedException {
        Map<String, String> read = new LinkedHashMap<>();
        FIRMWARE.keySet()
                .forEach(unit ->
                        read.put(unit, proof(units.get(unit)).path("firmware").asText()));
        assertEquals(FIRMWARE, read, () -> read.entrySet().stream()
                .filter(each -> !each.getValue().equals(FIRMWARE.get(each.getKey())))
                .map(each -> proof(units.get(each.getKey())).toPrettyString())
                .toList()
                .toString());
        thing("firmware", "wireless-controller", Map.of("rule", "at least", "version", "8.0"));
        Stage.until("the old firmware is a finding", LONG, () -> api.look(server, "/api/bring-ups/1/prepare")
                .findValuesAsText("code")
                .contains("firmware-baseline"));
    }

    /** SSH answers the management networks and no others: tried with an address here and one in the annex. */
    private void restricted(Stage stage) throws IOException, InterruptedException {
        Api lead = new Api(server, "hall-lead", "lead-of-the-hall");
        JsonNode made = lead.ask(server, "POST", "/api/vantages", Api.JSON.valueToTree(Map.of("name", "annex")));
        long unit = units.get("kin-lbc-1");
        try (Annex annex = new Annex(server)) {
            Process vantage =
                    stage.vantage(annex.inside(), server, made.path("token").asText());
            try {
                Stage.until("the annex is linked", LONG, () -> lead.look(server, "/api/vantages")
                        .path(0)
                        .path("linked")
                        .asBoolean());
                ask("POST", "/api/bring-ups/1/checks", Map.of("units", List.of(unit)));
                Stage.until(
                        "SSH is tried from both",
                        LONG,
                        () -> tried(unit, "SSH from hall-2 jump host (10.40.16.5)", "answers")
                                && tried(unit, "SSH from annex (" + Annex.ADDRESS + ")", "does not answer"),
                        () -> proof(unit).toPrettyString());
                assertEquals(true, proof(unit).path("endpoint").path("proven").asBoolean());
            } finally {
                vantage.descendants().forEach(ProcessHandle::destroyForcibly);
                vantage.destroyForcibly().waitFor();
            }
        }
    }

    private JsonNode proof(long unit) {
        return api.look(server, "/api/units/" + unit + "/proof");
    }

    /** Whether the newest check holds a part of this name that was seen so and is as it must be. */
    private boolean tried(long unit, String name, String seen) {
        for (JsonNode part : proof(unit).path("rungs").path(6).path("parts")) {
            if (part.path("name").asText().equals(name)) {
                return part.path("seen").asText().equals(seen)
                        && part.path("standing").asText().equals("HOLDS");
            }
        }
        return false;
    }

    /** Where the members of a unit stand, for a message. */
    private String standing(long unit) throws IOException, InterruptedException {
        StringBuilder standing = new StringBuilder();
        for (JsonNode member : bench(unit).path("members")) {
            standing.append(member.path("label").asText())
                    .append(' ')
                    .append(member.path("state").asText())
                    .append(' ')
                    .append(member.path("prerequisite").asText())
                    .append(' ')
                    .append(member.path("hold"))
                    .append(' ')
                    .append(member.path("note").asText());
            member.path("steps")
                    .forEach(step -> standing.append(
                            step.path("progress").asText().equals("DONE")
                                    ? ""
                                    : "\n  " + step.path("progress").asText() + " "
                                            + step.path("title").asText()));
        }
        return standing.toString();
    }

    private static final double SOON = 2000;

    /** Types what is wanted and says yes, where something is asked now. */
    private static void answer(Screen screen) {
        Locator typed = screen.page.locator("form.say input");
        if (typed.isVisible()) {
            String label = screen.page
                    .locator("form.say label")
                    .textContent(new Locator.TextContentOptions().setTimeout(SOON));
            typed.fill(label.replaceFirst("^\\s*Type ", "").strip(), new Locator.FillOptions().setTimeout(SOON));
        }
        Locator yes = screen.page.locator("form.say button[type=submit]:enabled");
        if (yes.isVisible()) {
            yes.click(new Locator.ClickOptions().setTimeout(SOON));
        }
    }

    /**
     * What a person does at each member who sees nothing amiss: types what is wanted, says yes, ticks what was done by
     * hand.
     */
    private static void sayYes(Screen screen) {
        Locator tabs = screen.page.getByRole(AriaRole.TAB);
        int members = Math.max(1, tabs.count() - 1);
        for (int i = 0; i < members; i++) {
            if (tabs.count() > 1) {
                tabs.nth(i).click();
            }
            try {
                answer(screen);
            } catch (TimeoutError e) {
                continue; // the machine continued between two looks; the next look comes soon
            }
            compare(screen);
            Locator tick = screen.page.locator("ol input[type=checkbox]:not(:checked)");
            if (tick.count() > 0 && tick.first().isVisible()) {
                tick.first().click();
            }
        }
    }

    /** The appliance's serial is on its lid; the other machines identify themselves. */
    private static void compare(Screen screen) {
        Locator read = screen.page.getByLabel("Serial number or MAC address");
        if (read.count() > 0 && read.isVisible()) {
            read.fill("KH-1");
            screen.button("Compare with the label").click();
            assertThat(screen.text("read KH-1 on the machine")).isVisible();
        }
    }
}
