package lychnos.server;

import static lychnos.server.http.Request.given;
import static org.hamcrest.Matchers.containsString;
import static org.hamcrest.Matchers.equalTo;
import static org.hamcrest.Matchers.not;
import static org.hamcrest.Matchers.notNullValue;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.quarkus.narayana.jta.QuarkusTransaction;
import io.quarkus.test.common.http.TestHTTPResource;
import io.quarkus.test.junit.QuarkusTest;
import jakarta.inject.Inject;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.WebSocket;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionStage;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.stream.IntStream;
import lychnos.server.http.Json;
import lychnos.server.http.Request;
import lychnos.server.http.Response;
import org.hibernate.Session;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** What people, programs, hostile pages and slow senders may not do, each as it was done once. */
@QuarkusTest
class AttacksTest {

    private static final long NO_SUCH = 9223372036854775807L;

    @Inject
    Session db;

    @TestHTTPResource("/")
    URI root;

    private Client engineer;
    private Client lead;
    private long id;

    @BeforeEach
    void signIn() {
        engineer = Client.engineer();
        lead = Client.lead();
        id = engineer.bringUp("R1 u1");
    }

    private void sql(String statement) {
        QuarkusTransaction.requiringNew()
                .run(() -> db.createNativeMutationQuery(statement).executeUpdate());
    }

    private <T> List<T> atOnce(int many, java.util.function.IntFunction<T> work) throws Exception {
        ExecutorService pool = Executors.newFixedThreadPool(many);
        try {
            List<Future<T>> begun = IntStream.range(0, many)
                    .mapToObj(i -> pool.submit(() -> work.apply(i)))
                    .toList();
            List<T> ended = new ArrayList<>();
            for (Future<T> each : begun) {
                ended.add(each.get(60, TimeUnit.SECONDS));
            }
            return ended;
        } finally {
            pool.shutdownNow();
        }
    }

    // --- data and signing ---

    @Test
    void noRouteActsOnABringUpThatDoesNotExist() {
        for (String path : List.of(
                "checks/cancel", "setups/cancel", "consoles/stop", "measure", "record-pushes", "checks", "setups")) {
            lead.post("/api/bring-ups/" + NO_SUCH + "/" + path, Map.of()).statusCode(404);
            lead.post("/api/bring-ups/999999/" + path, Map.of()).statusCode(404);
        }
        assertTrue(lead.post("/api/chain/verifications", Map.of())
                .statusCode(200)
                .json()
                .getList("breaks")
                .isEmpty());
    }

    @Test
    void theJournalNamesOnlyWhatExists() {
        for (String column : List.of("bring_up_id", "unit_id")) {
            assertThrows(
                    RuntimeException.class,
                    () -> sql("insert into journal (actor, act, " + column + ") values ('somebody', 'did something', "
                            + NO_SUCH + ")"),
                    column);
        }
    }

    @Test
    void aNumberBeyondWhatADoubleHoldsIsLinkedAsText() {
        // such a row may stand in a database from before
        sql("alter table journal drop constraint journal_bring_up");
        sql("insert into journal (actor, act, bring_up_id) values ('somebody', 'did something', " + NO_SUCH + ")");
        sql("alter table journal add constraint journal_bring_up foreign key (bring_up_id) references bring_up "
                + "not valid");
        Json looked =
                lead.post("/api/chain/verifications", Map.of()).statusCode(200).json();
        assertTrue(looked.getList("breaks").isEmpty(), looked::prettify);
    }

