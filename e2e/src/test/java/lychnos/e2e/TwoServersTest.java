package lychnos.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;

/** Two servers on one database give out the addresses of one pool at the same time. */
class TwoServersTest {

    private static final int UNITS = 40;
    private static final ObjectMapper JSON = new ObjectMapper();

    private final HttpClient http = HttpClient.newHttpClient();
    private final AtomicInteger races = new AtomicInteger();

    @Test
    void neverGiveOneAddressTwice() throws Exception {
        try (Stage stage = new Stage(Machines.hallFile(Machines.rowB()), 500)) {
            List<String> servers = List.of(stage.url(), stage.startSecondServer());
            String cookie = signIn(servers.get(0));
            ObjectNode bringUp = JSON.createObjectNode().put("name", "Row B").put("siteCode", "two").put("siteName", "Ardal");
            for (int i = 1; i <= UNITS; i++) {
                bringUp.withArray("positions").add("R1 u" + i);
            }
            send(servers.get(0), cookie, "POST", "/api/bring-ups", bringUp);
            send(servers.get(1), cookie, "PUT", "/api/bring-ups/1/network", JSON.readTree("""
                    {"name":"Management","prefix":"10.40.9.0/24","gateway":"10.40.9.1","domain":"ardal.example","nameServers":[],"timeServers":[],
                     "ranges":[{"purpose":"pool","run":".101-.140","note":""}]}"""));
            ExecutorService people = Executors.newFixedThreadPool(8);
            List<Callable<Integer>> work = new ArrayList<>();
            for (int person = 0; person < 8; person++) {
                String server = servers.get(person % 2);
                work.add(() -> takeOneByOne(server, cookie));
            }
            int taken = 0;
            for (Future<Integer> person : people.invokeAll(work)) {
                taken += person.get();
            }
            people.shutdown();
            assertEquals(UNITS, taken);
            Set<String> addresses = new HashSet<>();
            Set<Long> units = new HashSet<>();
            for (JsonNode seat : json(send(servers.get(1), cookie, "GET", "/api/bring-ups/1/ribbon", null)).path("seats")) {
                assertTrue(addresses.add(seat.path("address").asText()), seat.toString());
                assertTrue(units.add(seat.path("unitId").asLong()), seat.toString());
            }
            assertEquals(UNITS, addresses.size());
            assertTrue(races.get() > 0, "they never met: the test shows nothing");
        }
    }

    /** Takes the first that is proposed, again and again; who is too late looks anew. */
    private int takeOneByOne(String server, String cookie) throws IOException, InterruptedException {
        int taken = 0;
        while (true) {
            JsonNode first = json(send(server, cookie, "GET", "/api/bring-ups/1/proposal", null)).path("lines").path(0);
            if (first.isMissingNode()) {
                return taken;
            }
            ObjectNode taking = JSON.createObjectNode();
            taking.putArray("lines").add(first);
            int status = send(server, cookie, "POST", "/api/bring-ups/1/takings", taking).statusCode();
            assertTrue(status == 200 || status == 409, "answered " + status);
            taken += status == 200 ? 1 : 0;
            races.addAndGet(status == 409 ? 1 : 0);
        }
    }

    private static JsonNode json(HttpResponse<String> answer) throws IOException {
        assertEquals(200, answer.statusCode(), answer.body());
        return JSON.readTree(answer.body());
    }

    private String signIn(String server) throws IOException, InterruptedException {
        HttpResponse<String> answer = send(server, "", "POST", "/api/session", JSON.createObjectNode().put("login", "rack-one").put("password", "engineer-at-rack-one"));
        return answer.headers().firstValue("Set-Cookie").orElseThrow().split(";", 2)[0];
    }

    private HttpResponse<String> send(String server, String cookie, String method, String path, JsonNode body) throws IOException, InterruptedException {
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(server + path))
                .header("Cookie", cookie.isEmpty() ? "none=1" : cookie)
                .header("Content-Type", "application/json")
                .method(method, body == null ? HttpRequest.BodyPublishers.noBody() : HttpRequest.BodyPublishers.ofString(body.toString()));
        return http.send(request.build(), HttpResponse.BodyHandlers.ofString());
    }
}
