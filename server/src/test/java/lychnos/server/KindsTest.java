package lychnos.server;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.quarkus.test.junit.QuarkusTest;
import jakarta.inject.Inject;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.List;
import java.util.Map;
import javax.sql.DataSource;
import lychnos.core.kind.KindReader;
import lychnos.server.http.Json;
import lychnos.server.http.Response;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** Kinds as data of the site, through the REST interface. */
@QuarkusTest
class KindsTest {

    private static final String METER =
            """
            kind: %s
            title: Power meter %s
            short: pwm
            about: Set on its own page.
            facts:
              serial: { of: member, is: serial, find: front plate }
              feed: { of: unit, is: choice, choices: [ a, b ], find: the rack }
            addresses:
              - { run: [ management ], in: management }
            names: { unit: "{site}-{kind}-{n}" }
            setup: { by: pages }
            factory:
              - { way: web, user: owner, phrase: owner }
            checks: { port: 443 }
            waits:
              restart: { about: 1 min, at-most: 5 min }
            """;

    @Inject
    DataSource database;

    private Client engineer;
    private Client lead;

    @BeforeEach
    void signIn() {
        engineer = Client.engineer();
        lead = Client.lead();
    }

    private static Response save(Client who, String id, String text, String seen) {
        return who.request()
                .contentType("text/plain; charset=UTF-8")
                .header("If-Match", '"' + seen + '"')
                .body(text)
                .put("/api/catalogue/" + id + "/draft");
    }

    private void publish(String id, String text) {
        save(engineer, id, text, "0").statusCode(200);
        lead.post("/api/catalogue/" + id + "/publish", Map.of("note", "as measured"))
                .statusCode(200);
    }

    private static String meter(String id) {
        return METER.formatted(id, id);
    }

    private long announce(long bringUp, String kind) {
        return engineer.post("/api/bring-ups/" + bringUp + "/units", Map.of("kind", kind, "count", 1, "members", 0))
                .statusCode(200)
                .json()
                .getLong("[0]");
    }

    @Test
    void aDraftIsKeptWithItsFaultsAndIsUsedByNobody() {
        String wrong = meter("meter-a").replace("is: choice, choices: [ a, b ]", "is: colour");
        Json draft = save(engineer, "meter-a", wrong, "0").json();
        assertEquals(wrong, draft.getString("text"));
        assertEquals(7, draft.getInt("faults[0].line"));
        assertTrue(draft.getString("faults[0].reason").contains("colour"));
        lead.post("/api/catalogue/meter-a/publish", Map.of("note", "")).statusCode(409);
        long id = engineer.bringUp();
        engineer.post("/api/bring-ups/" + id + "/units", Map.of("kind", "meter-a", "count", 1, "members", 0))
                .statusCode(400);
    }

    @Test
    void twoWhoEditOneDraftAreTold() {
        save(engineer, "meter-b", meter("meter-b"), "0").statusCode(200);
        String version = engineer.get("/api/catalogue/meter-b/draft").getString("version");
        save(lead, "meter-b", meter("meter-b") + "# second\n", version).statusCode(200);
        save(engineer, "meter-b", meter("meter-b") + "# first\n", version).statusCode(412);
        save(engineer, "meter-b", meter("meter-b"), "0").statusCode(412);
        assertTrue(
                engineer.get("/api/catalogue/meter-b/draft").getString("text").endsWith("# second\n"));
    }

    @Test
    void engineersDraftAndLeadsPublish() {
        assertEquals(
                403, save(Client.viewer(), "meter-c", meter("meter-c"), "0").statusCode());
        save(engineer, "meter-c", meter("meter-c"), "0").statusCode(200);
        engineer.post("/api/catalogue/meter-c/publish", Map.of("note", "")).statusCode(403);
        lead.post("/api/catalogue/meter-c/publish", Map.of("note", "first")).statusCode(200);
        assertEquals("first", Client.viewer().get("/api/catalogue/meter-c").getString("history[0].note"));
        assertEquals(
                meter("meter-c"),
                engineer.request().get("/api/catalogue/meter-c/versions/1").asString());
        save(engineer, "meter-c", meter("meter-c"), "0").statusCode(200);
        lead.post("/api/catalogue/meter-c/publish", Map.of("note", "the same")).statusCode(409);
    }

