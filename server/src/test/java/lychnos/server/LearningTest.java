package lychnos.server;

import static org.hamcrest.Matchers.equalTo;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.quarkus.test.junit.QuarkusTest;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import lychnos.server.http.Json;
import lychnos.server.http.Request;
import lychnos.server.http.Response;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** A dialogue is learnt from the log of a setup by hand. */
@QuarkusTest
class LearningTest {

    private static final String GATEWAY =
            """
            kind: metering-gateway
            title: Metering gateway
            short: pmg
            about: It meters the feeds of a rack.
            facts:
              serial: { of: unit, is: serial, find: its plate }
            addresses:
              - { run: [ management ], in: management }
            names: { unit: "{site}-{kind}-{n}" }
            setup: { by: pages }
            factory:
              - { way: web, user: owner, phrase: owner }
            checks: { port: 443 }
            waits:
              restart: { about: 1 min, at-most: 5 min }
            """;

    private Client engineer;
    private String path;
    private int unit;
    private String name;
    private String address;

    @BeforeEach
    void aUnitOfAKindWithoutADialogue() {
        engineer = Client.engineer();
        Response saved = draft();
        assertTrue(List.of(200, 412).contains(saved.statusCode()), saved::asString);
        if (saved.statusCode() == 200) {
            int published = Client.lead()
                    .post("/api/catalogue/metering-gateway/publish", Map.of("note", "its plate"))
                    .statusCode();
            assertTrue(List.of(200, 409).contains(published), "published by the test before this one");
        }
        long id = engineer.bringUp();
        path = "/api/bring-ups/" + id;
        engineer.network(id, Client.network("10.40.8.0/24", "10.40.8.1", "pool 10.40.8.210-219"));
        unit = engineer.post(path + "/units", Map.of("kind", "metering-gateway", "count", 1, "members", 0))
                .json()
                .getInt("[0]");
        name = engineer.get(path + "/prepare").getString("units[0].name");
        engineer.request()
                .body(Map.of(
                        "cells",
                        List.of(Map.of("unitId", unit, "member", "", "name", "serial", "value", "MG-" + unit))))
                .put(path + "/facts")
                .statusCode(200);
        engineer.take(id).statusCode(200);
        address = engineer.get(path + "/ribbon").getString("seats[0].address");
    }

    private Response draft() {
        return engineer.request()
                .contentType("text/plain; charset=UTF-8")
                .header("If-Match", "\"0\"")
                .body(GATEWAY)
                .put("/api/catalogue/metering-gateway/draft");
    }

    /** Each pair is what the machine shows, and what is typed then. */
    private static String recording(String... turns) {
        StringBuilder cast = new StringBuilder("{\"version\":2,\"width\":80,\"height\":25}\n");
        for (int i = 0; i < turns.length; i++) {
            cast.append("[%d.0,\"%s\",\"%s\"]\n".formatted(i, i % 2 == 0 ? "o" : "i", turns[i]));
        }
        return cast.toString();
    }

    private String byHand() {
        return recording(
                "\\r\\nMetering gateway MG-" + unit + ", empty\\r\\ncalled: ",
                name + "\\r",
                name + "\\r\\nits IP with length: ",
                address + "/24\\r",
                address + "/24\\r\\nphase order: ",
                "acb\\r",
                "acb\\r\\nowner word: ",
                "Tz4kWn8pQr\\r",
                "\\r\\nonce more: ",
                "Tz4kWn8pQr\\r",
                "\\r\\nthank you\\r\\n");
    }

    private static Map<String, Object> nulls() {
        Map<String, Object> nulls = new HashMap<>();
        nulls.put("2", null);
        return nulls;
    }

    private Response lesson(String recording, Map<String, Object> answers) {
        Map<String, Object> asked =
                new HashMap<>(Map.of("description", GATEWAY, "recording", recording, "unit", unit, "member", ""));
        asked.put("answers", answers);
        return engineer.post("/api/kinds/lessons", asked);
    }

    @Test
    void whatIsLeftIsAskedAndThenTheKindIsComplete() {
        Json asked = lesson(byHand(), null).statusCode(200).json();
        assertEquals(List.of("TEXT", "MARKS"), asked.getList("questions.sort"));
        assertEquals(
                List.of("{name}", "{address}/{length}", "", "{password}", "{password}"), asked.getList("steps.answer"));
        assertFalse(asked.prettify().contains("Tz4kWn8pQr"), asked::prettify);
        assertFalse(asked.getBoolean("wakes"), "the machine spoke on its own");
        Map<String, Object> answers = Map.of(
                "texts",
                Map.of("2", "FACT"),
                "marks",
                Map.of("2", List.of("PERMANENT", "OPTIONAL")),
                "found",
                Map.of("phase-order", "sheet of the feeds"));
        Json learnt = lesson(byHand(), answers).statusCode(200).json();
        assertEquals(List.of(), learnt.getList("faults"), learnt::prettify);
        assertTrue(learnt.getBoolean("agrees"), learnt::prettify);
        assertTrue(learnt.getString("description").contains("answer: '{phase-order}', permanent: yes, optional: yes"));
        assertTrue(learnt.getString("description").contains("find: 'sheet of the feeds'"), learnt::prettify);
        assertFalse(learnt.getString("description").contains("acb"));
    }

    @Test
    void aLogWithoutKeysOrOfAnotherUnitIsRefusedOrAsked() {
        lesson("called: " + name, null).statusCode(400);
        lesson(recording("called: "), null).statusCode(400);
        Json other = lesson(byHand().replace("MG-" + unit, "MG-0"), null)
                .statusCode(200)
                .body("identified", equalTo(false))
                .json();
        assertEquals("IDENTITY", other.getString("questions[0].sort"));
        Map<String, Object> nothing = new HashMap<>();
        nothing.put("texts", nulls());
        nothing.put("parts", nulls());
        nothing.put("marks", nulls());
        lesson(byHand(), nothing).statusCode(200).body("questions.sort", equalTo(List.of("TEXT")));
        List<Integer> refused = new ArrayList<>();
        refused.add(Client.viewer()
                .post("/api/kinds/lessons", Map.of("description", GATEWAY, "recording", byHand(), "unit", unit))
                .statusCode());
        // a token may read no password, and what is learnt tells whether something typed is one
        String token = engineer.post("/api/tokens", Map.of("name", "learns " + unit, "role", "engineer", "days", 1))
                .json()
                .getString("token");
        refused.add(Request.given()
                .bearer(token)
                .contentType("application/json")
                .body(Map.of("description", GATEWAY, "recording", byHand(), "unit", unit))
                .post("/api/kinds/lessons")
                .statusCode());
        assertEquals(List.of(403, 403), refused);
    }
}
