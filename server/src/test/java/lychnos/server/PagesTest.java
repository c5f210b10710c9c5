package lychnos.server;

import static org.hamcrest.Matchers.equalTo;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.agroal.api.AgroalDataSource;
import io.quarkus.test.junit.QuarkusTest;
import io.vertx.core.Vertx;
import jakarta.inject.Inject;
import java.util.List;
import java.util.Map;
import lychnos.core.text.Texts;
import lychnos.lab.console.Habit;
import lychnos.lab.console.WebProxy;
import lychnos.server.http.Json;
import lychnos.server.text.PrepareText;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfEnvironmentVariable;

/** Pages that are filled in over a machine's documented interface, once its console is done. */
@QuarkusTest
@EnabledIfEnvironmentVariable(
        named = "HALL",
        matches = ".+",
        disabledReason = "the mail relay runs in the hall that ./lychnos test makes")
class PagesTest {

    /** Its own, and one to check for each controller. */
    private static final int ADDRESSES_OF_MANAGEMENT = 3;

    @Inject
    AgroalDataSource database;

    private final Vertx vertx = Vertx.vertx();
    private ConsoleStage stage;

    @BeforeEach
    void site() {
        stage = new ConsoleStage();
        stage.policy("telemetry");
        stage.policy("remote-support");
        stage.thing("relay", "relay", Map.of("address", "10.40.8.20"));
        stage.thing(
                "proxy",
                "proxy-1",
                Map.of("address", ConsoleUnits.PROXY, "port", "3128", "user", "hall", "key", "out-by-the-gate"));
    }

    @AfterEach
    void close() {
        stage.close();
        vertx.close().toCompletionStage().toCompletableFuture().join();
    }

    private Map<String, Object> step(Json bench, String title) {
        return bench.getMap("members[0].steps.find { it.title == '" + title + "' }");
    }

    private String kept(String name) {
        return stage.hall().kept(stage.serial(0) + "-1", name);
    }

    /**
     * At each of its addresses of management; the others may have been looked at by now, or not yet. What is looked at
     * before all of it is up is looked at again.
     */
    private void factoryPasswordTriedOnceAtEachLook(Json proof) {
        int tried = Integer.parseInt(kept("seen.refusedWebLogins"));
        assertTrue(
                tried >= 1
                        && tried
                                <= ADDRESSES_OF_MANAGEMENT
                                        * proof.getList("before").size(),
                () -> tried + " times: " + proof.prettify());
    }

    @Tag("wording")
    @Test
    void anArrayIsSetUpFromItsConsoleToItsLastPage() {
        try (WebProxy proxy = new WebProxy(
                vertx, ConsoleUnits.PROXY, 3128, "hall", "out-by-the-gate", "activate.ardal.example:443")) {
            int unit = stage.array(Map.of("proxy", "yes"));
            stage.ready().begin(unit, "run");
            Json bench = stage.toTheEnd(unit);
            assertEquals("DONE", bench.getString("runState"), bench::prettify);
            assertTrue(
                    step(bench, "Subnet for data")
                            .get("evidence")
                            .toString()
                            .contains("Purpose came as “to the twin array”"),
                    bench::prettify);
            assertTrue(kept("page/subnets/data").contains("host data"));
            assertTrue(kept("page/portal").contains("\"upper\":["));
            assertTrue(kept("page/mail").contains("taken: 250"), () -> kept("page/mail"));
            assertTrue(kept("page/support").contains("let out"), () -> kept("page/support"));
            assertFalse(kept("page/support").contains("out-by-the-gate"));
            assertEquals("in service", kept("service"));
            assertEquals("1", kept("seen.webPhraseChanges"));
            assertEquals(
                    "LEFT_OUT",
                    bench.getString("members[1].steps[0].progress"),
                    "the one that stands by was not asked");
            assertTrue(stage.client
                    .get("/api/bring-ups/" + stage.bringUp + "/lanes")
                    .getList("lanes.state")
                    .contains("STANDS_BY"));
            Json proof = stage.proven(unit, "management");
            assertTrue(
                    proof.getString("rungs[4].seen").contains(stage.serial(0) + " as on the label"), proof::prettify);
            assertTrue(
                    proof.getString("rungs[5].parts.name").contains("Target portal and data ports"), proof::prettify);
            assertTrue(proof.getString("rungs[6].seen").startsWith("factory password refused"), proof::prettify);
            factoryPasswordTriedOnceAtEachLook(proof);
            Json portal = stage.proven(unit, "target portal");
            assertTrue(
                    portal.getString("rungs[3].seen").startsWith("iSCSI, iqn.2026-11.example.bannisdale:"),
                    portal::prettify);
            assertTrue(portal.getString("rungs[3].parts[0].seen").contains("127.40.16."), portal::prettify);
        }
    }

