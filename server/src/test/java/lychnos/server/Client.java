package lychnos.server;

import static lychnos.server.http.Request.given;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import lychnos.server.http.Json;
import lychnos.server.http.Request;
import lychnos.server.http.Response;

/** A signed-in person at the REST interface, with the steps that tests have in common. */
final class Client {

    /** Not from 1: a test with a profile of its own starts the server, and this class, again on the same database. */
    private static final AtomicInteger NEXT = new AtomicInteger((int) (System.currentTimeMillis() % 100_000_000));

    private static final Map<String, String> SESSIONS = new ConcurrentHashMap<>();

    private final String cookie;

    private Client(String cookie) {
        this.cookie = cookie;
    }

    static Client engineer() {
        return signedIn("rack-one", "engineer-at-rack-one");
    }

    static Client lead() {
        return signedIn("hall-lead", "lead-of-the-hall");
    }

    static Client viewer() {
        return signedIn("night-watch", "only-looking-around");
    }

    /** With a session from before where it has not ended: signing in costs a hash, and after attacks a wait. */
    private static Client signedIn(String login, String password) {
        String before = SESSIONS.get(login);
        if (before != null
                && given().cookie("lychnos", before).get("/api/session").statusCode() == 200) {
            return new Client(before);
        }
        String cookie = given().contentType(Request.JSON)
                .body(Map.of("login", login, "password", password))
                .post("/api/session")
                .statusCode(204)
                .cookie("lychnos");
        SESSIONS.put(login, cookie);
        return new Client(cookie);
    }

    String cookie() {
        return cookie;
    }

    Request request() {
        return given().cookie("lychnos", cookie).contentType(Request.JSON);
    }

    Json get(String path) {
        Response answer = request().get(path);
        answer.statusCode(200);
        return answer.json();
    }

    Response post(String path, Object body) {
        return request().body(body).post(path);
    }

    Response put(String path, Object body) {
        return request().body(body).put(path);
    }

    Response labels(long bringUp, String text, boolean preview) {
        return given().cookie("lychnos", cookie)
                .contentType("text/plain; charset=UTF-8")
                .body(text)
                .post("/api/bring-ups/" + bringUp + "/labels?preview=" + preview);
    }

    /** A new bring-up at a site of its own, so that tests do not meet. */
    long bringUp(String... positions) {
        int number = NEXT.getAndIncrement();
        return post(
                        "/api/bring-ups",
                        Map.of(
                                "name",
                                "Row " + number,
                                "siteCode",
                                "t" + number,
                                "siteName",
                                "Test " + number,
                                "positions",
                                List.of(positions)))
                .statusCode(200)
                .json()
                .getLong("id");
    }

    /** A further bring-up at the site of another. */
    long bringUpBeside(long other) {
        String name = get("/api/bring-ups").getString("find { it.id == " + other + " }.name");
        String code = "t" + name.substring("Row ".length());
        return post(
                        "/api/bring-ups",
                        Map.of("name", name + ", bench", "siteCode", code, "siteName", "", "positions", List.of()))
                .statusCode(200)
                .json()
                .getLong("id");
    }

    static Map<String, Object> network(String prefix, String gateway, String... runs) {
        List<Map<String, String>> ranges = new ArrayList<>();
        for (String run : runs) {
            String[] words = run.split(" ");
            ranges.add(Map.of("purpose", words[0], "run", words[1], "note", ""));
        }
        return new java.util.HashMap<>(Map.of(
                "name",
                "Management",
                "prefix",
                prefix,
                "gateway",
                gateway,
                "vlan",
                408,
                "domain",
                "ardal.example",
                "nameServers",
                List.of("127.40.8.3", "127.40.8.4"),
                "timeServers",
                List.of("127.40.8.6", "127.40.8.7", "127.40.8.8"),
                "ranges",
                ranges));
    }

    void network(long bringUp, Map<String, Object> network) {
        request().body(network).put("/api/bring-ups/" + bringUp + "/network").statusCode(204);
    }

    /** Takes what is proposed. */
    Response take(long bringUp) {
        return post(
                "/api/bring-ups/" + bringUp + "/allocations", taking(get("/api/bring-ups/" + bringUp + "/proposal")));
    }

    static Map<String, Object> taking(Json proposal) {
        List<Map<String, Object>> lines = proposal.getList("lines");
        return Map.of(
                "pattern", proposal.getString("pattern"),
                "lines",
                        lines.stream()
                                .map(line -> Map.of(
                                        "unitId",
                                        line.get("unitId"),
                                        "address",
                                        line.get("address"),
                                        "hostName",
                                        line.get("hostName")))
                                .toList());
    }
}
