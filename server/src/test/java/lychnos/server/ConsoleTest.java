package lychnos.server;

import static org.hamcrest.Matchers.containsString;
import static org.hamcrest.Matchers.equalTo;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertNotEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.quarkus.test.junit.QuarkusTest;
import jakarta.inject.Inject;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import lychnos.core.text.Texts;
import lychnos.lab.console.Habit;
import lychnos.server.http.Json;
import lychnos.server.journal.Journal;
import lychnos.server.secrets.SealedStore;
import lychnos.server.text.ConfigureText;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** Machines set up on their consoles, through the interface that screens use. */
@QuarkusTest
class ConsoleTest {

    private static final Habit[] PLAIN = {};

    @Inject
    SealedStore sealed;

    @Inject
    Journal journal;

    @Test
    void aPairIsSetUpToItsEnd() {
        try (ConsoleStage stage = new ConsoleStage()) {
            int unit = stage.pair(PLAIN);
            stage.ready().begin(unit, "run");
            Json bench = stage.toTheEnd(unit);
            assertEquals("DONE", bench.getString("runState"));
            for (int member = 0; member < 2; member++) {
                String serial = stage.serial(member);
                String planned = bench.getString(
                        "members[" + member + "].steps.find { it.title == 'out-of-band address' }.answer");
                assertEquals(planned, stage.hall().kept(serial, "oob"));
                assertEquals("1", stage.hall().kept(serial, "seen.phraseChanges"));
                assertEquals(
                        "2", stage.hall().kept(serial, "seen.logins"), "once with the maker's phrase, once with ours");
                assertEquals("", stage.hall().kept(serial, "seen.refusedLogins"));
                assertEquals("yes", stage.hall().kept(serial, "paired"));
                assertTrue(
                        bench.getList("members[" + member + "].steps.times").stream()
                                .allMatch(times -> (int) times <= 1),
                        "nothing is typed twice");
            }
            assertEquals(List.of("Lychnos"), stage.acceptedBy("interconnect-pair"), "the site's consent covers them");
            String ours = sealed.open(unit, "keeper-password", SealedStore.SealedState.PROVEN)
                    .orElseThrow()
                    .use(word -> word);
            assertEquals(ours, stage.hall().kept(stage.serial(0), "phrase"));
            String cast = stage.client
                    .request()
                    .get("/api/dialogues/" + stage.dialogue(unit, 0) + "/recording.cast")
                    .asString();
            assertTrue(cast.startsWith("{\"") && cast.contains("\"version\":2"), cast.substring(0, 80));
            assertTrue(cast.contains("keeper login"));
            Json tried = stage.client
                    .post("/api/kinds/dry-run", Map.of("recording", cast))
                    .json();
            assertTrue(tried.getBoolean("agrees"), () -> tried.prettify() + cast);
            assertFalse(tried.prettify().contains(ours), "nor in a dry run");
            String ofAnother = "{\"version\":2}" + cast.substring(cast.indexOf('\n'));
            stage.client
                    .post("/api/kinds/dry-run", Map.of("recording", ofAnother))
                    .statusCode(400);
            Json imported = stage.client
                    .post("/api/kinds/dry-run", Map.of("recording", ofAnother, "unit", unit, "member", "left"))
                    .statusCode(200)
                    .json();
            assertTrue(imported.getBoolean("agrees"), imported::prettify);
            Json known = stage.client.get("/api/catalogue/interconnect-pair/units");
            assertEquals(List.of("left", "right"), known.getList("find { it.id == " + unit + " }.members"));
            Json answered = tried.at("moments.find { it.event == 'SENT' && it.text == '" + planned(bench) + "' }");
            assertEquals(
                    "out-of-band address",
                    tried.getString("steps[" + answered.getInt("step") + "].title"),
                    answered::prettify);
            assertFalse(answered.getList("screen").isEmpty(), "the screen with the question");
            assertEquals(
                    List.of("/catalogue/interconnect-pair/recordings/shipped"),
                    stage.client
                            .get("/api/catalogue/interconnect-pair/recordings")
                            .getList("path")
                            .subList(0, 1));
            assertTrue(stage.client
                    .get("/api/catalogue/interconnect-pair/recordings")
                    .getList("path")
                    .contains("/dialogues/" + stage.dialogue(unit, 0) + "/recording.cast"));
            assertTrue(cast.contains("orrel# "), "a prompt is no password, though the maker's is the same word");
            assertFalse(cast.contains(ours), "no password is in a recording");
            assertFalse(bench.prettify().contains(ours), "nor on a screen");
        }
    }

