package lychnos.server;

import static org.hamcrest.Matchers.equalTo;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.quarkus.test.junit.QuarkusTest;
import jakarta.inject.Inject;
import jakarta.transaction.Transactional;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import lychnos.server.configure.model.Change.RecordingPiece;
import lychnos.server.configure.model.SetupLogs;
import lychnos.server.configure.plan.GoingAlone;
import lychnos.server.http.Json;
import lychnos.server.http.Response;
import org.hibernate.Session;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** The log of a setup by hand: kept sealed, learnt from, deleted. */
@QuarkusTest
class SetupLogsTest {

    private static final String OWN = "Vd8pXw3nTk";
    private static final Instant BEGAN = Instant.parse("2026-11-23T09:00:00Z");

    private static final String KIND =
            """
            kind: tally-gateway
            title: Tally gateway
            short: tly
            about: It counts what passes.
            facts:
              serial: { of: unit, is: serial, find: its plate }
              console: { of: unit, is: console-line, find: port of the console server, optional: yes }
            addresses:
              - { run: [ management ], in: management }
            names: { unit: "{site}-{kind}-{n}" }
            setup: { by: console }
            dialogue: { line: 19200 8N1 }
            factory:
              - { way: console, user: owner, phrase: owner }
            checks: { port: 443 }
            waits:
              restart: { about: 1 min, at-most: 5 min }
            """;

    @Inject
    SetupLogs logs;

    @Inject
    GoingAlone goingAlone;

    @Inject
    Session db;

    private Client engineer;
    private long bringUp;
    private String path;
    private int unit;
    private String address;
    private String name;

    @BeforeEach
    void aUnitThatIsNotDescribed() {
        engineer = Client.engineer();
        Response saved = engineer.request()
                .contentType("text/plain; charset=UTF-8")
                .header("If-Match", "\"0\"")
                .body(KIND)
                .put("/api/catalogue/tally-gateway/draft");
        if (saved.statusCode() == 200) {
            Client.lead().post("/api/catalogue/tally-gateway/publish", Map.of("note", "its plate"));
        }
        bringUp = engineer.bringUp();
        path = "/api/bring-ups/" + bringUp;
        engineer.network(bringUp, Client.network("10.40.8.0/24", "10.40.8.1", "pool 10.40.8.220-229"));
        unit = engineer.post(path + "/units", Map.of("kind", "tally-gateway", "count", 1, "members", 0))
                .json()
                .getInt("[0]");
        name = engineer.get(path + "/prepare").getString("units[0].name");
        fact("serial", "TG-" + unit);
        engineer.take(bringUp).statusCode(200);
        address = engineer.get(path + "/ribbon").getString("seats[0].address");
    }

    private void fact(String fact, String value) {
        engineer.put(
                        path + "/facts",
                        Map.of("cells", List.of(Map.of("unitId", unit, "member", "", "name", fact, "value", value))))
                .statusCode(200);
    }

    private Response begin() {
        return engineer.post("/api/units/" + unit + "/console", Map.of("mode", "ask"));
    }

    /** The setup is begun on a device that does not exist; its pieces are given by the test. */
    private int begun() {
        fact("console", "/dev/ttyS99");
        begin().statusCode(204);
        return engineer.get("/api/units/" + unit + "/bench").getInt("members[0].dialogueId");
    }

    private void keep(long dialogue, String... turns) {
        List<RecordingPiece> pieces = new ArrayList<>();
        for (int i = 0; i < turns.length; i++) {
            pieces.add(new RecordingPiece(dialogue, i, BEGAN.plusSeconds(i), i % 2 == 0 ? 'o' : 'i', turns[i]));
        }
        pieces.add(new RecordingPiece(dialogue, turns.length, BEGAN.plusSeconds(90), 'm', "BREAK"));
        logs.keep(pieces);
        logs.keep(pieces); // a save that is tried again
    }

    private void setUpByHand(long dialogue) {
        keep(
                dialogue,
                "\r\nTally gateway TG-" + unit + ", empty\r\ncalled: ",
                name + "\r",
                name + "\r\nits IP with length: ",
                address + "/24\r",
                address + "/24\r\nowner word: ",
                OWN + "\r",
                "\r\nonce more: ",
                OWN + "\r",
                "\r\nthank you\r\n");
    }

    @Transactional
    long plain(String text) {
        return db.createNativeQuery(
                        "select count(*) from setup_piece where position(cast(:text as bytea) in sealed) > 0",
                        Long.class)
                .setParameter("text", text)
                .getSingleResult();
    }

