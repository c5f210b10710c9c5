package lychnos.server;

import static org.hamcrest.Matchers.containsString;
import static org.hamcrest.Matchers.equalTo;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.quarkus.test.junit.QuarkusTest;
import java.util.List;
import java.util.Map;
import lychnos.core.kind.KindReader;
import lychnos.core.text.Texts;
import lychnos.server.http.Json;
import lychnos.server.http.Request;
import lychnos.server.http.Response;
import lychnos.server.text.PrepareText;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

@QuarkusTest
class FactsTest {

    private Client client;
    private long id;

    @BeforeEach
    void begin() {
        client = Client.engineer();
        id = client.bringUp();
    }

    private int announce(String kind, int members) {
        return client.post("/api/bring-ups/" + id + "/units", Map.of("kind", kind, "count", 1, "members", members))
                .statusCode(200)
                .json()
                .getInt("[0]");
    }

    private static Map<String, Object> cell(int unit, String member, String name, String value) {
        return Map.of("unitId", unit, "member", member, "name", name, "value", value);
    }

    private Json set(Map<?, ?>... cells) {
        Response answer = client.request().body(Map.of("cells", List.of(cells))).put("/api/bring-ups/" + id + "/facts");
        answer.statusCode(200);
        return answer.json();
    }

    private String value(String member, String name) {
        return client.get("/api/bring-ups/" + id + "/prepare")
                .getString("rows.find { it.member == '" + member + "' }.cells['" + name + "'].value");
    }

    @Test
    void rightCellsAreKeptWrongOnesComeBackAndTheWholeIsUndone() {
        int pair = announce("interconnect-pair", 2);
        String mac = String.format("02:4c:59:c1:%02x:%02x", id >> 8 & 255, id & 255);
        Json report = set(
                cell(pair, "left", "serial", "FX-" + id),
                cell(pair, "left", "mac", mac.toUpperCase().replace(':', '-')),
                cell(pair, "right", "mac", "zz"),
                cell(pair, "middle", "serial", "x"),
                cell(pair, "", "licence-key", "x"));
        assertEquals(2, report.getInt("changed"));
        assertEquals(List.of("mac", "serial", "licence-key"), report.getList("faults.name"));
        assertTrue(Texts.says(PrepareText.NEVER_ASKS, report.getString("faults[2].reason")));
        assertEquals(mac, value("left", "mac"), "in one notation");
        client.post("/api/sheet-changes/" + report.getLong("changeId") + "/undo", Map.of())
                .statusCode(200);
        assertEquals(null, value("left", "serial"));
        client.post("/api/sheet-changes/" + report.getLong("changeId") + "/undo", Map.of())
                .statusCode(409);
    }

    @Test
    void undoLeavesWhatWasChangedSince() {
        int pair = announce("interconnect-pair", 2);
        long first = set(cell(pair, "left", "console", "6101"), cell(pair, "right", "console", "6102"))
                .getLong("changeId");
        set(cell(pair, "right", "console", "6109"));
        client.post("/api/sheet-changes/" + first + "/undo", Map.of()).statusCode(200);
        assertEquals(null, value("left", "console"));
        assertEquals("6109", value("right", "console"));
    }

    @Test
    void aSecretIsSealedAndNeverShown() {
        int store = announce("backup-store", 1);
        set(cell(store, "node 1", "controller-password", "tag-secret-77"));
        String sheet = client.request().get("/api/bring-ups/" + id + "/prepare").asString();
        assertTrue(sheet.contains("(sealed)"));
        assertTrue(!sheet.contains("tag-secret-77"));
        assertTrue(!client.request()
                .get("/api/bring-ups/" + id + "/facts.csv")
                .asString()
                .contains("sealed"));
    }

    @Tag("wording")
    @Test
    void aTableIsLookedOverThenTaken() {
        announce("interconnect-pair", 2);
        String unit = client.get("/api/bring-ups/" + id + "/prepare").getString("rows[0].unit");
        String table = "\ufeffunit;member;console line;location\r\n" + unit + ";left;6101;R1 u40\r\n" + unit
                + ";right;99999;R1 u41\r\n";
        Response preview = table(table, true);
        preview.statusCode(200)
                .body("cells", equalTo(3))
                .body("faults[0].line", equalTo(3))
                .body("faults[0].reason", containsString("1 to 65535"));
        assertEquals(null, value("left", "console"), "a preview changes nothing");
        table(table, false).statusCode(200);
        assertEquals("6101", value("left", "console"));
        assertEquals(
                "R1 u40",
                client.get("/api/bring-ups/" + id + "/prepare").getString("units[0].position"),
                "the unit is where its first member is");
        String written =
                client.request().get("/api/bring-ups/" + id + "/facts.csv").asString();
        assertTrue(written.contains(unit + ",left,,,R1 u40,6101,"), written);
    }