    @Test
    void termsThatDifferFromTheAcceptedOnesAreAskedAbout() {
        try (ConsoleStage stage = new ConsoleStage()) {
            stage.acceptedBefore("interconnect-pair", "0".repeat(64));
            int unit = stage.pair(PLAIN);
            stage.ready().begin(unit, "run");
            Json held = stage.toTheEnd(unit, hold -> !"TERMS".equals(hold.get("why")));
            assertTrue(
                    held.<Map<String, Object>>getList("members.hold").stream()
                            .anyMatch(hold -> hold != null
                                    && hold.get("why").equals("TERMS")
                                    && hold.get("shown").toString().contains("agree to their terms")),
                    held::prettify);
            stage.yes(unit);
            ConsoleStage.until(
                    "a person has accepted them",
                    () -> stage.acceptedBy("interconnect-pair").size() == 2);
            assertTrue(stage.acceptedBy("interconnect-pair").stream().noneMatch("Lychnos"::equals));
        }
    }

    private static String planned(Json bench) {
        return bench.getString("members[0].steps.find { it.title == 'out-of-band address' }.answer");
    }

    /** The other one's setup stands, and what is still on the line is told from the new machine by its serial. */
    @Tag("wording")
    @Test
    void ofAPairTheReplacedMemberAloneIsSetUpAgain() {
        try (ConsoleStage stage = new ConsoleStage()) {
            int unit = stage.pair(PLAIN);
            stage.ready().begin(unit, "run");
            assertEquals("DONE", stage.toTheEnd(unit).getString("runState"));
            long first = stage.dialogue(unit, 0);
            long second = stage.dialogue(unit, 1);
            Json parts = stage.client.get("/api/units/" + unit + "/members");
            Map<String, String> facts = new HashMap<>();
            parts.getMap("[1].facts")
                    .keySet()
                    .forEach(name -> facts.put(
                            name.toString(),
                            name.toString().contains("mac")
                                    ? "02:4c:59:d9:00:" + String.format("%02x", unit % 256)
                                    : stage.serial(1) + "N"));
            Client lead = Client.lead();
            Map<String, Object> other =
                    Map.of("member", parts.getString("[1].member"), "facts", facts, "why", "its fan is dead");
            lead.post("/api/units/" + unit + "/replacements", other).statusCode(204);
            assertEquals("", stage.bench(unit).getString("runState"), "it is to be begun");
            stage.begin(unit, "run");
            lead.post("/api/units/" + unit + "/replacements", other)
                    .statusCode(409)
                    .body("code", equalTo("IS_BEING_SET_UP"));
            stage.held(unit, 1, "WRONG_MACHINE");
            assertEquals(first, stage.dialogue(unit, 0));
            assertNotEquals(second, stage.dialogue(unit, 1));
            assertEquals("DONE", stage.bench(unit).getString("members[0].state"));
            assertEquals("1", stage.hall().kept(stage.serial(0), "seen.phraseChanges"));
            assertEquals("2", stage.hall().kept(stage.serial(1), "seen.logins"), "nothing was sent to the old one");
        }
    }

    @Tag("wording")
    @Test
    void aClusterOpensOneAfterTheOther() {
        try (ConsoleStage stage = new ConsoleStage()) {
            int unit = stage.cluster();
            stage.ready().begin(unit, "run");
            ConsoleStage.until(
                    "the first is open",
                    () -> !stage.bench(unit).getString("members[0].state").equals("SHUT"));
            assertEquals(
                    ConfigureText.OPENS_WHEN_DONE.text("controller 1"),
                    stage.bench(unit).getString("members[1].prerequisite"));
            stage.decide(
                            stage.dialogue(unit, 1),
                            "override",
                            Map.of("reason", "the first one is broken, the order does not matter"))
                    .statusCode(409)
                    .body("code", equalTo("ONLY_A_LEAD_CAN_START_IT_ANYWAY"));
            Json bench = stage.toTheEnd(unit);
            assertEquals(List.of("DONE", "DONE", "DONE"), bench.getList("members.state"));
            assertEquals("10.45.0.0/16", stage.hall().kept(stage.serial(2), "overlay"));
            assertEquals("3", stage.hall().kept(stage.serial(2), "place"));
        }
    }