    @Tag("wording")
    @Test
    void aPageThatKeepsWhatItCameWithIsNotedAndCanBeMendedByHand() {
        int unit = stage.array(Map.of(), Habit.PAGE_NOT_KEPT);
        stage.ready().begin(unit, "run");
        Json bench = stage.toTheEnd(unit, hold -> !hold.get("why").equals("PAGE"));
        Map<String, Object> hold = bench.getMap("members[0].hold");
        assertEquals("PAGE", hold.get("why"), bench::prettify);
        assertTrue(
                Texts.says(
                        "core.dialogue.DialogueText.FIELD_DIFFERS",
                        hold.get("sentence").toString()),
                hold::toString);
        long dialogue = stage.dialogue(unit, 0);
        stage.decide(dialogue, "mode", Map.of("mode", "watch")).statusCode(204);
        ConsoleStage.until(
                "a person does it by hand",
                () -> stage.bench(unit).getString("members[0].state").equals("BY_HAND"));
        stage.decide(
                        dialogue,
                        "tick",
                        Map.of("place", step(bench, "Subnet for data").get("place"), "done", true))
                .statusCode(204);
        stage.decide(dialogue, "mode", Map.of("mode", "run")).statusCode(204);
        bench = stage.toTheEnd(unit);
        assertEquals("DONE", bench.getString("runState"), bench::prettify);
        assertEquals("ticked by hand", step(bench, "Subnet for data").get("evidence"));
    }

    @Tag("wording")
    @Test
    void whatTheRelaySaysIsShownAndWhatIsMendedInPrepareIsTaken() {
        int unit = stage.array(Map.of("mail sender", "arrays@hall.lan"));
        stage.ready().begin(unit, "run");
        Json bench = stage.toTheEnd(unit, hold -> !hold.get("why").equals("PAGE"));
        assertTrue(
                bench.getString("members[0].hold.sentence").contains(PrepareText.NEITHER_MX_NOR_ADDRESS_RECORD.text()),
                bench::prettify);
        stage.fact(unit, "mail-sender", "arrays@ardal.example");
        assertEquals("DONE", stage.toTheEnd(unit).getString("runState"));
        assertTrue(kept("page/mail").contains("arrays@ardal.example"));
    }

    /**
     * As when a server dies: its lease ends, and the server that takes the unit over does not know how far the page in
     * hand had come.
     */
    @Test
    void whoeverTakesPagesOverChangesNoPasswordTwice() throws Exception {
        int unit = stage.array(Map.of());
        stage.ready().begin(unit, "run");
        for (String moment : java.util.List.of("seen.webPhraseChanges", "page/subnets/data", "page/licence")) {
            ConsoleStage.until(moment, () -> {
                stage.yes(unit);
                return !kept(moment).isEmpty();
            });
            run(unit, "RUNNING", "lease_until = now() - interval '1 second'");
        }
        Json bench = stage.toTheEnd(unit);
        assertEquals("DONE", bench.getString("runState"), bench::prettify);
        assertEquals("1", kept("seen.webPhraseChanges"));
        assertEquals("1", kept("seen.phraseChanges"));
        assertEquals("in service", kept("service"));
        factoryPasswordTriedOnceAtEachLook(stage.proven(unit, "management"));
        // as when a server goes away between the end of the last member and that of the unit
        run(unit, "DONE", "state = 'RUNNING', ended_at = null, lease_until = now() - interval '1 second'");
        ConsoleStage.until(
                "the server that takes it up ends it",
                () -> stage.bench(unit).getString("runState").equals("DONE"));
    }