    @Test
    void ofTwoWhoSaveTheSameEntryOneIsToldThatItWasChanged() throws Exception {
        Map<String, Object> time =
                new HashMap<>(Map.of("sort", "time", "name", "ntp-4", "values", Map.of("address", "127.40.8.9")));
        long thing = Long.parseLong(engineer.request()
                .body(time)
                .put("/api/bring-ups/" + id + "/site-resources")
                .statusCode(200)
                .asString());
        int both = 0;
        for (int round = 0; round < 15; round++) {
            String version = engineer.get("/api/bring-ups/" + id + "/site-resources/" + thing)
                    .getString("version");
            int now = round;
            List<Integer> statuses = atOnce(2, i -> engineer.request()
                    .header("If-Match", "\"" + version + "\"")
                    .body(Map.of(
                            "id",
                            thing,
                            "sort",
                            "time",
                            "name",
                            "ntp-4",
                            "values",
                            Map.of("address", "127.40.8." + (20 + 2 * now + i))))
                    .put("/api/bring-ups/" + id + "/site-resources")
                    .statusCode());
            both += statuses.stream().filter(status -> status == 200).count() == 2 ? 1 : 0;
            assertTrue(statuses.contains(200) && (statuses.contains(412) || both > 0), statuses::toString);
        }
        assertEquals(0, both, "rounds in which both saved");
    }

    @Test
    void whoComesSecondIsToldSoAndNotThatTheServerFailed() throws Exception {
        for (int round = 0; round < 5; round++) {
            String name = "ntp-" + round;
            List<Integer> statuses = atOnce(4, i -> engineer.request()
                    .body(Map.of("sort", "time", "name", name, "values", Map.of("address", "127.40.8.9")))
                    .put("/api/bring-ups/" + id + "/site-resources")
                    .statusCode());
            assertEquals(1, statuses.stream().filter(status -> status == 200).count(), statuses::toString);
            assertTrue(statuses.stream().allMatch(status -> status < 500), statuses::toString);
            long thing = engineer.get("/api/bring-ups/" + id + "/prepare")
                    .getLong("siteResources.find { it.name == '" + name + "' }.id");
            List<Integer> deleted = atOnce(3, i -> engineer.request()
                    .delete("/api/bring-ups/" + id + "/site-resources/" + thing)
                    .statusCode());
            assertEquals(1, deleted.stream().filter(status -> status == 204).count(), deleted::toString);
            assertTrue(deleted.stream().allMatch(status -> status < 500), deleted::toString);
        }
        List<Integer> vantages = atOnce(
                4, i -> lead.post("/api/vantages", Map.of("name", "cage-" + id)).statusCode());
        assertEquals(1, vantages.stream().filter(status -> status == 200).count(), vantages::toString);
        assertTrue(vantages.stream().allMatch(status -> status < 500), vantages::toString);
    }

    @Test
    void aRequestThatIsSentSixTimesAtOnceIsCarriedOutOnceAndAnsweredSixTimes() throws Exception {
        List<Response> answers = atOnce(6, i -> engineer.request()
                .header("Idempotency-Key", "announce-" + id)
                .body(Map.of("kind", "index-appliance", "count", 1, "members", 1))
                .post("/api/bring-ups/" + id + "/units"));
        answers.forEach(answer -> answer.statusCode(200));
        assertEquals(
                1, answers.stream().map(answer -> answer.asString()).distinct().count());
        assertEquals(
                2,
                engineer.get("/api/bring-ups/" + id + "/prepare")
                        .getList("units")
                        .size());
    }

    @Test
    void aRefusedRequestFreesItsKeyAndATokenIsNotShownTwice() {
        engineer.request()
                .header("Idempotency-Key", "refused-" + id)
                .body(Map.of("kind", "no-such-kind", "count", 1, "members", 1))
                .post("/api/bring-ups/" + id + "/units")
                .statusCode(400);
        engineer.request()
                .header("Idempotency-Key", "refused-" + id)
                .body(Map.of("kind", "index-appliance", "count", 1, "members", 1))
                .post("/api/bring-ups/" + id + "/units")
                .statusCode(200);
        Map<String, Object> wanted = Map.of("name", "monitoring " + id, "role", "viewer", "days", 1);
        engineer.request()
                .header("Idempotency-Key", "token-" + id)
                .body(wanted)
                .post("/api/tokens")
                .statusCode(200)
                .body("token", notNullValue());
        engineer.request()
                .header("Idempotency-Key", "token-" + id)
                .body(wanted)
                .post("/api/tokens")
                .statusCode(409)
                .body("detail", containsString("already carried out"));
    }