    @Test
    void aHostIsWorkedWithCursorKeysAndTestsItselfBeforeItSaves() {
        try (ConsoleStage stage = new ConsoleStage()) {
            int unit = stage.host();
            stage.ready().begin(unit, "run");
            // its own test asks a name server, which there is none of here: it says so
            Map<String, Object> hold = stage.held(unit, 0, "REFUSED");
            assertTrue(hold.get("sentence").toString().contains("the name server does not know"), hold::toString);
            String planned = stage.bench(unit)
                    .getString("members[0].steps.find { it.title.startsWith('address in place') }.answer");
            assertEquals(planned, stage.hall().kept(stage.serial(0), "IPv4 address"));
            assertEquals(
                    "", stage.hall().kept(stage.serial(0), "saved"), "a host saves nothing that it has not tested");
            assertTrue(sealed.open(unit, "root-password", SealedStore.SealedState.MADE)
                    .isPresent());
        }
    }

    @Test
    void aPermanentValueIsTypedAndNothingLess() {
        try (ConsoleStage stage = new ConsoleStage()) {
            int unit = stage.cluster();
            stage.ready().begin(unit, "run");
            Map<String, Object> hold = stage.held(unit, 0, "PERMANENT");
            assertEquals("10.45.0.0/16", hold.get("typed"));
            stage.decide(stage.dialogue(unit, 0), "decision", Map.of("typed", ""))
                    .statusCode(409)
                    .body("detail", containsString("10.45.0.0/16"));
            stage.decide(stage.dialogue(unit, 0), "decision", Map.of("typed", "10.45.0.0/15"))
                    .statusCode(409);
            assertEquals("", stage.hall().kept(stage.serial(0), "overlay"));
            stage.decide(stage.dialogue(unit, 0), "decision", Map.of("typed", "10.45.0.0/16"))
                    .statusCode(204);
            ConsoleStage.until(
                    "it took it",
                    () -> stage.hall().kept(stage.serial(0), "overlay").equals("10.45.0.0/16"));
        }
    }

    @Tag("wording")
    @Test
    void stopHaltsAtOnceAndOthersCannotTypeInBetween() {
        try (ConsoleStage stage = new ConsoleStage()) {
            int unit = stage.pair(PLAIN);
            stage.ready().begin(unit, "ask");
            stage.held(unit, 0, "NEXT");
            long left = stage.dialogue(unit, 0);
            stage.decide(left, "decision", Map.of()).statusCode(204);
            Client lead = Client.lead();
            lead.post("/api/dialogues/" + left + "/decision", Map.of())
                    .statusCode(409)
                    .body("detail", containsString("rack-one has the keyboard"));
            lead.post("/api/dialogues/" + left + "/stop", Map.of()).statusCode(204);
            ConsoleStage.until(
                    "it stopped",
                    () -> stage.bench(unit).getString("members[0].state").equals("STOPPED"));
            assertEquals(
                    ConfigureText.STOPPED.text("hall-lead"), stage.bench(unit).getString("members[0].note"));
            lead.post("/api/dialogues/" + left + "/take", Map.of()).statusCode(204);
            lead.post("/api/dialogues/" + left + "/again", Map.of()).statusCode(204);
            ConsoleStage.until(
                    "it goes on",
                    () -> !stage.bench(unit).getString("members[0].state").equals("STOPPED"));
            Client.viewer().post("/api/dialogues/" + left + "/stop", Map.of()).statusCode(403);
        }
    }

    @Tag("wording")
    @Test
    void theSecondOfAKindWaitsForTheFirst() {
        try (ConsoleStage stage = new ConsoleStage(Client.lead())) {
            int first = stage.pair(PLAIN);
            int second = stage.pair(PLAIN);
            stage.ready().begin(first, "ask");
            stage.client
                    .post("/api/units/" + first + "/console", Map.of("mode", "run"))
                    .statusCode(409)
                    .body("code", equalTo("IS_ALREADY_IN_PROGRESS"));
            stage.client
                    .post("/api/units/" + second + "/console", Map.of("mode", "run"))
                    .statusCode(409)
                    .body("code", equalTo("LEAD_CAN_START_IT_ANYWAY"));
            stage.client
                    .post(
                            "/api/units/" + second + "/console",
                            Map.of("mode", "run", "reason", "both are wanted tonight"))
                    .statusCode(204);
            assertNotEquals("", stage.bench(second).getString("runState"));
        }
    }

