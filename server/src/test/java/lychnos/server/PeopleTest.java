package lychnos.server;

import static lychnos.server.http.Request.given;
import static org.hamcrest.Matchers.equalTo;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.quarkus.test.junit.QuarkusTest;
import java.util.Map;
import java.util.concurrent.atomic.AtomicInteger;
import lychnos.server.http.Json;
import lychnos.server.http.Request;
import lychnos.server.http.Response;
import lychnos.server.text.IdentityText;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** Accounts from the invitation to their end. */
@QuarkusTest
class PeopleTest {

    private static final AtomicInteger NEXT = new AtomicInteger((int) (System.currentTimeMillis() % 100_000_000));
    private static final String PASSWORD = "lantern over the third rack";

    private Client lead;
    private String login;

    @BeforeEach
    void signIn() {
        lead = Client.lead();
        login = "kari" + NEXT.getAndIncrement();
    }

    private Json invite(String role) {
        return lead.post("/api/people", Map.of("login", login, "name", "Kari at the rack", "role", role))
                .statusCode(200)
                .header("Cache-Control", "no-store")
                .json();
    }

    private static Response accept(String token, String password) {
        return given().contentType(Request.JSON)
                .body(Map.of("token", token, "password", password))
                .post("/api/invitation/password");
    }

    private static Response signIn(String login, String password) {
        return given().contentType(Request.JSON)
                .body(Map.of("login", login, "password", password))
                .post("/api/session");
    }

    private static Response as(String cookie, String path) {
        return given().cookie("lychnos", cookie).get(path);
    }

    private Map<String, Object> row() {
        return lead.get("/api/people").getMap("find { it.login == '" + login + "' }");
    }

    @Tag("wording")
    @Test
    void anInvitedPersonSetsAPasswordOnceAndWorks() {
        Json invited = invite("engineer");
        String token = invited.getString("token");
        signIn(login, "").statusCode(401);
        given().contentType(Request.JSON)
                .body(Map.of("token", token))
                .post("/api/invitation")
                .statusCode(200)
                .body("login", equalTo(login));
        accept(token, "short").statusCode(400).body("faults[0].field", equalTo("password"));
        accept(token, login + login)
                .statusCode(400)
                .body("detail", equalTo(IdentityText.PASSWORD_CONSISTS_OF_COMMON_WORDS.text()));
        String cookie = accept(token, PASSWORD).statusCode(204).cookie("lychnos");
        as(cookie, "/api/session").statusCode(200).body("role", equalTo("engineer"));
        accept(token, "another lantern entirely")
                .statusCode(400)
                .body("code", equalTo("LINK_HAS_BEEN_USED_ALREADY_OR_HAS_EXPIRED"));
        signIn(login, PASSWORD).statusCode(204);
        assertEquals(true, row().get("hasPassword"));
        lead.post("/api/people", Map.of("login", login, "name", "Another", "role", "viewer"))
                .statusCode(400)
                .body("faults[0].field", equalTo("login"));
    }

    @Test
    void whoIsDisabledIsOutAtOnceTokensAndAll() {
        String cookie = accept(invite("engineer").getString("token"), PASSWORD)
                .statusCode(204)
                .cookie("lychnos");
        String token = given().cookie("lychnos", cookie)
                .contentType(Request.JSON)
                .body(Map.of("name", "script", "role", "viewer", "days", 3))
                .post("/api/tokens")
                .statusCode(200)
                .json()
                .getString("token");
        given().bearer(token).get("/api/bring-ups").statusCode(200);
        long id = ((Number) row().get("id")).longValue();
        lead.request().body(Map.of("disabled", true)).put("/api/people/" + id).statusCode(204);
        as(cookie, "/api/session").statusCode(401);
        given().bearer(token).get("/api/bring-ups").statusCode(401);
        signIn(login, PASSWORD).statusCode(401);
        lead.request()
                .body(Map.of("disabled", false, "role", "viewer"))
                .put("/api/people/" + id)
                .statusCode(204);
        signIn(login, PASSWORD).statusCode(204);
        given().bearer(token).get("/api/bring-ups").statusCode(200);
    }

    @Test
    void aForgottenPasswordIsSetByALinkAndOldSessionsEnd() {
        String cookie = accept(invite("viewer").getString("token"), PASSWORD).cookie("lychnos");
        long id = ((Number) row().get("id")).longValue();
        String link = lead.post("/api/people/" + id + "/invitation", Map.of())
                .statusCode(200)
                .json()
                .getString("token");
        as(cookie, "/api/session").statusCode(200);
        accept(link, "another lantern entirely").statusCode(204);
        as(cookie, "/api/session").statusCode(401);
        signIn(login, PASSWORD).statusCode(401);
        signIn(login, "another lantern entirely").statusCode(204);
    }

    @Test
    void onesOwnPasswordIsChangedAndOtherSessionsEnd() {
        String here = accept(invite("viewer").getString("token"), PASSWORD).cookie("lychnos");
        String there = signIn(login, PASSWORD).cookie("lychnos");
        assertEquals(2, as(here, "/api/sessions").json().getList("").size());
        given().cookie("lychnos", here)
                .contentType(Request.JSON)
                .body(Map.of("old", "wrong", "password", "another lantern entirely"))
                .post("/api/session/password")
                .statusCode(400)
                .body("faults[0].field", equalTo("old"));
        given().cookie("lychnos", here)
                .contentType(Request.JSON)
                .body(Map.of("old", PASSWORD, "password", "another lantern entirely"))
                .post("/api/session/password")
                .statusCode(204);
        as(here, "/api/session").statusCode(200);
        as(there, "/api/session").statusCode(401);
        String again = signIn(login, "another lantern entirely").statusCode(204).cookie("lychnos");
        given().cookie("lychnos", here).delete("/api/sessions").statusCode(204);
        as(again, "/api/session").statusCode(401);
    }

    @Tag("wording")
    @Test
    void oneLeadAlwaysRemainsAndOnlyLeadsLookAfterAccounts() {
        Client.engineer().request().get("/api/people").statusCode(403);
        Client.engineer()
                .post("/api/people", Map.of("login", login, "name", "x", "role", "lead"))
                .statusCode(403);
        Json people = lead.get("/api/people");
        if (people.getList("findAll { it.role == 'lead' && it.disabledAt == null && it.hasPassword }")
                        .size()
                == 1) {
            int own = people.getInt("find { it.role == 'lead' && it.disabledAt == null && it.hasPassword }.id");
            lead.request()
                    .body(Map.of("disabled", true))
                    .put("/api/people/" + own)
                    .statusCode(409)
                    .body("code", equalTo("IS_THE_ONLY_LEAD"));
            lead.request()
                    .body(Map.of("role", "viewer"))
                    .put("/api/people/" + own)
                    .statusCode(409);
        }
        assertTrue(people.getList("").size() >= 3);
    }

    @Test
    void sessionsOfAPersonCanBeEndedByALead() {
        String cookie = accept(invite("viewer").getString("token"), PASSWORD).cookie("lychnos");
        lead.request().delete("/api/people/" + row().get("id") + "/sessions").statusCode(204);
        as(cookie, "/api/session").statusCode(401);
    }
}
