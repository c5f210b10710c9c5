package lychnos.server;

import static org.hamcrest.Matchers.containsString;
import static org.hamcrest.Matchers.equalTo;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.quarkus.narayana.jta.QuarkusTransaction;
import io.quarkus.test.junit.QuarkusTest;
import java.time.LocalDate;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.stream.IntStream;
import lychnos.server.http.Json;
import lychnos.server.text.HandoverText;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** Signing what is proven, and the record that it leaves. */
@QuarkusTest
class HandoverTest extends HandoverStage {

    @Tag("wording")
    @Test
    void whatIsProvenIsSignedOnceByALead() {
        assertEquals("READY", handover().getString("units[0].state"));
        sign(client, handover().getString("units[0].face")).statusCode(403);
        sign(lead, "another-face").statusCode(409).body("code", equalTo("HAS_CHANGED_SINCE_YOU_SAW"));
        String digest = sign().statusCode(200).json().getString("[0].digest");
        Json after = handover();
        assertEquals("SIGNED", after.getString("units[0].state"));
        assertEquals(digest, after.getString("units[0].digest"));
        sign().statusCode(409).body("detail", containsString("already"));
        assertTrue(verify().getList("breaks").isEmpty());
        // nothing of it is changed now
        client.post("/api/units/" + unit + "/release", Map.of());
        client.request()
                .body(Map.of("cells", List.of(Map.of("unitId", unit, "member", "", "name", "serial", "value", "XX-1"))))
                .put("/api/bring-ups/" + id + "/facts")
                .body("faults[0].reason", containsString("is signed"));
        lead.post("/api/units/" + unit + "/reopenings", Map.of("why", " ")).statusCode(400);
        lead.post("/api/units/" + unit + "/reopenings", Map.of("why", "a new board"))
                .statusCode(204);
        assertEquals("READY", handover().getString("units[0].state"));
        lead.post("/api/units/" + unit + "/reopenings", Map.of("why", "again")).statusCode(409);
        sign().statusCode(200);
        assertTrue(verify().getList("breaks").isEmpty());
    }

    @Tag("wording")
    @Test
    void aSignatureThatIsSentAgainIsTheSameOne() {
        Map<String, Object> wanted =
                Map.of("units", List.of(Map.of("unit", unit, "face", handover().getString("units[0].face"))));
        String first = lead.request()
                .header("Idempotency-Key", "signing-" + id)
                .body(wanted)
                .post("/api/v1/bring-ups/" + id + "/signatures")
                .statusCode(200)
                .json()
                .getString("[0].digest");
        String again = lead.request()
                .header("Idempotency-Key", "signing-" + id)
                .body(wanted)
                .post("/api/v1/bring-ups/" + id + "/signatures")
                .statusCode(200)
                .json()
                .getString("[0].digest");
        assertEquals(first, again);
        lead.request()
                .header("Idempotency-Key", "signing-" + id)
                .body(Map.of("units", List.of()))
                .post("/api/v1/bring-ups/" + id + "/signatures")
                .statusCode(409)
                .body("code", equalTo("IDEMPOTENCY_KEY_WAS_USED_ALREADY"));
    }

    @Tag("wording")
    @Test
    void whatHasAFaultOrAChangeIsNotSigned() {
        machine().controller().setFirmware("4.17.0");
        check(null);
        sign().statusCode(409).body("code", equalTo("CANNOT_BE_SIGNED"));
        client.post(
                        "/api/endpoints/" + claim + "/changes",
                        Map.of("what", "firmware", "now", "4.17.0", "accept", true, "reason", ""))
                .statusCode(204);
        machine().controller().setMask("255.255.0.0");
        check(null);
        assertEquals("BLOCKED", handover().getString("units[0].state"));
        sign().statusCode(409).body("code", equalTo("CANNOT_BE_SIGNED"));
    }

