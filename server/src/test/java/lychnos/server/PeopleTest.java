package lychnos.server;

import static io.restassured.RestAssured.given;
import static org.hamcrest.Matchers.containsString;
import static org.hamcrest.Matchers.equalTo;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.quarkus.test.junit.QuarkusTest;
import io.restassured.http.ContentType;
import io.restassured.path.json.JsonPath;
import io.restassured.response.Response;
import java.util.Map;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.BeforeEach;
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

    private JsonPath invite(String role) {
        return lead.post("/api/people", Map.of("login", login, "name", "Kari at the rack", "role", role))
                .then()
                .statusCode(200)
                .header("Cache-Control", "no-store")
                .extract()
                .jsonPath();
    }

    private static Response accept(String token, String password) {
        return given().contentType(ContentType.JSON)
                .body(Map.of("token", token, "password", password))
                .post("/api/invitation/password");
    }

    private static Response signIn(String login, String password) {
        return given().contentType(ContentType.JSON)
                .body(Map.of("login", login, "password", password))
                .post("/api/session");
    }

    private static Response as(String cookie, String path) {
        return given().cookie("lychnos", cookie).get(path);
    }

    private Map<String, Object> row() {
        return lead.get("/api/people").getMap("find { it.login == '" + login + "' }");
    }

    @Test
    void anInvitedPersonSetsAPasswordOnceAndWorks() {
        JsonPath invited = invite("engineer");
        String token = invited.getString("token");
        signIn(login, "").then().statusCode(401);
        given().contentType(ContentType.JSON)
                .body(Map.of("token", token))
                .post("/api/invitation")
                .then()
                .statusCode(200)
                .body("login", equalTo(login));
        accept(token, "short").then().statusCode(400).body("faults[0].field", equalTo("password"));
        accept(token, login + login).then().statusCode(400).body("detail", containsString("tried first"));
        String cookie = accept(token, PASSWORD).then().statusCode(204).extract().cookie("lychnos");
        as(cookie, "/api/session").then().statusCode(200).body("role", equalTo("engineer"));
        accept(token, "another lantern entirely").then().statusCode(400).body("detail", containsString("used already"));
        signIn(login, PASSWORD).then().statusCode(204);
        assertEquals(true, row().get("hasPassword"));
        lead.post("/api/people", Map.of("login", login, "name", "Another", "role", "viewer"))
                .then()
                .statusCode(400)
                .body("faults[0].field", equalTo("login"));
    }

    @Test
    void whoIsDisabledIsOutAtOnceTokensAndAll() {
        String cookie = accept(invite("engineer").getString("token"), PASSWORD)
                .then()
                .statusCode(204)
                .extract()
                .cookie("lychnos");
        String token = given().cookie("lychnos", cookie)
                .contentType(ContentType.JSON)
                .body(Map.of("name", "script", "role", "viewer", "days", 3))
                .post("/api/tokens")
                .then()
                .statusCode(200)
                .extract()
                .jsonPath()
                .getString("token");
        given().auth().oauth2(token).get("/api/bring-ups").then().statusCode(200);
        long id = ((Number) row().get("id")).longValue();
        lead.request()
                .body(Map.of("disabled", true))
                .put("/api/people/" + id)
                .then()
                .statusCode(204);
        as(cookie, "/api/session").then().statusCode(401);
        given().auth().oauth2(token).get("/api/bring-ups").then().statusCode(401);
        signIn(login, PASSWORD).then().statusCode(401);
        lead.request()
                .body(Map.of("disabled", false, "role", "viewer"))
                .put("/api/people/" + id)
                .then()
                .statusCode(204);
        signIn(login, PASSWORD).then().statusCode(204);
        given().auth().oauth2(token).get("/api/bring-ups").then().statusCode(200);
    }

    @Test
    void aForgottenPasswordIsSetByALinkAndOldSessionsEnd() {
        String cookie = accept(invite("viewer").getString("token"), PASSWORD)
                .then()
                .extract()
                .cookie("lychnos");
        long id = ((Number) row().get("id")).longValue();
        String link = lead.post("/api/people/" + id + "/invitation", Map.of())
                .then()
                .statusCode(200)
                .extract()
                .jsonPath()
                .getString("token");
        as(cookie, "/api/session").then().statusCode(200);
        accept(link, "another lantern entirely").then().statusCode(204);
        as(cookie, "/api/session").then().statusCode(401);
        signIn(login, PASSWORD).then().statusCode(401);
        signIn(login, "another lantern entirely").then().statusCode(204);
    }

    @Test
    void onesOwnPasswordIsChangedAndOtherSessionsEnd() {
        String here = accept(invite("viewer").getString("token"), PASSWORD)
                .then()
                .extract()
                .cookie("lychnos");
        String there = signIn(login, PASSWORD).then().extract().cookie("lychnos");
        assertEquals(2, as(here, "/api/sessions").jsonPath().getList("").size());
        given().cookie("lychnos", here)
                .contentType(ContentType.JSON)
                .body(Map.of("old", "wrong", "password", "another lantern entirely"))
                .post("/api/session/password")
                .then()
                .statusCode(400)
                .body("faults[0].field", equalTo("old"));
        given().cookie("lychnos", here)
                .contentType(ContentType.JSON)
                .body(Map.of("old", PASSWORD, "password", "another lantern entirely"))
                .post("/api/session/password")
                .then()
                .statusCode(204);
        as(here, "/api/session").then().statusCode(200);
        as(there, "/api/session").then().statusCode(401);
        String again = signIn(login, "another lantern entirely")
                .then()
                .statusCode(204)
                .extract()
                .cookie("lychnos");
        given().cookie("lychnos", here).delete("/api/sessions").then().statusCode(204);
        as(again, "/api/session").then().statusCode(401);
    }

    @Test
    void oneLeadAlwaysRemainsAndOnlyLeadsLookAfterAccounts() {
        Client.engineer().request().get("/api/people").then().statusCode(403);
        Client.engineer()
                .post("/api/people", Map.of("login", login, "name", "x", "role", "lead"))
                .then()
                .statusCode(403);
        JsonPath people = lead.get("/api/people");
        if (people.getList("findAll { it.role == 'lead' && it.disabledAt == null && it.hasPassword }")
                        .size()
                == 1) {
            int own = people.getInt("find { it.role == 'lead' && it.disabledAt == null && it.hasPassword }.id");
            lead.request()
                    .body(Map.of("disabled", true))
                    .put("/api/people/" + own)
                    .then()
                    .statusCode(409)
                    .body("detail", containsString("only lead"));
            lead.request()
                    .body(Map.of("role", "viewer"))
                    .put("/api/people/" + own)
                    .then()
                    .statusCode(409);
        }
        assertTrue(people.getList("").size() >= 3);
    }

    @Test
    void sessionsOfAPersonCanBeEndedByALead() {
        String cookie = accept(invite("viewer").getString("token"), PASSWORD)
                .then()
                .extract()
                .cookie("lychnos");
        lead.request()
                .delete("/api/people/" + row().get("id") + "/sessions")
                .then()
                .statusCode(204);
        as(cookie, "/api/session").then().statusCode(401);
    }
}