    private long arrayUnit() {
        return engineer.post(
                        "/api/bring-ups/" + id + "/units", Map.of("kind", "hypervisor-host", "count", 1, "members", 1))
                .statusCode(200)
                .json()
                .getLong("[0]");
    }

    private Json setRoot(long unit, String value, String seen) {
        Map<String, Object> cell = new HashMap<>(Map.of("unitId", unit, "member", "", "name", "root", "value", value));
        cell.put("seen", seen);
        return engineer.request()
                .body(Map.of("cells", List.of(cell)))
                .put("/api/bring-ups/" + id + "/facts")
                .statusCode(200)
                .json();
    }

    private String sealedRoot(long unit) {
        return QuarkusTransaction.requiringNew().call(() -> db.createNativeQuery(
                        "select encode(nonce, 'hex') || encode(sealed, 'hex') from fact where unit_id = :unit and "
                                + "name = 'root'",
                        String.class)
                .setParameter("unit", unit)
                .getResultStream()
                .findFirst()
                .orElse(""));
    }

    @Test
    void aSecretFactIsJournalledSeenAndNotLostByUndo() {
        long unit = arrayUnit();
        Json first = setRoot(unit, "first-secret-of-all", "");
        assertEquals(1, first.getInt("changed"));
        String sealed = sealedRoot(unit);
        String entry = QuarkusTransaction.requiringNew().call(() -> db.createNativeQuery(
                        "select cast(after as text) from journal where bring_up_id = :id order by id desc limit 1",
                        String.class)
                .setParameter("id", id)
                .getSingleResult());
        assertTrue(entry.contains("\"root\"") && !entry.contains("first-secret") && !entry.contains("nonce"), entry);
        assertTrue(setRoot(unit, "(sealed)", null)
                .getString("faults[0].reason")
                .contains("is shown in place of a saved password"));
        assertTrue(
                setRoot(unit, "another-secret-1", "")
                        .getString("faults[0].reason")
                        .contains("since you loaded it"),
                "what was seen is not the current value");
        assertEquals(sealed, sealedRoot(unit));
        long cleared = setRoot(unit, "", "(sealed)").getLong("changeId");
        assertEquals("", sealedRoot(unit));
        engineer.post("/api/sheet-changes/" + cleared + "/undo", Map.of()).statusCode(200);
        assertEquals(sealed, sealedRoot(unit), "the secret itself is back");
        long changed = setRoot(unit, "another-secret-2", "(sealed)").getLong("changeId");
        setRoot(unit, "another-secret-3", "(sealed)");
        String newest = sealedRoot(unit);
        engineer.post("/api/sheet-changes/" + changed + "/undo", Map.of())
                .statusCode(200)
                .body(equalTo("0"));
        assertEquals(newest, sealedRoot(unit), "one that was changed since is left as it is");
    }

    // --- sign-in and access ---

    @Test
    void aPageOfAnotherOriginChangesNothingAndOpensNoSocket() {
        String labels = "serial,mac\nEVIL-1,02:4c:59:00:00:01\n";
        for (Map<String, String> headers : List.of(
                Map.of("Origin", "http://127.0.0.1:9999"),
                Map.of("Sec-Fetch-Site", "same-site"),
                Map.of("Sec-Fetch-Site", "cross-site"),
                Map.of("Origin", "null"),
                Map.of("Origin", "https://bmc-1.ardal.example"))) {
            given().cookie("lychnos", engineer.cookie())
                    .headers(headers)
                    .contentType("text/plain")
                    .body(labels)
                    .post("/api/bring-ups/" + id + "/labels")
                    .statusCode(403)
                    .contentType("application/problem+json");
            given().cookie("lychnos", engineer.cookie())
                    .headers(headers)
                    .contentType("text/plain")
                    .post("/api/v1/bring-ups/" + id + "/consoles/stop")
                    .statusCode(403);
            given().headers(headers)
                    .contentType(Request.JSON)
                    .body(Map.of("login", "rack-one", "password", "engineer-at-rack-one"))
                    .post("/api/session")
                    .statusCode(403);
            given().cookie("lychnos", engineer.cookie())
                    .headers(headers)
                    .header("Connection", "Upgrade")
                    .header("Upgrade", "websocket")
                    .header("Sec-WebSocket-Version", "13")
                    .header("Sec-WebSocket-Key", "dGhlIHNhbXBsZSBub25jZQ==")
                    .get("/api/live")
                    .statusCode(403);
        }
        String own = "http://" + root.getHost() + ":" + root.getPort();
        given().cookie("lychnos", engineer.cookie())
                .header("Origin", own)
                .header("Sec-Fetch-Site", "same-origin")
                .contentType(Request.JSON)
                .body("{}")
                .post("/api/bring-ups/" + id + "/consoles/stop")
                .statusCode(204);
    }

