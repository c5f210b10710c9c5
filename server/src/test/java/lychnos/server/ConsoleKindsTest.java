package lychnos.server;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertNotEquals;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.quarkus.test.junit.QuarkusTest;
import io.vertx.core.Vertx;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.BiConsumer;
import lychnos.core.fact.ChangeWindow;
import lychnos.core.kind.KindReader;
import lychnos.core.text.Texts;
import lychnos.lab.Authority;
import lychnos.lab.console.AnyName;
import lychnos.lab.console.Directory;
import lychnos.lab.console.Habit;
import lychnos.lab.console.LicenceOffice;
import lychnos.lab.console.WebProxy;
import lychnos.server.http.Json;
import lychnos.server.text.BoardText;
import lychnos.server.text.ConfigureText;
import lychnos.server.text.HandoverText;
import org.hamcrest.Matchers;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfEnvironmentVariable;

/** What is particular about single kinds of machines, through the interface that screens use. */
@QuarkusTest
class ConsoleKindsTest {

    private static final String NAME_SERVER = "127.40.8.3";
    private static final String DIRECTORY = "127.40.8.44";

    @Test
    @EnabledIfEnvironmentVariable(
            named = "HALL",
            matches = ".+",
            disabledReason = "the mail relay runs in the hall that ./lychnos test makes")
    void aBundleWaitsUntilTheNetworkTeamHasSaidSo() {
        Vertx vertx = Vertx.vertx();
        try (AnyName names = new AnyName(vertx, NAME_SERVER);
                Directory directory = new Directory(
                        vertx, DIRECTORY, Map.of("joins-arrays", "peat-and-heather", "visitor", "over-the-fell"));
                ConsoleStage stage = new ConsoleStage().withDataNetwork()) {
            int unit = stage.single(
                    "file-array",
                    "skeggle",
                    "ferry-hazel-31-loft",
                    Map.ofEntries(
                            Map.entry("data VLAN", "416"),
                            Map.entry("data ports aggregated", "yes"),
                            Map.entry("directory", DIRECTORY),
                            Map.entry("account that joins", "joins-arrays"),
                            Map.entry("password on its card", "ferry-hazel-31-loft"),
                            Map.entry("password of the account that joins", "peat-and-heather"),
                            Map.entry("group that may manage", "storage-team"),
                            Map.entry("mail sender", "files@ardal.example"),
                            Map.entry("mail recipient", "operations@ardal.example"),
                            Map.entry("directory account", "visitor"),
                            Map.entry("password of the directory account", "over-the-fell")));
            stage.thing("relay", "relay", Map.of("address", "10.40.8.20"));
            stage.ready().begin(unit, "run");
            Map<String, Object> hold = stage.held(unit, 0, "PREREQUISITE");
            assertTrue(hold.get("sentence").toString().contains("bundled-at-switch"), hold::toString);
            stage.fact(unit, "bundled-at-switch", "yes");
            Json bench = stage.toTheEnd(unit);
            assertEquals("DONE", bench.getString("runState"), bench::prettify);
            assertEquals("storage-team", stage.hall().kept(stage.serial(0), "group"));
            assertEquals(
                    "1",
                    stage.hall().kept(stage.serial(0), "seen.refusedLogins"),
                    "the password on its card, at the end");
        } finally {
            vertx.close().toCompletionStage().toCompletableFuture().join();
        }
    }

    @Tag("wording")
    @Test
    void theControllerThatStandsByIsLeftOut() {
        try (ConsoleStage stage = new ConsoleStage()) {
            int unit = stage.chassis();
            stage.ready().begin(unit, "run");
            Json bench = stage.toTheEnd(unit);
            assertEquals("DONE", bench.getString("runState"), bench::prettify);
            assertEquals(Set.of("LEFT_OUT"), Set.copyOf(bench.getList("members[0].steps.progress")));
            assertTrue(bench.getString("members[0].note").contains("is standby"), bench::prettify);
            assertEquals("", stage.hall().kept(stage.serial(0) + "-1", "seen.logins"));
            assertEquals("2", stage.hall().kept(stage.serial(0) + "-2", "seen.logins"));
            assertEquals("2", stage.hall().kept(stage.serial(0) + "-2", "shell-policy"));
        }
    }

    @Test
    void aServersScreenIsWorkedOnThePageOfItsController() {
        try (ConsoleStage stage = new ConsoleStage()) {
            int unit = stage.single("server-controller-by-hand", "ullock", "-", Map.of());
            stage.ready().begin(unit, "run");
            Map<String, Object> hold = stage.held(unit, 0, "RESTARTS");
            assertTrue(hold.get("sentence").toString().contains("The server itself restarts"), hold::toString);
            Json bench = stage.toTheEnd(unit);
            assertEquals("DONE", bench.getString("runState"), bench::prettify);
            assertEquals("", stage.hall().kept(stage.serial(0), "host.Address"));
            assertTrue(stage.hall().kept(stage.serial(0), "controller.Address").startsWith("127.40.8."));
        }
    }

