package lychnos.server;

import static lychnos.server.http.Request.given;
import static org.hamcrest.Matchers.containsString;
import static org.hamcrest.Matchers.equalTo;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.quarkus.test.junit.QuarkusTest;
import java.util.Map;
import java.util.Set;
import lychnos.server.http.Json;
import lychnos.server.http.Request;
import lychnos.server.text.IdentityText;
import lychnos.server.text.PrepareText;
import org.junit.jupiter.api.Test;

/** Who gets in, and what nobody gets without signing in. */
@QuarkusTest
class DoorTest {

    private static final Set<String> OPEN = Set.of(
            "GET /api/kinds/kind.schema.json",
            "GET /api/door",
            "POST /api/session",
            "POST /api/first-lead",
            "POST /api/invitation",
            "POST /api/invitation/password");

    /** Walks the OpenAPI document: every route but the door answers 401 without a session. */
    @Test
    void everyRouteNeedsASession() {
        Json document = Client.viewer()
                .request()
                .accept(Request.JSON)
                .get("/q/openapi?format=json")
                .json();
        Map<String, Map<String, Object>> paths = document.getMap("paths");
        int walked = 0;
        for (var path : paths.entrySet()) {
            for (String method : path.getValue().keySet()) {
                if (!Set.of("get", "post", "put", "delete", "patch").contains(method)
                        || OPEN.contains(method.toUpperCase() + " " + path.getKey())) {
                    continue;
                }
                String url = path.getKey()
                        .replaceAll("\\{allocation}", "00000000-0000-0000-0000-000000000000")
                        .replaceAll("\\{[^}]+}", "1");
                boolean text = url.endsWith("/labels")
                        || url.endsWith("/facts.csv")
                        || url.endsWith("/kinds/check")
                        || url.endsWith("/kinds/preview")
                        || url.endsWith("/draft")
                        || url.endsWith("/address-imports");
                String type = url.contains("/kinds/packages")
                        ? "application/zip"
                        : url.endsWith("/content") ? "application/octet-stream" : text ? Request.TEXT : Request.JSON;
                int status = given().contentType(type)
                        .body(text ? "x" : "{}")
                        .send(method.toUpperCase(), url)
                        .statusCode();
                assertEquals(401, status, method + " " + url);
                walked++;
            }
        }
        assertTrue(walked >= 20, "only " + walked + " routes were walked");
    }

    @Test
    void thePushChannelNeedsASession() {
        given().header("Connection", "Upgrade")
                .header("Upgrade", "websocket")
                .header("Sec-WebSocket-Version", "13")
                .header("Sec-WebSocket-Key", "dGhlIHNhbXBsZSBub25jZQ==")
                .get("/api/live")
                .statusCode(401);
    }

    @Test
    void aViewerLooksAndChangesNothing() {
        Client viewer = Client.viewer();
        viewer.get("/api/bring-ups");
        viewer.post("/api/bring-ups", Map.of("name", "x", "siteCode", "xx"))
                .statusCode(403)
                .contentType("application/problem+json");
    }

    @Test
    void aWrongPasswordIsToldWithoutSayingWhichPartWasWrong() {
        for (String login : new String[] {"rack-one", "nobody"}) {
            given().contentType(Request.JSON)
                    .body(Map.of("login", login, "password", "wrong"))
                    .post("/api/session")
                    .statusCode(401)
                    .contentType("application/problem+json")
                    .body("detail", equalTo(IdentityText.LOGIN_OR_PASSWORD_IS_WRONG.text()));
        }
    }

    @Test
    void signingOutEndsTheSignIn() {
        Client client = Client.engineer();
        client.request().delete("/api/session").statusCode(204);
        client.request().get("/api/session").statusCode(401);
    }

    @Test
    void theCookieIsOutOfReachOfScripts() {
        given().contentType(Request.JSON)
                .body(Map.of("login", "rack-one", "password", "engineer-at-rack-one"))
                .post("/api/session")
                .header("Set-Cookie", containsString("HttpOnly"))
                .header("Set-Cookie", containsString("SameSite=Strict"));
    }

    @Test
    void anUnknownFirstLeadCodeMakesNobodyALead() {
        given().contentType(Request.JSON)
                .body(Map.of("code", "guess", "login", "me", "name", "Me", "password", "long-enough-password"))
                .post("/api/first-lead")
                .statusCode(400);
    }

    @Test
    void pagesCarryAStrictPolicyAndProbesAnswer() {
        given().accept("text/html")
                .get("/b/1/prove")
                .header("Content-Security-Policy", containsString("default-src 'self'"));
        given().get("/q/health").statusCode(200).body("status", equalTo("UP"));
        Client.viewer().request().get("/q/metrics").statusCode(200).body(containsString("jvm_memory_used_bytes"));
    }

    @Test
    void whatIsNotThereIsAProblemDocument() {
        Client.engineer()
                .request()
                .get("/api/bring-ups/999999/board")
                .statusCode(404)
                .contentType("application/problem+json")
                .body("detail", equalTo(PrepareText.NO_SUCH_BRING_UP.text()));
    }
}
