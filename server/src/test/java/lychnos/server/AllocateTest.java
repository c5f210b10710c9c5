package lychnos.server;

import static org.hamcrest.Matchers.equalTo;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.quarkus.test.junit.QuarkusTest;
import java.util.ArrayList;
import java.util.HashSet;
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
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

@QuarkusTest
class AllocateTest {

    private Client client;

    @BeforeEach
    void signIn() {
        client = Client.engineer();
    }

    private long placed(String... positions) {
        long id = client.bringUp(positions);
        client.network(id, Client.network("10.40.8.0/24", "10.40.8.1", "pool 10.40.8.100-180", "kept 10.40.8.102-103"));
        return id;
    }

    @Test
    void proposesTheLowestRunWithNamesAndBothRecords() {
        long id = placed("R1 u5", "R1 u7");
        Json proposal = client.request()
                .queryParam("from", "10.40.8.101")
                .queryParam("pattern", "{site}-{kind}-{n:3}-oob")
                .get("/api/bring-ups/" + id + "/proposal")
                .json();
        assertEquals(List.of("10.40.8.104", "10.40.8.105"), proposal.getList("lines.address"));
        String name = proposal.getString("lines[0].hostName");
        assertTrue(name.matches("t[0-9]+-srv-001-oob"), name);
        assertEquals(name + ".ardal.example. IN A 10.40.8.104", proposal.getString("lines[0].forward"));
        assertEquals(
                "104.8.40.10.in-addr.arpa. IN PTR " + name + ".ardal.example.", proposal.getString("lines[0].reverse"));
    }

    @Test
    void aTakingIsUndoneInOnePiece() {
        long id = placed("R1 u5", "R1 u7");
        String taking = client.take(id).statusCode(200).json().getString("allocation");
        assertEquals(
                2,
                client.get("/api/bring-ups/" + id + "/ribbon").getList("seats").size());
        client.post("/api/bring-ups/" + id + "/allocations/" + taking + "/undo", Map.of())
                .statusCode(204);
        assertEquals(
                0,
                client.get("/api/bring-ups/" + id + "/ribbon").getList("seats").size());
        client.post("/api/bring-ups/" + id + "/allocations/" + taking + "/undo", Map.of())
                .statusCode(409);
    }

    @Tag("wording")
    @Test
    void whoIsTooLateIsProposedTheNextFit() {
        long id = placed("R1 u5");
        Map<String, Object> wanted = Client.taking(client.get("/api/bring-ups/" + id + "/proposal"));
        client.post("/api/bring-ups/" + id + "/allocations", wanted).statusCode(200);
        client.post("/api/bring-ups/" + id + "/allocations", wanted)
                .statusCode(409)
                .body("code", equalTo("IS_NOT_FREE_ANY_MORE"));
    }

    @Test
    void nothingOutsideThePoolsIsGivenOut() {
        long id = placed("R1 u5");
        long unit = client.get("/api/bring-ups/" + id + "/prepare").getLong("units[0].id");
        for (String address : new String[] {"10.40.8.1", "10.40.8.102", "10.40.8.99", "10.40.9.100", "10.40.8.255"}) {
            client.post(
                            "/api/bring-ups/" + id + "/allocations",
                            Map.of("lines", List.of(Map.of("unitId", unit, "address", address, "hostName", "a"))))
                    .statusCode(409);
        }
        client.post(
                        "/api/bring-ups/" + id + "/allocations",
                        Map.of("lines", List.of(Map.of("unitId", unit, "address", "10.40.8.100", "hostName", "A_b"))))
                .statusCode(400);
    }

    private static final int PEOPLE = 12;

    /** Twelve people allocate from one pool of 22 addresses, each for units of their own, until it is empty. */
    @Test
    void noAddressIsEverGivenTwice() throws Exception {
        String[] positions = IntStream.rangeClosed(1, 36)
                .mapToObj(i -> "R" + (1 + i / 40) + " u" + (1 + i % 40))
                .toArray(String[]::new);
        long id = client.bringUp(positions);
        client.network(id, Client.network("10.40.8.0/24", "10.40.8.1", "pool 10.40.8.100-121", "kept 10.40.8.102-103"));
        List<Integer> units = client.get("/api/bring-ups/" + id + "/prepare").getList("units.id");
        ExecutorService people = Executors.newFixedThreadPool(PEOPLE);
        List<Callable<List<String>>> work = new ArrayList<>();
        for (int person = 0; person < PEOPLE; person++) {
            List<Integer> mine = new ArrayList<>();
            for (int i = person; i < units.size(); i += PEOPLE) {
                mine.add(units.get(i));
            }
            work.add(() -> takeAll(id, mine));
        }
        List<String> all = new ArrayList<>();
        for (Future<List<String>> future : people.invokeAll(work)) {
            all.addAll(future.get());
        }
        people.shutdown();
        assertEquals(20, all.size(), "22 in the pool less 2 kept");
        assertEquals(20, new HashSet<>(all).size());
        assertEquals(
                20,
                client.get("/api/bring-ups/" + id + "/ribbon").getList("seats").size());
    }

    /** Takes one address after another; a loser looks again. */
    private List<String> takeAll(long id, List<Integer> units) {
        List<String> got = new ArrayList<>();
        for (int unit : units) {
            while (true) {
                String address = firstFree(id);
                if (address == null) {
                    return got;
                }
                Response answer = client.post(
                        "/api/bring-ups/" + id + "/allocations",
                        Map.of(
                                "lines",
                                List.of(Map.of(
                                        "unitId", unit, "address", address, "hostName", "t" + id + "-" + unit))));
                if (answer.statusCode() == 200) {
                    got.add(address);
                    break;
                }
                assertEquals(409, answer.statusCode(), answer.asString());
            }
        }
        return got;
    }

    /** The lowest free address, as the ribbon shows it at this moment: all aim at the same one. */
    private String firstFree(long id) {
        List<String> taken = client.get("/api/bring-ups/" + id + "/ribbon").getList("seats.address");
        return IntStream.rangeClosed(100, 121)
                .filter(i -> i != 102 && i != 103)
                .mapToObj(i -> "10.40.8." + i)
                .filter(address -> !taken.contains(address))
                .findFirst()
                .orElse(null);
    }
}