    @Test
    void outsideOfTheChangeWindowAPersonGivesAReason() {
        try (ConsoleStage stage = new ConsoleStage()) {
            int unit = stage.licenceHost("2999-12-31");
            stage.ready().fact(unit, "change-window", "2020-01-01T00:00Z/2020-01-02T00:00Z");
            String console = "/api/units/" + unit + "/console";
            stage.client
                    .post(console, Map.of("mode", "run"))
                    .statusCode(409)
                    .body("code", Matchers.equalTo("OUTSIDE_THE_CHANGE_WINDOW"))
                    .body("reasonWanted", Matchers.equalTo(true));
            stage.client
                    .post(console, Map.of("mode", "run", "reason", "so"))
                    .statusCode(400)
                    .body("faults[0].field", Matchers.equalTo("reason"));
            stage.client
                    .post(console, Map.of("mode", "run", "reason", "agreed with the hall"))
                    .statusCode(204);
            stage.tickFirst(unit);
            stage.held(unit, 0, "RESTARTS");
            stage.decide(stage.dialogue(unit, 0), "decision", Map.of("typed", ""))
                    .statusCode(409)
                    .body("code", Matchers.equalTo("OUTSIDE_THE_CHANGE_WINDOW"));
            Instant now = Instant.now();
            stage.fact(unit, "change-window", new ChangeWindow(now.minusSeconds(3600), now.plusSeconds(3600)) + "");
            stage.decide(stage.dialogue(unit, 0), "decision", Map.of("typed", ""))
                    .statusCode(204);
            stage.held(unit, 0, "PREREQUISITE");
            assertTrue(
                    stage.client
                            .get("/api/bring-ups/" + stage.bringUp + "/journal")
                            .prettify()
                            .contains(ConfigureText.WENT_ON_OUTSIDE_THE_CHANGE_WINDOW.text("agreed with the hall")),
                    "the reason is recorded");
        }
    }

    @Tag("wording")
    @Test
    void aLicenceHostWaitsForItsAnswerAndForItsDay() {
        try (ConsoleStage stage = new ConsoleStage()) {
            int unit = stage.licenceHost("2999-12-31");
            stage.ready().begin(unit, "run");
            stage.tickFirst(unit);
            stage.held(unit, 0, "RESTARTS");
            stage.yes(unit);
            String sentence = (String) stage.held(unit, 0, "PREREQUISITE").get("sentence");
            assertTrue(Texts.says("core.dialogue.DialogueText.WAITS_UNTIL_ENTERED", sentence), sentence);
            String request = stage.bench(unit)
                    .getString("members[0].steps.find { it.title == 'Request' }.told.'licence request'");
            stage.fact(unit, "registration-answer", new LicenceOffice("Buttermere").answer(request, 120));
            assertTrue(Texts.says(
                    "core.dialogue.DialogueText.WAITS_UNTIL",
                    stage.held(unit, 0, "DATE").get("sentence").toString()));
            assertTrue(
                    stage.client
                            .get("/api/bring-ups/" + stage.bringUp + "/board")
                            .prettify()
                            .contains(BoardText.WAITS_UNTIL.text("2999-12-31")),
                    "the Board says the day");
            stage.fact(unit, "granted-on", "2026-11-02");
            Json bench = stage.toTheEnd(unit);
            assertEquals("DONE", bench.getString("runState"), bench::prettify);
            assertTrue(stage.hall().kept(stage.serial(0), "page/count").contains("counted 120"));
        }
    }

    @Tag("wording")
    @Test
    void anEarlierRegistrationIsNotReplaced() {
        try (ConsoleStage stage = new ConsoleStage()) {
            int unit = stage.licenceHost("2026-11-02", Habit.REGISTERED_BEFORE);
            stage.ready().begin(unit, "run");
            stage.tickFirst(unit);
            stage.held(unit, 0, "RESTARTS");
            stage.yes(unit);
            String sentence = stage.held(unit, 0, "PAGE").get("sentence").toString();
            assertTrue(Texts.says(ConfigureText.NOT_WRITTEN, sentence) && sentence.contains("registered by hall-1"));
            assertEquals("", stage.hall().kept(stage.serial(0), "page/request"), "nothing was written");
        }
    }

    /** An access appliance that is set up, and the proxy through which it reaches its maker. */
    private static void withAccessAppliance(BiConsumer<ConsoleStage, Integer> then) {
        Vertx vertx = Vertx.vertx();
        try (WebProxy proxy = new WebProxy(
                        vertx, ConsoleUnits.PROXY, 3128, "hall", "out-by-the-gate", "activate.ardal.example:443");
                ConsoleStage stage = new ConsoleStage()) {
            int unit = stage.accessAppliance();
            stage.ready().begin(unit, "run");
            stage.tickFirst(unit);
            Json bench = stage.toTheEnd(unit);
            assertEquals("DONE", bench.getString("runState"), bench::prettify);
            then.accept(stage, unit);
        } finally {
            vertx.close();
        }
    }