    @Test
    void ofTwoLeadsAtOnceOneSigns() throws Exception {
        String face = handover().getString("units[0].face");
        ExecutorService both = Executors.newFixedThreadPool(2);
        List<Callable<Integer>> signing = IntStream.range(0, 2)
                .mapToObj(i -> (Callable<Integer>) () -> sign(lead, face).statusCode())
                .toList();
        List<Integer> answers = both.invokeAll(signing).stream()
                .map(each -> {
                    try {
                        return each.get();
                    } catch (Exception e) {
                        throw new AssertionError(e);
                    }
                })
                .sorted()
                .toList();
        both.shutdown();
        assertEquals(List.of(200, 409), answers);
        assertTrue(verify().getList("breaks").isEmpty());
    }

    @Tag("wording")
    @Test
    void whatIsChangedBehindTheProgramsBackShows() {
        sign().statusCode(200);
        assertTrue(verify().getList("breaks").isEmpty());
        String before = QuarkusTransaction.requiringNew().call(() -> (String) db.createNativeQuery(
                        "select act from journal where unit_id = " + unit + " order by id limit 1", String.class)
                .getSingleResult());
        sql("alter table journal disable trigger journal_is_kept");
        sql("update journal set act = 'did nothing' where id = (select min(id) from journal where unit_id = " + unit
                + ")");
        assertEquals(
                HandoverText.WAS_CHANGED_AFTER_IT_WAS_PUT_IN.text("A journal entry"),
                verify().getString("breaks[0].why"));
        QuarkusTransaction.requiringNew().run(() -> db.createNativeMutationQuery(
                        "update journal set act = :act where id = (select min(id) from journal where unit_id = " + unit
                                + ")")
                .setParameter("act", before)
                .executeUpdate());
        sql("alter table journal enable trigger journal_is_kept");
        sql("alter table record disable trigger record_frozen");
        sql("update record set body = replace(body, '" + serial() + "', 'OTHER') where unit_id = " + unit);
        assertEquals(
                HandoverText.WAS_CHANGED_AFTER_IT_WAS_PUT_IN.text("A record"), verify().getString("breaks[0].why"));
        sql("update record set body = replace(body, 'OTHER', '" + serial() + "') where unit_id = " + unit);
        sql("alter table record enable trigger record_frozen");
        assertTrue(verify().getList("breaks").isEmpty());
        // by the front door it is not possible at all
        for (String statement : List.of(
                "update record set body = '{}' where unit_id = " + unit,
                "delete from record where unit_id = " + unit,
                "update chain_link set body = previous",
                "delete from chain_link",
                "update journal set act = 'did nothing' where unit_id = " + unit)) {
            boolean refused = false;
            try {
                sql(statement);
            } catch (RuntimeException e) {
                refused = true;
            }
            assertTrue(refused, statement);
        }
    }

    @Tag("wording")
    @Test
    void anOpenItemHasAReasonADateAndALead() {
        Map<String, Object> item = new LinkedHashMap<>(Map.of(
                "sort",
                "open",
                "unit",
                unit,
                "text",
                "trial licence",
                "reason",
                "the order is on its way",
                "due",
                LocalDate.now().plusDays(20).toString()));
        client.post("/api/bring-ups/" + id + "/items", item).statusCode(403);
        for (String lacks : List.of("text", "reason", "due")) {
            Map<String, Object> less = new LinkedHashMap<>(item);
            less.remove(lacks);
            lead.post("/api/bring-ups/" + id + "/items", less).statusCode(400).body("faults[0].field", equalTo(lacks));
        }
        item.put("due", "2020-01-01");
        lead.post("/api/bring-ups/" + id + "/items", item)
                .statusCode(400)
                .body("faults[0].code", equalTo("HAS_PASSED"));
        item.put("due", LocalDate.now().plusDays(20).toString());
        int made = lead.post("/api/bring-ups/" + id + "/items", item)
                .statusCode(200)
                .json()
                .getInt("id");
        assertEquals("trial licence", handover().getString("items[0].text"));
        lead.request().delete("/api/items/" + made).statusCode(204);
        lead.request().delete("/api/items/" + made).statusCode(409);
        assertEquals(List.of(), handover().getList("items"));
    }
}
