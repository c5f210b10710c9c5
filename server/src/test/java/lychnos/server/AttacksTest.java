package lychnos.server;

import static org.hamcrest.Matchers.equalTo;
import static org.hamcrest.Matchers.notNullValue;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.quarkus.narayana.jta.QuarkusTransaction;
import io.quarkus.test.junit.QuarkusTest;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import lychnos.server.http.Json;
import lychnos.server.http.Response;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** What was tried on data and signatures. */
@QuarkusTest
class AttacksTest extends AttackStage {

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

    @Tag("wording")
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
                .header("Idempotency-Key", "a-token-" + id)
                .body(wanted)
                .post("/api/tokens")
                .statusCode(200)
                .body("token", notNullValue());
        engineer.request()
                .header("Idempotency-Key", "a-token-" + id)
                .body(wanted)
                .post("/api/tokens")
                .statusCode(409)
                .body("code", equalTo("REQUEST_WAS_ALREADY_CARRIED_OUT"));
    }

    private long arrayUnit() {
        return engineer.post(
                        "/api/bring-ups/" + id + "/units", Map.of("kind", "hypervisor-host", "count", 1, "members", 1))
                .statusCode(200)
                .json()
                .getLong("[0]");
    }

    private Json setRoot(long unit, String value, String seen) {
        Map<String, Object> cell =
                new HashMap<>(Map.of("unitId", unit, "member", "", "name", "root-password", "value", value));
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
                                + "name = 'root-password'",
                        String.class)
                .setParameter("unit", unit)
                .getResultStream()
                .findFirst()
                .orElse(""));
    }

    @Tag("wording")
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
        assertTrue(
                entry.contains("\"root-password\"") && !entry.contains("first-secret") && !entry.contains("nonce"),
                entry);
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
}
