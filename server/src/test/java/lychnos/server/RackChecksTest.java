package lychnos.server;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.quarkus.test.junit.QuarkusTest;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import lychnos.server.http.Json;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** What is ticked at the rack. */
@QuarkusTest
class RackChecksTest {

    private static final String POWER = "both power feeds connected";

    private Client client;
    private long id;
    private int pair;

    @BeforeEach
    void announce() {
        client = Client.engineer();
        id = client.bringUp();
        pair = client.post(
                        "/api/bring-ups/" + id + "/units",
                        Map.of("kind", "interconnect-pair", "count", 1, "members", 2))
                .statusCode(200)
                .json()
                .getInt("[0]");
    }

    private String path() {
        return "/api/bring-ups/" + id + "/rack-checks";
    }

    private void tick(Client by, String member, String check, boolean done, int status) {
        Map<String, Object> tick = new HashMap<>(Map.of("unit", pair, "check", check, "done", done));
        tick.put("member", member);
        by.request().body(tick).put(path()).statusCode(status);
    }

    private List<String> ticked() {
        return client.get(path()).<Map<String, Object>>getList("machines").stream()
                .flatMap(machine -> ((List<?>) machine.get("checks"))
                        .stream()
                                .map(Map.class::cast)
                                .filter(check -> check.get("at") != null)
                                .map(check -> machine.get("member") + ": " + check.get("text")))
                .toList();
    }

    @Test
    void aMemberAndAUnitHaveTheirOwnChecks() {
        Json view = client.get(path());
        assertEquals(List.of("left", "right", ""), view.getList("machines.member"));
        assertEquals(8, view.getInt("all"));
        tick(client, "left", POWER, true, 204);
        tick(client, "left", POWER, true, 204); // a second click changes nothing
        tick(client, "", "downlinks connected", true, 204);
        assertEquals(List.of("left: " + POWER, ": downlinks connected"), ticked());
        assertEquals(2, client.get(path()).getInt("done"));
        tick(client, "left", POWER, false, 204);
        assertEquals(List.of(": downlinks connected"), ticked());
    }

    @Test
    void whatTheKindDoesNotListCannotBeTicked() {
        tick(client, "left", "coffee is ready", true, 404);
        tick(client, "middle", POWER, true, 404);
        tick(client, "left", "downlinks connected", true, 404);
        assertEquals(List.of(), ticked());
    }

    @Test
    void aViewerSeesThemAndTicksNothing() {
        tick(Client.viewer(), "left", POWER, true, 403);
        assertEquals(List.of(), ticked());
        assertTrue(Client.viewer().get(path()).getInt("all") > 0);
    }

    @Tag("wording")
    @Test
    void aTickIsInTheJournal() {
        tick(client, "right", POWER, true, 204);
        assertTrue(client.get("/api/bring-ups/" + id + "/journal")
                .prettify()
                .contains("ticked at the rack: " + POWER + ", right"));
    }
}