    /** A unit keeps the version that it was announced with, until somebody moves it. */
    @Test
    void aUnitKeepsItsVersionUntilItIsMoved() {
        publish("meter-d", meter("meter-d"));
        long bringUp = engineer.bringUp();
        long first = announce(bringUp, "meter-d");
        publish(
                "meter-d",
                meter("meter-d").replace("  feed:", "  phases: { of: unit, is: number, find: the rack }\n  feed:"));
        long second = announce(bringUp, "meter-d");

        Json sheet = engineer.get("/api/bring-ups/" + bringUp + "/prepare");
        assertEquals(List.of(1, 2), sheet.getList("kinds.version"));
        assertFalse(sheet.getList("kinds[0].facts.name").contains("phases"));
        assertTrue(sheet.getList("kinds[1].facts.name").contains("phases"));
        assertEquals(List.of(1, 2), sheet.getList("units.kindVersion"));

        Json difference = engineer.get("/api/catalogue/meter-d/difference?from=1&to=2");
        assertEquals(List.of("ADDED"), difference.getList("sort"));
        assertEquals(List.of("phases"), difference.getList("what"));

        Json moved = engineer.post(
                        "/api/catalogue/meter-d/move", Map.of("bringUpId", bringUp, "from", 1, "to", 2, "reason", ""))
                .json();
        assertEquals(1, moved.getInt("moved"));
        assertEquals(
                List.of(2, 2),
                engineer.get("/api/bring-ups/" + bringUp + "/prepare").getList("units.kindVersion"));
        engineer.post("/api/units/" + first + "/kind-version", Map.of("version", 2, "reason", ""))
                .statusCode(409);
        engineer.post("/api/units/" + second + "/kind-version", Map.of("version", 9, "reason", ""))
                .statusCode(404);
    }

    @Test
    void aRetiredKindTakesNoNewUnits() {
        publish("meter-e", meter("meter-e"));
        long bringUp = engineer.bringUp();
        announce(bringUp, "meter-e");
        lead.post("/api/catalogue/meter-e/retire", Map.of()).statusCode(204);
        engineer.post("/api/bring-ups/" + bringUp + "/units", Map.of("kind", "meter-e", "count", 1, "members", 0))
                .statusCode(400);
        assertEquals(
                1,
                engineer.get("/api/bring-ups/" + bringUp + "/prepare")
                        .getList("units")
                        .size());
        lead.post("/api/catalogue/meter-e/bring-back", Map.of()).statusCode(204);
        announce(bringUp, "meter-e");
    }

    @Test
    void aSiteAdjustsAndTakesItBack() {
        publish("meter-f", meter("meter-f"));
        long bringUp = engineer.bringUp();
        long other = engineer.bringUp();
        announce(bringUp, "meter-f");
        announce(other, "meter-f");
        long site = site(bringUp);
        Map<String, Object> wanted =
                Map.of("siteId", site, "what", "default:feed", "value", "b", "reason", "only feed B is wired here");
        engineer.post("/api/catalogue/meter-f/adjustments", wanted).statusCode(403);
        long id = Long.parseLong(lead.post("/api/catalogue/meter-f/adjustments", wanted)
                .statusCode(200)
                .asString());
        assertEquals("b", feed(bringUp));
        assertEquals(null, feed(other), "another site is not meant");
        assertEquals(
                400,
                lead.post(
                                "/api/catalogue/meter-f/adjustments",
                                Map.of("siteId", site, "what", "default:feed", "value", "c", "reason", "a wrong one"))
                        .statusCode());
        assertEquals("b", lead.get("/api/catalogue/meter-f").getString("adjustments[0].value"));
        lead.request().delete("/api/catalogue/meter-f/adjustments/" + id).statusCode(204);
        assertEquals(null, feed(bringUp));
    }

    private long site(long bringUp) {
        return engineer.get("/api/catalogue/meter-f")
                .getLong("sites.find { it.bringUps.id.contains(" + bringUp + ") }.id");
    }

    private String feed(long bringUp) {
        return engineer.get("/api/bring-ups/" + bringUp + "/prepare").getString("rows[0].cells.feed.value");
    }

    @Test
    void aPublishedVersionIsNeverChangedNotEvenInTheDatabase() throws SQLException {
        publish("meter-g", meter("meter-g"));
        for (String change : List.of(
                "update kind_version set text = 'x' where kind_id = 'meter-g'",
                "delete from kind_version where kind_id = 'meter-g'")) {
            SQLException refused = assertThrows(SQLException.class, () -> run(change));
            assertTrue(refused.getMessage().contains("never changed"), refused::getMessage);
        }
    }