    private static Map<String, Object> lesson(int dialogue) {
        Map<String, Object> asked = new HashMap<>(Map.of("description", KIND, "dialogue", dialogue));
        asked.put("answers", Map.of("marks", Map.of()));
        return asked;
    }

    @Test
    void aSetupByHandNeedsALineAndShowsItsValues() {
        begin().statusCode(409).body("code", equalTo("NO_LINE_FOR_A_SETUP_BY_HAND"));
        begun();
        Json bench = engineer.get("/api/units/" + unit + "/bench");
        assertTrue(bench.getBoolean("byHand"));
        assertEquals("19200 8N1", bench.getString("members[0].settings"));
        assertEquals(address, bench.getString("members[0].values.find { it.name == 'address' }.text"), bench::prettify);
        assertEquals(null, bench.getString("members[0].values.find { it.name == 'factory.phrase' }.text"));
    }

    @Test
    void aSetupByHandHoldsNoOtherUnitBackAndIsNotStartedWithOthers() {
        engineer.post(path + "/units", Map.of("kind", "tally-gateway", "count", 1, "members", 0));
        int first = unit;
        unit = engineer.get(path + "/prepare").getInt("units.find { it.id != " + first + " }.id");
        fact("serial", "TG-" + unit);
        Json fit = engineer.get(path + "/fits?unit=" + unit);
        engineer.post(
                        path + "/allocations",
                        Map.of("lines", fit.getList("fits[0].lines"), "growth", fit.getList("fits[0].growth")))
                .statusCode(200);
        List<Boolean> alone = engineer.get(path + "/lanes").getList("startable.alone");
        assertEquals(List.of(true, true), alone);
        int second = unit;
        unit = first;
        begun();
        unit = second;
        fact("console", "/dev/ttyS98");
        assertEquals(Map.of(), goingAlone.goingAlone(bringUp), "nothing is tried yet that could surprise");
        begin().statusCode(204);
    }

    @Test
    void aLogThatNothingWasAddedToForLongIsDeletedThoughItsSetupNeverEnded() {
        int dialogue = begun();
        Instant before = Instant.now().minus(SetupLogs.KEPT).minusSeconds(60);
        logs.keep(List.of(new RecordingPiece(dialogue, 0, before, 'o', "called: ")));
        logs.deleteOld();
        engineer.post("/api/kinds/lessons", lesson(dialogue)).statusCode(404);
        logs.keep(List.of(
                new RecordingPiece(dialogue, 1, before, 'o', "called: "),
                new RecordingPiece(dialogue, 2, Instant.now(), 'i', name + "\r")));
        logs.deleteOld();
        engineer.post("/api/kinds/lessons", lesson(dialogue)).statusCode(200);
    }

    @Test
    void theLogIsSealedAndWhatItTaughtSetsUpTheNext() {
        int dialogue = begun();
        setUpByHand(dialogue);
        assertEquals(0, plain(OWN));
        assertEquals(0, plain(name));
        Json kept = engineer.get("/api/catalogue/tally-gateway/setup-logs");
        assertEquals(unit, kept.getInt("find { it.dialogue == " + dialogue + " }.unitId"), kept::prettify);
        Json learnt = engineer.post("/api/kinds/lessons", lesson(dialogue))
                .statusCode(200)
                .json();
        assertEquals(
                List.of("{name}", "{address}/{length}", "{password}", "{password}"),
                learnt.getList("steps.answer"),
                learnt::prettify);
        assertTrue(learnt.getBoolean("agrees"), learnt::prettify);
        assertTrue(learnt.getString("description").contains("19200 8N1"), learnt::prettify);
        assertFalse(learnt.prettify().contains(OWN), learnt::prettify);
    }

    @Test
    void aLogIsDeletedByAPersonOnce() {
        int dialogue = begun();
        setUpByHand(dialogue);
        Client.viewer().request().delete("/api/setup-logs/" + dialogue).statusCode(403);
        Client.viewer().request().get("/api/catalogue/tally-gateway/setup-logs").statusCode(403);
        engineer.request().delete("/api/setup-logs/" + dialogue).statusCode(204);
        engineer.request().delete("/api/setup-logs/" + dialogue).statusCode(404);
        engineer.post("/api/kinds/lessons", lesson(dialogue)).statusCode(404);
    }
}
