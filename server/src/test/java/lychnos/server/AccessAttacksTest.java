package lychnos.server;

import static lychnos.server.http.Request.given;
import static org.hamcrest.Matchers.containsString;
import static org.hamcrest.Matchers.equalTo;
import static org.hamcrest.Matchers.not;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.quarkus.narayana.jta.QuarkusTransaction;
import io.quarkus.test.junit.QuarkusTest;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.WebSocket;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionStage;
import java.util.concurrent.TimeUnit;
import lychnos.server.http.Request;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** What was tried on sign-in, tokens and passwords. */
@QuarkusTest
class AccessAttacksTest extends AttackStage {

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

    @Tag("wording")
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

    @Tag("wording")
    @Test
    void aPasswordOfAServiceIsTypedAgainWhereItWouldGoSomewhereElse() {
        Map<String, String> values = new HashMap<>(
                Map.of("address", "127.40.8.23", "port", "3128", "user", "lychnos", "key", "word-for-the-proxy"));
        Map<String, Object> proxy = new HashMap<>(Map.of("sort", "proxy", "name", "proxy-1", "values", values));
        engineer.request()
                .body(proxy)
                .put("/api/bring-ups/" + id + "/site-resources")
                .statusCode(403)
                .body("code", equalTo("ENTRIES_WITH_A_PASSWORD_CAN_ONLY_BE_ADDED"));
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
}