    /** A version that another release of the program has published must not take the other kinds with it. */
    @Tag("wording")
    @Test
    void aVersionThatCannotBeReadIsLeftOutWithAReason() throws SQLException {
        run("insert into kind (id) values ('from-a-later-release')");
        run("insert into kind_version (kind_id, version, text, digest, title, way, shipped) values "
                + "('from-a-later-release', 1, 'kind: from-a-later-release\nby-telepathy: yes', repeat('0', 64), "
                + "'From a later release', 'console', false)");
        run("update kind_revision set revision = revision + 1");
        ConsoleStage.until(
                "the list knows it",
                () -> lead.get("/api/catalogue").getList("id").contains("from-a-later-release"));
        assertFalse(lead.get("/api/kinds").getList("id").contains("from-a-later-release"));
        String fault = lead.get("/api/catalogue/from-a-later-release").getString("fault");
        assertTrue(fault.contains("line 2") && fault.contains("Publish a corrected version"), fault);
        long bringUp = lead.bringUp();
        // the list shows what was written without a word to this server; what units are made from follows
        ConsoleStage.until(
                "no unit of it can be added",
                () -> lead.post(
                                        "/api/bring-ups/" + bringUp + "/units",
                                        Map.of("kind", "from-a-later-release", "count", 1, "members", 0))
                                .statusCode()
                        == 409);
    }

    @Tag("wording")
    @Test
    void adjustmentsOfOneSiteAgreeWithEachOther() {
        long bringUp = lead.bringUp();
        long site = lead.get("/api/catalogue/server-controller")
                .getLong("sites.find { it.bringUps.id.contains(" + bringUp + ") }.id");
        adjust(site, "open", "5900").statusCode(200);
        assertTrue(adjust(site, "shut", "23, 5900").statusCode(400).asString().contains("expected and forbidden"));
    }

    private Response adjust(long site, String what, String value) {
        return lead.post(
                "/api/catalogue/server-controller/adjustments",
                Map.of("siteId", site, "what", what, "value", value, "reason", "as the hall has it"));
    }

    private void run(String statement) throws SQLException {
        try (Connection connection = database.getConnection();
                Statement change = connection.createStatement()) {
            change.execute(statement);
        }
    }

    @Test
    void oneUnitIsCalledByANameThatAPersonTyped() {
        publish("meter-i", meter("meter-i").replace("{n}\" }", "{n}\", longest: 20 }"));
        long bringUp = engineer.bringUp();
        long unit = announce(bringUp, "meter-i");
        long other = announce(bringUp, "meter-i");
        rename(unit, "Feed-Main").statusCode(204);
        assertEquals(
                "feed-main",
                engineer.get("/api/bring-ups/" + bringUp + "/prepare").getString("units[0].name"));
        rename(other, "feed-main").statusCode(400);
        rename(other, "feed_2").statusCode(400);
        rename(other, "a".repeat(21)).statusCode(400);
        rename(other, "").statusCode(400);
        Client.viewer()
                .request()
                .body(Map.of("name", "x"))
                .put("/api/units/" + other + "/name")
                .statusCode(403);
        engineer.network(bringUp, Client.network("10.40.8.0/24", "10.40.8.1", "pool 10.40.8.101-10.40.8.120"));
        engineer.take(bringUp).statusCode(200);
        assertEquals(
                List.of("feed-main"),
                engineer.get("/api/bring-ups/" + bringUp + "/ribbon")
                        .getList("seats.findAll { it.unitId == " + unit + " }.hostName"));
        rename(unit, "feed-3").statusCode(409);
    }

    private lychnos.server.http.Response rename(long unit, String name) {
        return engineer.request().body(Map.of("name", name)).put("/api/units/" + unit + "/name");
    }

    @Test
    void theListTellsWhoUsesWhat() {
        publish("meter-h", meter("meter-h"));
        announce(engineer.bringUp(), "meter-h");
        Json lines = Client.viewer().get("/api/catalogue");
        assertEquals(1, lines.getInt("find { it.id == 'meter-h' }.units"));
        assertFalse(lines.getBoolean("find { it.id == 'meter-h' }.shipped"));
        for (String shipped : KindReader.shippedIds()) {
            assertTrue(lines.getBoolean("find { it.id == '" + shipped + "' }.shipped"), shipped);
            assertFalse(lines.getBoolean("find { it.id == '" + shipped + "' }.update"), shipped);
        }
    }
}
