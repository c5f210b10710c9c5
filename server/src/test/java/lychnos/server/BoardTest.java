package lychnos.server;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.quarkus.test.junit.QuarkusTest;
import java.util.List;
import java.util.Map;
import lychnos.core.text.Texts;
import lychnos.server.http.Json;
import lychnos.server.text.BoardText;
import lychnos.server.text.PrepareText;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** What the Board says at each point of the work, and what the find box finds. */
@QuarkusTest
class BoardTest {

    private Client client;

    @BeforeEach
    void signIn() {
        client = Client.engineer();
    }

    private Json board(long id) {
        return client.get("/api/bring-ups/" + id + "/board");
    }

    private static List<String> marks(Json board, String stage) {
        return board.getList("rows." + stage + ".mark");
    }

    @Tag("wording")
    @Test
    void everyStageIsDarkAtFirstAndTheNextActionIsNamed() {
        long id = client.bringUp("R2 u5", "R1 u7", "R1 u5");
        Json board = board(id);
        assertEquals(List.of("R1 u5", "R1 u7", "R2 u5"), board.getList("rows.position"));
        for (String stage : List.of("prepare", "allocate", "configure", "prove", "handover")) {
            assertEquals(List.of("dark", "dark", "dark"), marks(board, stage), stage);
        }
        assertEquals(
                List.of(BoardText.FIND_THE_MISSING_FACTS.text("3 units"), BoardText.DEFINE_THE_NETWORK.text()),
                board.getList("todos.title"));
        assertEquals("0 of 3 known", board.getString("course.prepare.text"));
    }

    @Tag("wording")
    @Test
    void theNextActionMovesWithTheWork() {
        long id = client.bringUp("R1 u5");
        client.labels(id, "BO-1\t02:4c:59:0b:00:01\tR1 u5\tC4", false);
        assertEquals(List.of(BoardText.DEFINE_THE_NETWORK.text()), board(id).getList("todos.title"));
        assertEquals("no network", board(id).getString("course.prepare.fault"));
        client.network(id, Client.network("10.40.8.0/24", "10.40.8.1", "pool .101-.180"));
        assertEquals(
                List.of(BoardText.ALLOCATE_ADDRESSES.text("1 unit")), board(id).getList("todos.title"));
        client.take(id).statusCode(200);
        Json board = board(id);
        assertEquals(List.of("Set up 1 unit"), board.getList("todos.title"));
        assertEquals(List.of("done"), marks(board, "allocate"));
        assertEquals(100, board.getInt("course.allocate.percent"));
    }

    @Test
    void whatBlocksIsTheFirstThingToMend() {
        long id = client.bringUp("R1 u5", "R1 u7");
        client.network(id, Client.network("10.40.8.0/24", "10.40.8.1", "pool 10.40.8.101"));
        client.labels(id, "BQ-1\t02:4c:59:0c:00:01\tR1 u5\tC4\nBQ-2\t02:4c:59:0c:00:02\tR1 u7\tC4", false);
        Json board = board(id);
        assertEquals("fault", board.getString("todos[0].mark"));
        assertTrue(Texts.says("core.rule.RuleText.POOL_TOO_SMALL", board.getString("todos[0].title")));
        client.post("/api/bring-ups/" + id + "/setups", Map.of("width", 3)).statusCode(409);
    }

    @Test
    void findsByNameAddressSerialPositionAndHardwareAddressInAnyNotation() {
        long id = client.bringUp("R7 u33");
        client.labels(id, "FIND-77\t02:4c:59:f1:d0:77\tR7 u33\tC4", false);
        client.network(id, Client.network("10.41.77.0/24", "10.41.77.1", "pool .177"));
        client.take(id).statusCode(200);
        String name = board(id).getString("rows[0].name");
        for (String text : List.of(
                "find-77",
                "10.41.77.177",
                "R7 u33",
                "f1:d0:77",
                "F1D077",
                "024c.59f1.d077",
                "f1-d0-77",
                name,
                name + ".ardal")) {
            List<String> found = client.request()
                    .queryParam("q", text)
                    .get("/api/find")
                    .json()
                    .getList("name");
            assertTrue(found.contains(name), text + " finds " + found);
        }
        for (String text : List.of("x", "%", "nothing-of-that-name", "' or 1=1 --")) {
            assertEquals(
                    List.of(),
                    client.request()
                            .queryParam("q", text)
                            .get("/api/find")
                            .json()
                            .getList("name"),
                    text);
        }
    }

    @Test
    void aSecondBringUpGoesOnWithTheNames() {
        long first = client.bringUp("R1 u5");
        client.network(first, Client.network("10.42.8.0/24", "10.42.8.1", "pool .101-.180"));
        client.take(first).statusCode(200);
        String name = board(first).getString("rows[0].name");
        String site = name.substring(0, name.indexOf('-'));
        long second = client.post(
                        "/api/bring-ups",
                        Map.of("name", "More of " + site, "siteCode", site, "positions", List.of("R1 u5")))
                .json()
                .getLong("id");
        long network = client.get("/api/bring-ups/" + second + "/prepare").getLong("choices[0].id");
        client.post("/api/bring-ups/" + second + "/network/choice", Map.of("networkId", network))
                .statusCode(204);
        Json proposal = client.get("/api/bring-ups/" + second + "/proposal");
        assertEquals("10.42.8.102", proposal.getString("lines[0].address"));
        assertEquals(site + "-srv-002-oob", proposal.getString("lines[0].hostName"));
    }

    @Test
    void aNetworkOfAnotherSiteCannotBeChosen() {
        long first = client.bringUp("R1 u5");
        client.network(first, Client.network("10.43.8.0/24", "10.43.8.1", "pool .101-.180"));
        long other = client.bringUp("R1 u5");
        assertEquals(
                List.of(), client.get("/api/bring-ups/" + other + "/prepare").getList("choices"));
        client.post("/api/bring-ups/" + other + "/network/choice", Map.of("networkId", 1))
                .statusCode(404);
    }

    @Test
    void aNetworkIsNotShrunkBelowWhatIsTaken() {
        long id = client.bringUp("R1 u5");
        client.network(id, Client.network("10.44.8.0/24", "10.44.8.1", "pool .200-.210"));
        client.take(id).statusCode(200);
        String reason = client.request()
                .body(Client.network("10.44.8.0/25", "10.44.8.1", "pool .100-.110"))
                .put("/api/bring-ups/" + id + "/network")
                .statusCode(400)
                .json()
                .getString("faults[0].reason");
        assertEquals(PrepareText.IS_TAKEN_AND_WOULD_LIE_OUTSIDE.text("10.44.8.200", "10.44.8.0/25"), reason);
    }
}