    @Tag("wording")
    @Test
    void aSurpriseStopsThoseOfItsKindThatHaveNotBegun() {
        try (ConsoleStage stage = new ConsoleStage(Client.lead())) {
            int first = stage.pair(new Habit[] {Habit.OTHER_SERIAL});
            int second = stage.pair(PLAIN);
            stage.ready().begin(first, "run");
            stage.held(first, 0, "WRONG_MACHINE");
            String refused = stage.client
                    .post("/api/units/" + second + "/console", Map.of("mode", "run"))
                    .statusCode(409)
                    .json()
                    .getString("detail");
            assertTrue(Texts.says(ConfigureText.ANOTHER_OF_THE_KIND_NEEDS_A_LOOK, refused), refused);
            Json lanes = stage.client.get("/api/bring-ups/" + stage.bringUp + "/lanes");
            assertTrue(lanes.getBoolean("startable.find { it.unitId == " + second + " }.alone"), lanes::prettify);
        }
    }

    @Test
    void whenAStepFailsTheMachinesOwnLogIsKept() {
        try (ConsoleStage stage = new ConsoleStage()) {
            int pair = stage.pair(new Habit[] {Habit.OTHER_SERIAL});
            stage.ready().begin(pair, "run");
            stage.held(pair, 0, "WRONG_MACHINE");
            // nothing of a machine that is another one is read
            int left = stage.bench(pair).getInt("members[0].dialogueId");
            stage.client.post("/api/dialogues/" + left + "/log", Map.of()).statusCode(409);
            int right = stage.bench(pair).getInt("members[1].dialogueId");
            stage.held(pair, 1, "RESTARTS");
            stage.client
                    .post("/api/dialogues/" + right + "/decision", Map.of("typed", ""))
                    .statusCode(204);
            stage.held(pair, 1, "PEER");
            stage.client.post("/api/dialogues/" + right + "/log", Map.of()).statusCode(204);
            ConsoleStage.until(
                    "the log is kept", () -> !stage.bench(pair).getList("logs").isEmpty());
            Json log = stage.bench(pair).at("logs[0]");
            assertEquals("right", log.getString("member"));
            String text = Client.viewer()
                    .request()
                    .get("/api/machine-logs/" + log.getLong("id"))
                    .asString();
            assertTrue(text.contains("pair cable: no peer heard"), text);
            assertFalse(text.contains("log show") || text.contains("orrel#"), text);
            assertEquals("PEER", stage.bench(pair).getString("members[1].hold.why"), "the setup stands as before");
        }
    }

    @Tag("wording")
    @Test
    void severalBeginTogetherOrNotAtAll() {
        try (ConsoleStage stage = new ConsoleStage()) {
            int pair = stage.pair(PLAIN);
            int second = stage.pair(PLAIN);
            int host = stage.host();
            String path = "/api/bring-ups/" + stage.ready().bringUp + "/";
            assertEquals(
                    List.of(false, true, false),
                    stage.client.get(path + "lanes").getList("startable.alone"),
                    "the first of each kind goes first");
            stage.client
                    .post(path + "consoles", Map.of("mode", "ask", "units", List.of(pair, second, host)))
                    .statusCode(409)
                    .body("code", equalTo("LEAD_CAN_START_IT_ANYWAY"));
            assertEquals("", stage.bench(pair).getString("runState"), "none was begun");
            stage.client
                    .post(path + "consoles", Map.of("mode", "ask", "units", List.of()))
                    .statusCode(400);
            stage.client
                    .post(path + "consoles", Map.of("mode", "ask", "units", List.of(pair, host)))
                    .statusCode(204);
            assertNotEquals("", stage.bench(pair).getString("runState"));
            assertNotEquals("", stage.bench(host).getString("runState"));
        }
    }

    @Tag("wording")
    @Test
    void aPasswordIsShownToWhoMayAndThatIsKept() {
        try (ConsoleStage stage = new ConsoleStage()) {
            int unit = stage.pair(PLAIN);
            stage.ready().begin(unit, "watch");
            List<String> titles = stage.bench(unit).getList("members[0].steps.title");
            String step = "/api/dialogues/" + stage.dialogue(unit, 0) + "/steps/" + titles.indexOf("keeper's password")
                    + "/password";
            String ours = sealed.open(unit, "keeper-password", SealedStore.SealedState.MADE)
                    .orElseThrow()
                    .use(word -> word);
            stage.client
                    .post(step, Map.of())
                    .statusCode(200)
                    .header("Cache-Control", "no-store")
                    .body("text", equalTo(ours));
            Client.viewer().post(step, Map.of()).statusCode(403);
            stage.client
                    .post(step.replaceAll("\\d+/password", titles.indexOf("next hop") + "/password"), Map.of())
                    .statusCode(404);
            assertTrue(
                    journal.ofUnit(unit, 5).stream()
                            .anyMatch(entry -> entry.actor().equals("rack-one")
                                    && entry.act().contains("showed the password")),
                    "it is kept that somebody looked");
        }
    }
}