    @Test
    void aSocketEndsWithTheSessionThatOpenedIt() throws Exception {
        CompletableFuture<Integer> closed = new CompletableFuture<>();
        CompletableFuture<String> opened = new CompletableFuture<>();
        WebSocket socket = HttpClient.newHttpClient()
                .newWebSocketBuilder()
                .header("Cookie", "lychnos=" + engineer.cookie())
                .buildAsync(
                        URI.create("ws://" + root.getHost() + ":" + root.getPort() + "/api/live"),
                        new WebSocket.Listener() {
                            @Override
                            public CompletionStage<?> onText(WebSocket from, CharSequence data, boolean last) {
                                opened.complete(data.toString());
                                from.request(1);
                                return null;
                            }

                            @Override
                            public CompletionStage<?> onClose(WebSocket from, int code, String reason) {
                                closed.complete(code);
                                return null;
                            }
                        })
                .get(20, TimeUnit.SECONDS);
        assertEquals("0 all", opened.get(20, TimeUnit.SECONDS));
        engineer.request().delete("/api/session").statusCode(204);
        closed.get(20, TimeUnit.SECONDS);
        assertTrue(socket.isInputClosed());
    }

    @Test
    void aTokenMakesNoTokenShowsNoPasswordAndEndsWithItsOwner() {
        String token = lead.post("/api/tokens", Map.of("name", "export " + id, "role", "lead", "days", 2))
                .statusCode(200)
                .json()
                .getString("token");
        given().bearer(token).get("/api/bring-ups").statusCode(200);
        given().bearer(token)
                .contentType(Request.JSON)
                .body(Map.of("name", "more", "role", "viewer", "days", 366))
                .post("/api/tokens")
                .statusCode(403)
                .body("detail", containsString("token"));
        given().bearer(token)
                .contentType(Request.JSON)
                .post("/api/dialogues/1/steps/0/password")
                .statusCode(403)
                .body("detail", containsString("token"));
        given().bearer(token)
                .contentType(Request.JSON)
                .body(Map.of("key", "x"))
                .post("/api/bring-ups/" + id + "/credentials")
                .statusCode(403);
        given().bearer(token)
                .contentType(Request.JSON)
                .body(Map.of("login", "made-by-a-token", "name", "x", "role", "lead"))
                .post("/api/people")
                .statusCode(403);
    }

    @Test
    void aPasswordIsShownOnlyRightAfterOnesOwnWasTyped() {
        sql("update sign_in set password_at = now() - interval '11 minutes' where account_id = (select id from "
                + "account where login = 'rack-one')");
        engineer.post("/api/dialogues/1/steps/0/password", Map.of())
                .statusCode(403)
                .body("code", equalTo("SIGN_IN_AGAIN"));
        engineer.post("/api/session/confirm", Map.of("password", "not the password"))
                .statusCode(400)
                .body("faults[0].field", equalTo("old"));
        engineer.post("/api/dialogues/1/steps/0/password", Map.of()).statusCode(403);
        engineer.post("/api/session/confirm", Map.of("password", "engineer-at-rack-one"))
                .statusCode(204);
        engineer.post("/api/dialogues/1/steps/0/password", Map.of()).statusCode(not(equalTo(403)));
    }