    /** Changes the run of a unit under the server that works at it. */
    private void run(int unit, String state, String set) throws java.sql.SQLException {
        try (java.sql.Connection connection = database.getConnection();
                java.sql.PreparedStatement change = connection.prepareStatement(
                        "update run set " + set + " where unit_id = ? and state = ? and purpose = 'console'")) {
            change.setInt(1, unit);
            change.setString(2, state);
            assertEquals(1, change.executeUpdate());
        }
    }

    @Test
    void nothingIsWrittenToAnotherMachinesPages() {
        int unit = stage.array(Map.of(), Habit.OTHER_PAGES);
        stage.ready().begin(unit, "run");
        Map<String, Object> hold = stage.toTheEnd(unit).getMap("members[0].hold");
        assertEquals("WRONG_MACHINE", hold.get("why"), hold::toString);
        assertEquals("", kept("seen.webPhraseChanges"));
        assertEquals("", kept("seen.pagesWritten"));
    }

    @Test
    void whatCanNeverBeChangedIsTypedByAPerson() throws Exception {
        int unit = stage.array(Map.of());
        stage.ready().begin(unit, "run");
        Json bench = stage.toTheEnd(unit, hold -> !hold.get("why").equals("PERMANENT"));
        Map<String, Object> hold = bench.getMap("members[0].hold");
        assertEquals("double parity", hold.get("typed"), bench::prettify);
        assertEquals("", kept("page/pool"));
        long dialogue = stage.dialogue(unit, 0);
        stage.decide(dialogue, "decision", Map.of("typed", "mirrored")).statusCode(409);
        assertEquals("", kept("page/pool"));
        run(unit, "RUNNING", "fence = fence + 1, lease_owner = 'elsewhere', lease_until = now() + interval '1 hour'");
        stage.decide(dialogue, "decision", Map.of("typed", "double parity")).statusCode(409);
        run(unit, "RUNNING", "lease_until = now() - interval '1 second'");
        ConsoleStage.until(
                "the new server gets the yes",
                () -> stage.decide(dialogue, "decision", Map.of("typed", "double parity"))
                                .statusCode()
                        == 204);
        ConsoleStage.until("the pool is laid out", () -> kept("page/pool").contains("double parity"));
    }

    @Test
    void twoThatLeaveTheFactoryWithOneAddressAreNotBegunTogether() {
        Map<String, String> mail =
                Map.of("mail sender", "index@ardal.example", "mail recipient", "operations@ardal.example");
        int first = stage.single("index-appliance", "harrop", "127.47.254.1", mail);
        int second = stage.single("index-appliance", "harrop", "127.47.254.9", mail);
        stage.ready().begin(first, "run");
        stage.client
                .post(
                        "/api/units/" + second + "/console",
                        Map.of("mode", "run", "reason", "it is urgent, says the lead"))
                .statusCode(409)
                .body("code", equalTo("FACTORY_ADDRESS_IS_IN_USE"))
                .body("values.address", equalTo("10.47.254.1"));
        Client.lead()
                .post(
                        "/api/units/" + second + "/console",
                        Map.of("mode", "run", "reason", "it is urgent, says the lead"))
                .statusCode(409)
                .body("code", equalTo("FACTORY_ADDRESS_IS_IN_USE"));
        stage.client
                .request()
                .get("/api/bring-ups/" + stage.bringUp + "/lanes")
                .body("startable.find { it.unitId == " + second + " }.alone", equalTo(true));
    }

