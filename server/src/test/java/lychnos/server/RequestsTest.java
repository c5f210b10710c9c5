package lychnos.server;

import static org.hamcrest.Matchers.equalTo;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.quarkus.test.junit.QuarkusTest;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.stream.IntStream;
import lychnos.server.http.Json;
import lychnos.server.http.Response;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** What other teams are asked for. */
@QuarkusTest
class RequestsTest {

    private static final String NAMES = "FLOW_OUT|127.40.8.3|udp 53";

    private Client client;
    private long id;

    @BeforeEach
    void plan() {
        client = Client.engineer();
        id = client.bringUp();
        client.network(id, Client.network("127.40.8.0/24", "127.40.8.1", "pool .100-.180"));
        client.post("/api/bring-ups/" + id + "/units", Map.of("kind", "interconnect-pair", "count", 1, "members", 2))
                .statusCode(200);
        int unit = client.get("/api/bring-ups/" + id + "/prepare").getInt("units[0].id");
        Json fits = client.get("/api/bring-ups/" + id + "/fits?unit=" + unit);
        client.post(
                        "/api/bring-ups/" + id + "/allocations",
                        Map.of("lines", fits.getList("fits[0].lines"), "growth", List.of()))
                .statusCode(200);
    }

    private String path() {
        return "/api/bring-ups/" + id + "/requests";
    }

    private Response change(Client by, String key, int version, Map<String, Object> fields) {
        Map<String, Object> change = new HashMap<>(fields);
        change.put("requests", List.of(Map.of("key", key, "version", version)));
        return by.put(path(), change);
    }

    private Map<String, Object> request(String key) {
        return client.get(path()).<Map<String, Object>>getList("requests").stream()
                .filter(each -> key.equals(each.get("key")))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void thePlanTellsWhatIsAskedForBeforeAnybodyNotesAnything() {
        Map<String, Object> names = request(NAMES);
        assertEquals("TO_ASK", names.get("state"));
        assertEquals(0, names.get("version"));
        assertEquals("NOT_MEASURED", names.get("tested"));
        assertEquals(3, names.get("machines"), "both members and their shared address");
        Json view = client.get(path());
        assertEquals(view.getList("requests").size(), view.getInt("open"));
        assertEquals(0, view.getInt("late"));
    }

    @Test
    void aPersonADayAndAStateAreNoted() {
        String day = LocalDate.now(ZoneOffset.UTC).minusDays(1).toString();
        change(client, NAMES, 0, Map.of("person", "Firewall team, Runa", "due", day, "state", "ASKED"))
                .statusCode(204);
        Map<String, Object> names = request(NAMES);
        assertEquals("Firewall team, Runa", names.get("person"));
        assertEquals(day, names.get("due"));
        assertEquals(true, names.get("late"));
        assertEquals(1, client.get(path()).getInt("late"));
        assertTrue(
                client.get("/api/bring-ups/" + id + "/board").<String>getList("todos.title").stream()
                        .anyMatch(title -> title.contains("Firewall team, Runa")),
                "the Board tells what is overdue");
        change(client, NAMES, 1, Map.of("state", "DONE")).statusCode(204);
        assertEquals(0, client.get(path()).getInt("late"));
        assertEquals(day, request(NAMES).get("due"), "what is not named stays");
        change(client, NAMES, 2, Map.of("due", "")).statusCode(204);
        assertEquals(null, request(NAMES).get("due"));
    }

    @Test
    void severalAreChangedAtOnceOrNotAtAll() {
        List<Map<String, Object>> all = client.get(path()).getList("requests");
        List<Map<String, Object>> seen = all.stream()
                .map(each -> Map.of("key", each.get("key"), "version", each.get("version")))
                .toList();
        client.put(path(), Map.of("requests", seen, "person", "Firewall team")).statusCode(204);
        assertEquals(
                List.of("Firewall team"),
                client.get(path()).<String>getList("requests.person").stream()
                        .distinct()
                        .toList());
        client.put(path(), Map.of("requests", seen, "state", "DONE")).statusCode(412);
        assertEquals(all.size(), client.get(path()).getInt("open"), "somebody saw an older state");
    }

    @Test
    void ofTwoWhoNoteSomethingAtTheSameMomentOneIsTold() throws Exception {
        List<Callable<Integer>> both = IntStream.range(0, 2)
                .<Callable<Integer>>mapToObj(i -> () ->
                        change(client, NAMES, 0, Map.of("note", "by " + i)).statusCode())
                .toList();
        ExecutorService threads = Executors.newFixedThreadPool(2);
        try {
            int sum = 0;
            for (Future<Integer> answer : threads.invokeAll(both)) {
                sum += answer.get();
            }
            assertEquals(204 + 412, sum);
        } finally {
            threads.shutdown();
        }
        assertEquals(1, request(NAMES).get("version"));
    }

    @Test
    void whatThePlanDoesNotTellIsAdded() {
        client.post(path(), Map.of("title", "a loading bay for Tuesday")).statusCode(204);
        client.post(path(), Map.of("title", " \n")).statusCode(400).body("faults[0].field", equalTo("title"));
        client.post(path(), Map.of()).statusCode(400);
        List<Map<String, Object>> all = client.get(path()).getList("requests");
        Map<String, Object> own = all.get(all.size() - 1);
        assertEquals("a loading bay for Tuesday", own.get("title"));
        assertEquals(true, own.get("planned"));
        change(client, (String) own.get("key"), 1, Map.of("state", "NOT_NEEDED"))
                .statusCode(204);
        assertEquals("NOT_NEEDED", request((String) own.get("key")).get("state"));
    }

    @Test
    void aWrongChangeSaysWhichFieldIsWrong() {
        change(client, NAMES, 0, Map.of("due", "2027-02-30")).statusCode(400).body("faults[0].field", equalTo("due"));
        change(client, NAMES, 0, Map.of("due", "soon")).statusCode(400).body("faults[0].field", equalTo("due"));
        change(client, NAMES, 0, Map.of("person", "x".repeat(81)))
                .statusCode(400)
                .body("faults[0].field", equalTo("person"));
        change(client, "FLOW_OUT|nowhere", 0, Map.of("state", "DONE")).statusCode(404);
        client.put(path(), Map.of("requests", List.of(), "state", "DONE")).statusCode(400);
        change(Client.viewer(), NAMES, 0, Map.of("state", "DONE")).statusCode(403);
        assertEquals(0, request(NAMES).get("version"));
    }

    @Test
    void otherTeamsGetAFileWithEveryMachine() {
        change(client, NAMES, 0, Map.of("person", "=Runa")).statusCode(204);
        String file = client.request().get(path() + ".csv").statusCode(200).asString();
        assertTrue(file.contains("127.40.8.100 127.40.8.101 127.40.8.102"), file);
        assertTrue(file.contains("'=Runa"), "a spreadsheet calculates nothing from it");
    }
}