    @Test
    void aPasswordOfAServiceIsTypedAgainWhereItWouldGoSomewhereElse() {
        Map<String, String> values = new HashMap<>(
                Map.of("address", "127.40.8.23", "port", "3128", "user", "lychnos", "key", "word-for-the-proxy"));
        Map<String, Object> proxy = new HashMap<>(Map.of("sort", "proxy", "name", "proxy-1", "values", values));
        engineer.request()
                .body(proxy)
                .put("/api/bring-ups/" + id + "/site-resources")
                .statusCode(403)
                .body("detail", containsString("by a lead"));
        long thing = Long.parseLong(lead.request()
                .body(proxy)
                .put("/api/bring-ups/" + id + "/site-resources")
                .statusCode(200)
                .asString());
        proxy.put("id", thing);
        for (Map.Entry<String, String> other : Map.of("address", "127.40.8.66", "port", "3129", "user", "somebody")
                .entrySet()) {
            Map<String, String> changed = new HashMap<>(values);
            changed.put("key", "(sealed)");
            changed.put(other.getKey(), other.getValue());
            proxy.put("values", changed);
            lead.request()
                    .body(proxy)
                    .put("/api/bring-ups/" + id + "/site-resources")
                    .statusCode(400)
                    .body("faults[0].field", equalTo("key"));
            engineer.request()
                    .body(proxy)
                    .put("/api/bring-ups/" + id + "/site-resources")
                    .statusCode(not(equalTo(200)));
        }
        Map<String, String> harmless = new HashMap<>(values);
        harmless.put("key", "(sealed)");
        harmless.put("target", "activate.ardal.example:443");
        proxy.put("values", harmless);
        lead.request()
                .body(proxy)
                .put("/api/bring-ups/" + id + "/site-resources")
                .statusCode(200);
        harmless.put("target", "x\nSET pwned 1\nQUIT\n#:443");
        lead.request()
                .body(proxy)
                .put("/api/bring-ups/" + id + "/site-resources")
                .statusCode(400)
                .body("faults[0].field", equalTo("target"));
    }

    @Test
    void aViewerStartsNoTrafficAndNoLongWorkAndSeesNoPathOfAWebhook() {
        Client viewer = Client.viewer();
        viewer.post("/api/bring-ups/" + id + "/measure", Map.of()).statusCode(403);
        viewer.post("/api/chain/verifications", Map.of()).statusCode(403);
        lead.post(
                        "/api/bring-ups/" + id + "/notices",
                        Map.of("sort", "webhook", "to", "https://127.40.8.30/hooks/very-secret-path"))
                .statusCode(200);
        viewer.request().get("/api/bring-ups/" + id + "/notices").body("[0].to", equalTo("https://127.40.8.30/…"));
        lead.request().get("/api/bring-ups/" + id + "/notices").body("[0].to", containsString("very-secret-path"));
        assertFalse(QuarkusTransaction.requiringNew()
                .call(() -> db.createNativeQuery("select act from journal where bring_up_id = :id", String.class)
                        .setParameter("id", id)
                        .getResultList())
                .toString()
                .contains("very-secret-path"));
    }

    // --- load and bad requests ---

    @Test
    void slowSendersHoldNoWorker() throws Exception {
        List<Socket> slow = new ArrayList<>();
        try {
            for (int i = 0; i < 260; i++) {
                Socket socket = new Socket(root.getHost(), root.getPort());
                slow.add(socket);
                String path = i % 2 == 0 ? "/api/session" : "/api/first-lead";
                socket.getOutputStream()
                        .write(("POST " + path
                                        + " HTTP/1.1\r\nHost: x\r\nContent-Type: application/json\r\nContent-Length: "
                                        + "4000\r\n\r\n{")
                                .getBytes(StandardCharsets.US_ASCII));
            }
            // with a worker held by each of them nothing would be answered any more
            for (int i = 0; i < 5; i++) {
                engineer.request().get("/api/bring-ups/" + id + "/prepare").statusCode(200);
            }
            Socket first = slow.get(0);
            first.setSoTimeout(20_000);
            InputStream in = first.getInputStream();
            assertTrue(in.read() < 0 || in.readAllBytes().length >= 0, "the one that never ends is closed");
        } catch (IOException reset) {
            // closed the hard way, which is as good
        } finally {
            for (Socket socket : slow) {
                socket.close();
            }
        }
    }