    /** A heading that says nothing is corrected once, and read the same way the next time. */
    @Test
    void columnsAreChosenAndRemembered() {
        announce("interconnect-pair", 2);
        String unit = client.get("/api/bring-ups/" + id + "/prepare").getString("rows[0].unit");
        String table = "box;half;TS\n" + unit + ";left;6101\n";
        table(table, true)
                .statusCode(200)
                .body("cells", equalTo(0))
                .body("columns[0].meaning", equalTo("unit"))
                .body("columns[2].meaning", equalTo(""))
                .body("columns[2].sample", equalTo("6101"));
        table(table, "true&columns=0:unit,1:member,2:colour").statusCode(400);
        table(table, "false&columns=0:unit,1:member,2:console").statusCode(200);
        assertEquals("6101", value("left", "console"));
        table(table.replace("6101", "6102"), false).statusCode(200);
        assertEquals("6102", value("left", "console"), "the same headings are read the same way");
    }

    private Response table(String text, boolean preview) {
        return table(text, String.valueOf(preview));
    }

    private Response table(String text, String preview) {
        return Request.given()
                .cookie("lychnos", client.cookie())
                .contentType("text/plain; charset=UTF-8")
                .body(text)
                .post("/api/bring-ups/" + id + "/facts.csv?preview=" + preview);
    }

    @Test
    void aPolicyAnswersForEveryUnitOfTheSite() {
        announce("interconnect-pair", 2);
        thing(
                        "policy",
                        "licence-terms",
                        Map.of("answer", "on", "reason", "agreed once", "who", "lead", "when", "2026-11-01"))
                .statusCode(200);
        assertEquals("yes", value("left", "licence-terms"));
        assertEquals(
                "site",
                client.get("/api/bring-ups/" + id + "/prepare").getString("rows[0].cells['licence-terms'].source"));
    }

    private Response thing(String sort, String name, Map<String, String> values) {
        return (values.containsKey("key") ? Client.lead() : client)
                .request()
                .body(Map.of("sort", sort, "name", name, "values", values))
                .put("/api/bring-ups/" + id + "/site-resources");
    }

    @Tag("wording")
    @Test
    void everyWrongFieldOfAThingIsNamed() {
        thing("host", "hv-01", Map.of("cores", "many", "memory", "64 GiB"))
                .statusCode(400)
                .body("faults.field", equalTo(List.of("cores", "disk")));
        thing("host", "", Map.of("cores", "8", "memory", "64 GiB", "disk", "1 TiB"))
                .statusCode(400)
                .body("faults[0].field", equalTo("name"));
        thing("lamp", "x", Map.of()).statusCode(400);
        thing("fabric", "compute", Map.of()).statusCode(200);
        thing("fabric", "compute", Map.of())
                .statusCode(400)
                .body("faults[0].code", equalTo("ALREADY_AN_ENTRY_WITH_THIS_NAME"));
    }

    @Test
    void aKeyIsNeverGivenBack() {
        thing(
                        "domain",
                        "ardal.example",
                        Map.of("primary", "10.40.8.3", "key-name", "k.ardal.example", "key", "c2VjcmV0"))
                .statusCode(200);
        String sheet = client.request().get("/api/bring-ups/" + id + "/prepare").asString();
        assertTrue(sheet.contains("k.ardal.example") && !sheet.contains("c2VjcmV0"));
        // an entry brought back after its removal has lost its key, and says so
        thing(
                        "domain",
                        "again.example",
                        Map.of("primary", "10.40.8.3", "key-name", "k.ardal.example", "key", "(sealed)"))
                .statusCode(400)
                .body("faults[0].field", equalTo("key"));
    }

    @Test
    void aMendIsCarriedOut() {
        int first = announce("infiniband-gateway", 1);
        thing("fabric", "compute", Map.of());
        set(cell(first, "", "fabric", "compute"), cell(first, "", "subnet-manager", "0"));
        Json sheet = client.get("/api/bring-ups/" + id + "/prepare");
        Map<String, Object> fix = sheet.getMap("site.findings.find { it.code == 'no-subnet-manager' }.fix");
        client.post("/api/bring-ups/" + id + "/fixes", fix).statusCode(204);
        assertEquals("15", value("", "subnet-manager"));
    }

    @Test
    void aDescriptionOfAKindIsLookedOver() {
        Request.given()
                .cookie("lychnos", client.cookie())
                .contentType("text/plain")
                .body("kind: x\ntitle: [a]\n")
                .post("/api/kinds/check")
                .statusCode(200)
                .body("find { it.path == 'title' }.line", equalTo(2));
    }

    @Test
    void aDescriptionIsShownAsItWouldRead() {
        Json good = preview(KindReader.asWritten("console-manager"));
        assertEquals(List.of(), good.getList("faults"));
        assertEquals("console", good.getString("way"));
        assertTrue(good.getList("summary.setup.steps.title").contains("everything at once"), good::prettify);
        Json bad = preview(KindReader.asWritten("console-manager").replace("is: digest", "is: digst"));
        assertEquals("facts.image-digest.is", bad.getString("faults[0].path"));
        assertEquals(null, bad.getMap("summary"));
    }

