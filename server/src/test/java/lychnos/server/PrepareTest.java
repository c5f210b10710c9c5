package lychnos.server;

import static org.hamcrest.Matchers.containsString;
import static org.hamcrest.Matchers.equalTo;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNull;

import io.quarkus.test.junit.QuarkusTest;
import java.util.List;
import java.util.Map;
import lychnos.server.http.Json;
import lychnos.server.text.PrepareText;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

@QuarkusTest
class PrepareTest {

    private Client client;

    @BeforeEach
    void signIn() {
        client = Client.engineer();
    }

    @Tag("wording")
    @Test
    void labelsFillExpectedPositionsAddNewOnesAndCanBeUndone() {
        long id = client.bringUp("R1 u5", "R1 u7");
        String csv = "serial,mac,rack position,model\nPA-1,02:4c:59:01:00:01,R1 u5,C4\nPA-2,02:4c:59:01:00:02,R1 "
                + "u9,C4\nPA-3,nonsense,R1 u7,C4\n";
        Json preview = client.labels(id, csv, true).json();
        assertEquals(List.of("filled in", "new"), preview.getList("taken.change"));
        assertNull(preview.get("importId"));
        assertEquals(0, known(id), "a preview changes nothing");
        Json report = client.labels(id, csv, false).json();
        assertEquals(List.of(4), report.getList("faults.line"));
        assertEquals(2, known(id));
        assertEquals(
                3,
                client.get("/api/bring-ups/" + id + "/prepare").getList("units").size());
        client.post("/api/label-imports/" + report.getLong("importId") + "/undo", Map.of())
                .statusCode(204);
        assertEquals(0, known(id));
        assertEquals(
                2,
                client.get("/api/bring-ups/" + id + "/prepare").getList("units").size());
        client.post("/api/label-imports/" + report.getLong("importId") + "/undo", Map.of())
                .statusCode(409);
    }

    private int known(long id) {
        return (int) client.get("/api/bring-ups/" + id + "/prepare").getList("units.serial").stream()
                .filter(serial -> serial != null)
                .count();
    }

    @Test
    void readingTheSameListTwiceChangesNothing() {
        long id = client.bringUp("R1 u5");
        String csv = "PB-1\t02:4c:59:02:00:01\tR1 u5\tC4";
        client.labels(id, csv, false);
        Json again = client.labels(id, csv, false).json();
        assertEquals(List.of(PrepareText.ALREADY_HERE.text()), again.getList("taken.change"));
        assertNull(again.get("importId"));
    }

    /** Unknown headings: what a person says of them is remembered for the next list that has them. */
    @Test
    void columnsThatAPersonHasChosenAreRememberedByTheirHeadings() {
        long id = client.bringUp();
        String heading = "Asset,Machine,LAN,Place\n";
        String list = heading + "A-1,CM-%1$d,024c59d1%1$04x,R1 u1\nA-2,CN-%1$d,024c59d2%1$04x,R1 u2\n";
        Json before = client.labels(id, list.formatted(id), true).json();
        assertEquals(List.of("Asset", "Machine", "LAN", "Place"), before.getList("columns.heading"));
        assertEquals("mac", before.getString("columns[2].meaning"), "told by what stands in it");
        client.request()
                .contentType("text/plain; charset=UTF-8")
                .body(list.formatted(id))
                .post("/api/bring-ups/" + id + "/labels?preview=false&columns=1:serial,2:mac,3:position")
                .statusCode(200)
                .body("taken.serial", org.hamcrest.Matchers.equalTo(List.of("CM-" + id, "CN-" + id)));
        long next = client.bringUp();
        Json again = client.labels(next, list.formatted(next), true).json();
        assertEquals(List.of("", "serial", "mac", "position"), again.getList("columns.meaning"));
        assertEquals(List.of("CM-" + next, "CN-" + next), again.getList("taken.serial"));
        client.request()
                .contentType("text/plain; charset=UTF-8")
                .body(list.formatted(next))
                .post("/api/bring-ups/" + next + "/labels?preview=true&columns=1:serial,2:serial")
                .statusCode(400);
    }

    @Test
    void aSerialThatStandsElsewhereIsNamedWithItsPlace() {
        long id = client.bringUp("R1 u5", "R1 u7");
        client.labels(id, "PC-1\t02:4c:59:03:00:01\tR1 u5\tC4", false);
        Json report = client.labels(id, "PC-1\t02:4c:59:03:00:02\tR1 u7\tC4\nPC-2\t02:4c:59:03:00:03\tR1 u5\tC4", false)
                .json();
        assertEquals(PrepareText.SERIAL_IS_ALREADY_USED.text("R1 u5"), report.getString("faults[0].reason"));
        assertEquals("R1 u5 holds PC-1 already, with 02:4c:59:03:00:01.", report.getString("faults[1].reason"));
    }

    @Test
    void everyWrongFieldOfANetworkIsNamedAtOnce() {
        long id = client.bringUp("R1 u5");
        Map<String, Object> network = Client.network("10.40.8.7/24", "10.40.8.1", "pool 10.40.8.180-101");
        network.put("vlan", 5000);
        network.put("nameServers", List.of("ns1"));
        Json problem = client.request()
                .body(network)
                .put("/api/bring-ups/" + id + "/network")
                .statusCode(400)
                .json();
        assertEquals(List.of("vlan", "prefix", "nameServers", "ranges.0"), problem.getList("faults.field"));
    }