    @Test
    void aTemporaryKeyIsReplacedAfterTheSetupHasEnded() {
        withAccessAppliance((stage, unit) -> {
            Json bench = stage.bench(unit);
            assertEquals("LATER", licence(bench), bench::prettify);
            stage.proven(unit, "management");
            assertTrue(
                    stage.client
                            .get("/api/bring-ups/" + stage.bringUp + "/handover")
                            .<String>getList("proposed.text")
                            .contains(HandoverText.PAGE_IS_LEFT_FOR_LATER.text("Licence")),
                    "it is proposed as an open item");
            stage.fact(unit, "licence-key", "K9-ARD-118-44");
            ConsoleStage.until(
                    "the key is replaced", () -> licence(stage.bench(unit)).equals("DONE"));
            bench = stage.toTheEnd(unit);
            assertEquals("DONE", bench.getString("runState"), bench::prettify);
            assertTrue(stage.hall().kept(stage.serial(0), "page/licence").contains("activated"));
            assertTrue(stage.hall().kept(stage.serial(0), "page/bridge").contains("replaced"));
        });
    }

    @Test
    void aSignedCertificateComesOntoPages() {
        withAccessAppliance((stage, unit) -> {
            Json before = stage.proven(unit, "management");
            assertEquals("PAGES", before.getString("certificate"));
            String path = "/api/endpoints/" + before.getInt("endpoint.claimId") + "/certificate-";
            String request = stage.client
                    .post(path + "request", Map.of())
                    .statusCode(200)
                    .json()
                    .getString("request");
            assertEquals(request, stage.proof(unit, "management").getString("signing.request"));
            stage.client
                    .post(path + "chain", Map.of("chain", new Authority().sign(request)))
                    .statusCode(204);
            Json after = stage.proof(unit, "management");
            assertNotEquals(before.getString("fingerprint"), after.getString("fingerprint"));
            assertNull(after.getString("signing.request"));
            stage.client
                    .post("/api/bring-ups/" + stage.bringUp + "/checks", Map.of("units", List.of(unit)))
                    .statusCode(200);
            ConsoleStage.until(
                    "its chain is seen",
                    () -> stage.proof(unit, "management").prettify().contains("2 certificates"),
                    () -> stage.proof(unit, "management").prettify());
            assertTrue(stage.proof(unit, "management").getBoolean("endpoint.proven"));
        });
    }

    private static String licence(Json bench) {
        return bench.getString("members[0].steps.find { it.title == 'Licence' }.progress");
    }

    @Test
    void aVirtualMachinesLineIsOpenedOnceItIsThere() {
        try (ConsoleStage stage = new ConsoleStage()) {
            int unit = stage.wireless();
            stage.ready().begin(unit, "run");
            ConsoleStage.until(
                    "it is taken up",
                    () -> stage.bench(unit).getString("runState").equals("RUNNING"));
            assertEquals(
                    ConfigureText.OPENS_WHEN_TICKED.text(), stage.bench(unit).getString("members[0].prerequisite"));
            stage.tickFirst(unit);
            Json bench = stage.toTheEnd(unit);
            assertEquals("DONE", bench.getString("runState"), bench::prettify);
            assertEquals(ConfigureText.LINE_PORT.text("hv-11", "6103"), bench.getString("members[0].line"));
            assertEquals("untagged", stage.hall().kept(stage.serial(0), "tag"));
        }
    }

    /** A kind that was put in as a text a moment ago; what is published while a unit is under way does not touch it. */
    @Test
    void aKindFromATextSetsUpAndAUnitEndsAsItBegan() {
        String text = KindReader.asWritten("server-controller-by-hand")
                .replaceFirst("kind: server-controller-by-hand", "kind: screen-of-our-own");
        publish("screen-of-our-own", text);
        try (ConsoleStage stage = new ConsoleStage()) {
            int unit = stage.single("screen-of-our-own", "ullock", "-", Map.of());
            stage.ready().begin(unit, "run");
            stage.held(unit, 0, "RESTARTS");
            String more = "  setup:\n    - { row: Colour, asked: Colour, answer: red, title: never asked }\n";
            publish("screen-of-our-own", text.replaceFirst("  setup: *(#[^\n]*)?\n", more));

            Json bench = stage.toTheEnd(unit);

            assertEquals("DONE", bench.getString("runState"), bench::prettify);
            assertFalse(bench.getList("members[0].steps.title").contains("never asked"), bench::prettify);
            assertTrue(stage.hall().kept(stage.serial(0), "controller.Address").startsWith("127.40.8."));
            assertEquals(
                    List.of(2, 1),
                    Client.viewer().get("/api/catalogue/screen-of-our-own").getList("history.version"));
        }
    }

    private static void publish(String kind, String text) {
        Client.engineer()
                .request()
                .contentType("text/plain; charset=UTF-8")
                .body(text)
                .put("/api/catalogue/" + kind + "/draft")
                .statusCode(200)
                .body("faults", Matchers.hasSize(0));
        Client.lead()
                .post("/api/catalogue/" + kind + "/publish", Map.of("note", "ours"))
                .statusCode(200);
    }
}