    private Json preview(String text) {
        return Request.given()
                .cookie("lychnos", client.cookie())
                .contentType("text/plain")
                .body(text)
                .post("/api/kinds/preview")
                .statusCode(200)
                .json();
    }

    @Tag("wording")
    @Test
    void unknownKindsAndCountsAreRefused() {
        client.post("/api/bring-ups/" + id + "/units", Map.of("kind", "toaster", "count", 1, "members", 0))
                .statusCode(400)
                .body("code", equalTo("NO_KIND_BUT_THESE"));
        client.post("/api/bring-ups/" + id + "/units", Map.of("kind", "fabric-controller", "count", 1, "members", 2))
                .statusCode(400)
                .body("faults[0].field", equalTo("members"));
        client.post("/api/bring-ups/" + id + "/units", Map.of("kind", "fabric-controller", "count", 0, "members", 1))
                .statusCode(400);
    }

    private String reason(Json report) {
        return report.getString("faults[0].reason");
    }

    @Test
    void aSerialStandsOnceWhicheverBringUpItIsIn() {
        int first = announce("server-controller", 1);
        set(cell(first, "", "serial", "TW-" + id));
        long other = client.bringUp();
        int second = client.post(
                        "/api/bring-ups/" + other + "/units",
                        Map.of("kind", "server-controller", "count", 1, "members", 1))
                .statusCode(200)
                .json()
                .getInt("[0]");
        Json report = client.request()
                .body(Map.of("cells", List.of(cell(second, "", "serial", " TW-" + id + " "))))
                .put("/api/bring-ups/" + other + "/facts")
                .json();
        assertEquals(0, report.getInt("changed"));
        assertTrue(
                Texts.says(PrepareText.IS_ALREADY_USED, reason(report))
                        && reason(report).contains("TW-" + id),
                reason(report));
    }

    @Test
    void aRackPositionStandsOnceInABringUpAndAgainInAnother() {
        int first = announce("server-controller", 1);
        int second = announce("server-controller", 1);
        assertEquals(1, set(cell(first, "", "location", "R7 u12")).getInt("changed"));
        assertTrue(Texts.says(PrepareText.IS_ALREADY_USED, reason(set(cell(second, "", "location", "R7 U12")))));
        long other = client.bringUp();
        int third = client.post(
                        "/api/bring-ups/" + other + "/units",
                        Map.of("kind", "server-controller", "count", 1, "members", 1))
                .statusCode(200)
                .json()
                .getInt("[0]");
        Json report = client.request()
                .body(Map.of("cells", List.of(cell(third, "", "location", "R7 u12"))))
                .put("/api/bring-ups/" + other + "/facts")
                .json();
        assertEquals(1, report.getInt("changed"), "another hall may have a rack of that name");
    }

    @Test
    void oneChangeMovesAPositionFromOneUnitToTheNext() {
        int first = announce("server-controller", 1);
        int second = announce("server-controller", 1);
        set(cell(first, "", "location", "R8 u1"));
        assertEquals(
                2,
                set(cell(first, "", "location", "R8 u3"), cell(second, "", "location", "R8 u1"))
                        .getInt("changed"));
        Json wrong = set(cell(first, "", "location", "R8 u1"), cell(second, "", "location", "R8 u5"));
        assertEquals(1, wrong.getInt("changed"), "it is still taken when the first of them is looked at");
        assertTrue(Texts.says(PrepareText.IS_ALREADY_USED, reason(wrong)));
    }

    @Test
    void aUnitOfAnotherBringUpIsNotTouched() {
        int own = announce("server-controller", 1);
        long other = client.bringUp();
        Json report = client.request()
                .body(Map.of("cells", List.of(cell(own, "", "serial", "XX-1"))))
                .put("/api/bring-ups/" + other + "/facts")
                .json();
        assertEquals(0, report.getInt("changed"));
        assertTrue(Texts.says(PrepareText.UNIT_IS_NOT_IN_THE_BRING_UP, reason(report)));
        assertEquals(null, value("", "serial"));
    }

    @Test
    void whatAnotherHasTypedMeanwhileIsNotWrittenOver() {
        int pair = announce("interconnect-pair", 2);
        set(cell(pair, "left", "console", "6101"));
        Map<String, Object> late = new java.util.HashMap<>(cell(pair, "left", "console", "6107"));
        late.put("seen", "");
        Json report = set(late);
        assertEquals(0, report.getInt("changed"));
        assertTrue(reason(report).equals(PrepareText.VALUE_WAS_CHANGED.text("6101")), reason(report));
        late.put("seen", "6101");
        assertEquals(1, set(late).getInt("changed"));
    }
}