    /**
     * A person with the value sheet in one hand: every page of the appliance is found by its heading and filled in by
     * its labels.
     */
    @Test
    void anApplianceOnItsServicePortTakesWhatTheValueSheetSays() throws Exception {
        int unit = stage.single(
                "index-appliance",
                "harrop",
                "127.47.254.1",
                Map.of("mail sender", "index@ardal.example", "mail recipient", "operations@ardal.example"));
        stage.ready().begin(unit, "run");
        ConsoleStage.until(
                "it is there to be ticked",
                () -> stage.bench(unit).getString("members[0].state").equals("BY_HAND"));
        long dialogue = stage.dialogue(unit, 0);
        for (Map<String, Object> step : stage.bench(unit).<Map<String, Object>>getList("members[0].steps")) {
            @SuppressWarnings("unchecked")
            Map<String, String> fields = new java.util.LinkedHashMap<>((Map<String, String>) step.get("fields"));
            fields.replaceAll((label, value) -> value.startsWith("•") ? password(dialogue, step) : value);
            String shown = http("");
            if (shown.contains("<h1>" + step.get("title") + "</h1>")) {
                assertFalse(http(form(fields)).contains("role=alert"), step::toString);
            } else if (step.get("title").toString().startsWith("Is it")) {
                compare(unit, dialogue, step.get("place"), shown.replaceAll("(?s).*<p>Harrop ([^,]+),.*", "$1"));
                continue;
            }
            stage.decide(dialogue, "tick", Map.of("place", step.get("place"), "done", true))
                    .statusCode(204);
        }
        ConsoleStage.until(
                "every page is ticked",
                () -> stage.bench(unit).getString("runState").equals("DONE"));
        String address = stage.hall().kept(stage.serial(0), "Address/length");
        assertTrue(address.startsWith("127.40.8."), address);
        assertEquals("10.40.8.20", stage.hall().kept(stage.serial(0), "Relay"));
        assertTrue(stage.hall().kept(stage.serial(0), "Password").length() >= 10);
        // it was looked at while it still restarted, and again after that
        Json proof = stage.proven(unit, "management");
        assertTrue(
                proof.getString("rungs[5].parts.name").contains("Settings at its production address"), proof::prettify);
    }

    /** Which machine it is, is not ticked but entered, and it is the one of the label or nothing is recorded. */
    private void compare(int unit, long dialogue, Object place, String read) {
        stage.decide(dialogue, "tick", Map.of("place", place, "done", true)).statusCode(409);
        String path = "/api/dialogues/" + dialogue + "/comparison";
        for (String wrong : List.of("", "HR-9", "02:4c:59:00:00:99")) {
            stage.client.put(path, Map.of("read", wrong)).statusCode(400);
        }
        stage.client
                .put(path, Map.of("read", " " + read.toLowerCase(java.util.Locale.ROOT) + " "))
                .statusCode(204);
        assertEquals(read.toLowerCase(java.util.Locale.ROOT), stage.bench(unit).getString("members[0].compare.read"));
    }

    private String password(long dialogue, Map<String, Object> step) {
        return stage.client
                .post(
                        "/api/dialogues/" + dialogue + "/steps/" + step.get("place") + "/password?field=Password",
                        Map.of())
                .json()
                .getString("text");
    }

    private static String form(Map<String, String> fields) {
        return fields.entrySet().stream()
                .map(field -> encoded(field.getKey()) + "=" + encoded(field.getValue()))
                .collect(java.util.stream.Collectors.joining("&"));
    }

    private static String encoded(String text) {
        return java.net.URLEncoder.encode(text, java.nio.charset.StandardCharsets.UTF_8);
    }

    /** What the service port shows; a form that is not empty is handed in. Empty once it has given the address up. */
    private static String http(String form) throws InterruptedException {
        java.net.http.HttpRequest.Builder request = java.net.http.HttpRequest.newBuilder(
                        java.net.URI.create("http://127.47.254.1:18445/"))
                .timeout(java.time.Duration.ofSeconds(5));
        if (!form.isEmpty()) {
            request.header("Content-Type", "application/x-www-form-urlencoded")
                    .POST(java.net.http.HttpRequest.BodyPublishers.ofString(form));
        }
        try {
            return java.net.http.HttpClient.newHttpClient()
                    .send(request.build(), java.net.http.HttpResponse.BodyHandlers.ofString())
                    .body();
        } catch (java.io.IOException e) {
            return "";
        }
    }
}