    @Test
    void aLargeBodyAtAnOpenRouteIsNotRead() {
        given().contentType(Request.JSON)
                .body("{\"login\":\"" + "a".repeat(20_000) + "\"}")
                .post("/api/session")
                .statusCode(413)
                .contentType("application/problem+json");
    }

    /**
     * Tries to sign in from an address of its own: failures hold back every sign-in from their source for a while, also
     * those of the tests that follow.
     *
     * @return the head of the answer
     */
    private String signInFromElsewhere(String login, String password) {
        String body = "{\"login\":\"" + login + "\",\"password\":\"" + password + "\"}";
        try (Socket socket = new Socket(root.getHost(), root.getPort(), InetAddress.getByName("127.0.0.77"), 0)) {
            socket.getOutputStream()
                    .write(("POST /api/session HTTP/1.1\r\nHost: " + root.getAuthority()
                                    + "\r\nContent-Type: application/json\r\nConnection: close\r\nContent-Length: "
                                    + body.length() + "\r\n\r\n" + body)
                            .getBytes(StandardCharsets.UTF_8));
            String answer = new String(socket.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
            return answer.substring(0, answer.indexOf("\r\n\r\n"));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static int status(String head) {
        return Integer.parseInt(head.split(" ")[1]);
    }

    @Test
    void aFloodOfSignInsIsToldWhenToComeBackAndTheRightPasswordGetsIn() throws Exception {
        List<String> flood = atOnce(40, i -> signInFromElsewhere("guess-" + id + "-" + i, "wrong password " + i));
        assertTrue(
                flood.stream().allMatch(head -> status(head) == 401 || status(head) == 429),
                () -> flood.stream().map(AttacksTest::status).toList().toString());
        flood.stream()
                .filter(head -> status(head) == 429)
                .forEach(head -> assertTrue(head.toLowerCase(Locale.ROOT).contains("\nretry-after: "), head));
        for (int i = 0; i < 8; i++) {
            assertEquals(401, status(signInFromElsewhere("night-watch", "wrong password " + i)));
        }
        assertEquals(204, status(signInFromElsewhere("night-watch", "only-looking-around")));
        List<String> told = QuarkusTransaction.requiringNew().call(() -> db.createNativeQuery(
                        "select act from journal where act like '%sign-in%' or act like 'signed in%' order by id "
                                + "desc limit 100",
                        String.class)
                .getResultList());
        assertTrue(
                told.stream().anyMatch(act -> act.startsWith("refused"))
                        && told.stream().anyMatch(act -> act.startsWith("signed in")),
                told::toString);
        assertTrue(
                told.stream().filter(act -> act.startsWith("refused a")).count() < 12,
                "failures of a minute are one entry");
    }

    @Test
    void answersAreNotStoredAndMissingFilesNotRemembered() {
        engineer.request().get("/api/bring-ups").header("Cache-Control", "no-store");
        for (String page : List.of("/", "/b/1/prove", "/kinds", "/kinds/server-controller", "/people")) {
            given().get(page)
                    .header("Cache-Control", containsString("no-cache"))
                    .header("Cross-Origin-Resource-Policy", "same-origin");
        }
        given().get("/assets/no-such-file.js")
                .statusCode(404)
                .header("Cache-Control", not(containsString("immutable")));
        given().get("/q/metrics").statusCode(401);
        given().get("/q/openapi").statusCode(401);
    }
}