    @Tag("wording")
    @Test
    void overlappingNetworksOfASiteAreRefusedByTheDatabase() {
        long id = client.bringUp("R1 u5");
        client.network(id, Client.network("10.40.8.0/24", "10.40.8.1", "pool 101-180"));
        assertEquals(
                "10.40.8.101-10.40.8.180",
                client.get("/api/bring-ups/" + id + "/prepare").getString("site.network.ranges[0].run"));
        String site = client.get("/api/bring-ups")
                .getString("find { it.id == " + id + " }.site")
                .replace("Test ", "t");
        long second = client.post(
                        "/api/bring-ups", Map.of("name", "Second of " + site, "siteCode", site, "siteName", site))
                .json()
                .getLong("id");
        client.request()
                .body(Client.network("10.40.0.0/16", "10.40.0.1"))
                .put("/api/bring-ups/" + second + "/network")
                .statusCode(400)
                .body("faults[0].field", equalTo("prefix"))
                .body("faults[0].reason", containsString("overlaps"));
    }

    @Test
    void findingsTellWhatWouldGoWrong() {
        long id = client.bringUp("R1 u5", "R1 u7");
        Map<String, Object> network = Client.network("10.40.8.0/24", "10.40.8.1", "pool 10.40.8.101");
        network.put("timeServers", List.of("10.40.8.6", "10.40.8.7"));
        client.network(id, network);
        assertEquals(
                List.of("pool-too-small", "few-time-servers", "no-sources"),
                client.get("/api/bring-ups/" + id + "/prepare").getList("site.findings.code"));
    }

    @Tag("wording")
    @Test
    void aBodyThatIsNoJsonIsAPlainProblem() {
        long id = client.bringUp("R1 u5");
        client.request()
                .body("{\"name\":")
                .put("/api/bring-ups/" + id + "/network")
                .statusCode(400)
                .contentType("application/problem+json");
        client.request()
                .body("[]")
                .put("/api/bring-ups/" + id + "/network")
                .statusCode(400)
                .body("code", equalTo("REQUEST_IS_NOT_JSON_IN_THE_FORMAT"));
        client.post("/api/bring-ups", Map.of("name", "", "siteCode", "x")).statusCode(400);
    }

    private lychnos.server.http.Response state(long id, String tag, Map<String, Object> thing) {
        return (tag == null ? client.request() : client.request().header("If-Match", tag))
                .body(thing)
                .put("/api/bring-ups/" + id + "/site-resources");
    }

    @Tag("wording")
    @Test
    void aThingThatSomebodyElseHasChangedIsNotWrittenOver() {
        long id = client.bringUp("R1 u5");
        Map<String, Object> host = new java.util.HashMap<>(Map.of(
                "sort", "host", "name", "hv-01", "values", Map.of("cores", "16", "memory", "64 GiB", "disk", "1 TiB")));
        long thing = Long.parseLong(state(id, null, host).statusCode(200).asString());
        String path = "/api/bring-ups/" + id + "/site-resources/" + thing;
        String tag = client.request().get(path).statusCode(200).header("ETag");
        client.request().header("If-None-Match", tag).get(path).statusCode(304);
        host.put("id", thing);
        host.put("values", Map.of("cores", "32", "memory", "64 GiB", "disk", "1 TiB"));
        state(id, tag, host).statusCode(200);
        host.put("values", Map.of("cores", "8", "memory", "64 GiB", "disk", "1 TiB"));
        state(id, tag, host).statusCode(412).body("code", equalTo("WAS_CHANGED_SINCE_YOU_LOADED_IT"));
        client.request().header("If-Match", tag).delete(path).statusCode(412);
        assertEquals("32", client.request().get(path).statusCode(200).json().getString("values.cores"));
        String now = client.request().get(path).header("ETag");
        client.request().header("If-Match", now).delete(path).statusCode(204);
        client.request().get(path).statusCode(404);
    }

    @Test
    void howLargeEachBringUpIsStandsInTheList() {
        long id = client.bringUp("R1 u5", "R1 u7");
        assertEquals(2, client.get("/api/bring-ups").getInt("find { it.id == " + id + " }.units"));
        assertEquals(0, client.get("/api/bring-ups").getInt("find { it.id == " + id + " }.signed"));
        long empty = client.bringUp();
        assertEquals(0, client.get("/api/bring-ups").getInt("find { it.id == " + empty + " }.units"));
    }

    @Tag("wording")
    @Test
    void machinesThatNobodyCanFindFirstAreTold() {
        long id = client.bringUp("R1 u5", "R1 u7");
        client.network(id, Client.network("10.40.8.0/24", "10.40.8.1", "pool 10.40.8.101-10.40.8.120"));
        String number = String.format("%05d", id % 100_000);
        client.labels(
                        id,
                        "NF-" + number + "\t02:4c:59:f1:" + number.substring(1, 3) + ":" + number.substring(3)
                                + "\tR1 u5\tC4",
                        false)
                .statusCode(200);
        String codes = "site.findings.findAll { it.code == 'no-first-contact' }.what";
        assertEquals(
                List.of("NF-" + number + " has no known first address"),
                client.get("/api/bring-ups/" + id + "/prepare").getList(codes));
        client.network(
                id,
                Client.network(
                        "10.40.8.0/24", "10.40.8.1", "pool 10.40.8.101-10.40.8.120", "dhcp 10.40.8.10-10.40.8.31"));
        assertEquals(List.of(), client.get("/api/bring-ups/" + id + "/prepare").getList(codes));
    }
}
