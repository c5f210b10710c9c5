package lychnos.server;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.quarkus.test.junit.QuarkusTest;
import java.util.List;
import java.util.Map;
import lychnos.core.fact.Secret;
import lychnos.core.proof.Trouble;
import lychnos.core.text.Texts;
import lychnos.lab.Controller;
import lychnos.lab.Quirk;
import lychnos.server.http.Json;
import lychnos.server.text.HandoverText;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** Setups against stand-ins on loopback, through the REST interface and the workers. */
@QuarkusTest
class ConfigureTest extends ConfigureStage {

    /** The narrowest login counts: what stands on the tag, then what the site says, then what the kind says. */
    @Test
    void aMachineWithALoginOfItsOwnIsSetUpWithIt() {
        try (Row row = new Row(37, 2)) {
            long site = client.get("/api/catalogue/server-controller")
                    .getLong("sites.find { it.bringUps.id.contains(" + row.id + ") }.id");
            Client.lead()
                    .post(
                            "/api/catalogue/server-controller/adjustments",
                            Map.of(
                                    "siteId",
                                    site,
                                    "what",
                                    "login:redfish",
                                    "value",
                                    "admin",
                                    "password",
                                    Row.tag(1),
                                    "reason",
                                    "delivered with another account"))
                    .statusCode(200);
            String csv = "serial,mac,rack position,model,first address,factory password\n"
                    + "%s,%s,R1 u1,C4,%s,%s\n".formatted(row.serial(0), row.mac(0), row.first(0), Row.tag(0))
                    + "%s,%s,R1 u2,C4,%s,\n".formatted(row.serial(1), row.mac(1), row.first(1));
            assertEquals(List.of(), client.labels(row.id, csv, false).json().getList("faults"));
            client.network(row.id, Client.network("127.40.37.0/24", "127.40.37.1", "pool .101-.180"));
            client.take(row.id).statusCode(200);

            row.start(2);

            row.await("both done", states -> states.stream().allMatch("DONE"::equals));
            for (int i = 0; i < 2; i++) {
                assertFalse(row.machine(i).controller().admits(Row.tag(i)), "the password on the tag is refused");
                assertEquals(
                        1, row.machine(i).controller().refusedLogins(), "the single attempt that proves it refused");
            }
            String sheet = client.request()
                    .get("/api/bring-ups/" + row.id + "/prepare")
                    .asString();
            assertTrue(sheet.contains("factory-password"), sheet);
            assertFalse(sheet.contains(Row.tag(0)), "a password is never shown");
            assertFalse(
                    db.createNativeQuery(
                                    "select cast(after as text) from journal where after is not null", String.class)
                            .getResultStream()
                            .anyMatch(entry -> entry.contains("tag-password")),
                    "nor written into the journal");
        }
    }

    @Tag("wording")
    @Test
    void aRoundEndsWithEveryMachineProven() {
        try (Row row = new Row(
                20, Quirk.ETAG_REQUIRED, Quirk.DHCP_FIRST, Quirk.TASKS, Quirk.DIES_ON_MOVE, Quirk.PADDED_LISTS)) {
            row.start(2);
            Json view = row.await("all done", states -> states.stream().allMatch("DONE"::equals));
            for (int i = 0; i < 5; i++) {
                assertEquals("127.40.20." + (101 + i), row.machine(i).address());
                assertEquals(1, row.machine(i).controller().passwordChanges());
                assertFalse(row.machine(i).controller().admits(Controller.FACTORY_PHRASE));
            }
            assertEquals(
                    "6 of 7 rungs pass. Not measured: answers (every address answers on loopback).",
                    view.getString("lanes[0].note"));
            Json handover = client.get("/api/bring-ups/" + row.id + "/handover");
            assertEquals(5, handover.getInt("proven"));
            String csv = client.request()
                    .get("/api/bring-ups/" + row.id + "/exports/endpoints.csv")
                    .asString();
            assertEquals(6, csv.lines().count());
            assertTrue(
                    csv.lines()
                            .skip(1)
                            .allMatch(line ->
                                    line.matches("t[0-9]+-srv-00[1-5]-oob\\.ardal\\.example,127\\.40\\.20\\.10[1-5]/24,"
                                            + "management,.*,"
                                            + "CF-20-[0-4],02:4c:59:c0:14:0[0-4],.*,[0-9a-f]{64},2.*Z,.*")),
                    csv);
        }
    }

    @Tag("wording")
    @Test
    void theWrongMachineIsNeverWrittenToAndStopsTheOthers() {
        try (Row row = new Row(21, Quirk.OTHER_SERIAL, null, null)) {
            row.start(3);
            Json view = row.await("a stop", states -> states.contains("STOPPED"));
            assertEquals(List.of("STOPPED", "WAITING", "WAITING"), view.getList("lanes.state"));
            Json handover = client.get("/api/bring-ups/" + row.id + "/handover");
            assertEquals(
                    List.of(
                            HandoverText.SETUP_HAS_STOPPED.text(),
                            HandoverText.NOT_EVERY_ENDPOINT_HAS_BEEN_CHECKED_YET.text(),
                            HandoverText.NOT_EVERY_ENDPOINT_HAS_BEEN_CHECKED_YET.text()),
                    handover.getList("units.why"));
            assertEquals(List.of(true, false, false), handover.getList("units.fault"));
            assertTrue(
                    Texts.says("wire.controller.ControllerText.OTHER_MACHINE", view.getString("lanes[0].note")),
                    view.getString("lanes[0].note"));
            assertEquals(0, row.machine(0).controller().writes());
            client.post("/api/setups/" + view.getLong("lanes[0].runId") + "/set-aside", Map.of())
                    .statusCode(204);
            row.await("the others done", states -> states.equals(List.of("SET_ASIDE", "DONE", "DONE")));
            assertEquals(0, row.machine(0).controller().writes());
        }
    }

    @Test
    void aRefusedPasswordIsNotTriedAgainWithoutAPerson() {
        try (Row row = new Row(45, Quirk.BUSY_AT_FIRST)) {
            sealed.seal(row.unit(0), Secret.of("made-before-a-break-1"));
            row.start(1);
            Json view = row.await("an end", states -> states.contains("STOPPED") || states.equals(List.of("DONE")));
            assertEquals(List.of("STOPPED"), view.getList("lanes.state"), view::prettify);
            assertEquals(1, row.machine(0).controller().refusedLogins());
        }
    }

    @Test
    void aDoubleClickStartsOnce() {
        try (Row row = new Row(28)) {
            row.start(1);
            client.post("/api/bring-ups/" + row.id + "/setups", Map.of("width", 1))
                    .statusCode(409);
            row.await("done", states -> states.equals(List.of("DONE")));
            assertEquals(1, row.machine(0).controller().passwordChanges());
        }
    }

    @Test
    void cancellingEndsWhatWaitsAndWhatRunsAndItCanGoOn() {
        try (Row row = new Row(29, null, null, null)) {
            row.start(1);
            client.post("/api/bring-ups/" + row.id + "/setups/cancel", Map.of()).statusCode(204);
            Json view = row.await("an end", states -> states.stream()
                    .allMatch(state -> state.equals("CANCELLED") || state.equals("DONE")));
            assertTrue(view.getList("lanes.state").contains("CANCELLED"));
            List<Integer> runs = view.getList("lanes.findAll { it.state == 'CANCELLED' }.runId");
            runs.forEach(run ->
                    client.post("/api/setups/" + run + "/retry", Map.of()).statusCode(204));
            row.await("all done", states -> states.stream().allMatch("DONE"::equals));
            for (int i = 0; i < 3; i++) {
                assertEquals(
                        1,
                        row.machine(i).controller().passwordChanges(),
                        "a second start does not set a password twice");
            }
        }
    }

    @Tag("wording")
    @Test
    void aPasswordChangedBehindOurBackIsSeenByTheNextCheck() {
        try (Row row = new Row(30)) {
            row.start(1);
            row.await("done", states -> states.equals(List.of("DONE")));
            row.machine(0).controller().setPhrase("changed-at-the-machine");
            client.post("/api/bring-ups/" + row.id + "/checks", Map.of()).statusCode(200);
            long unit = client.get("/api/bring-ups/" + row.id + "/prove").getLong("endpoints[0].unitId");
            ConsoleStage.until("the check fails", () -> !client.get("/api/units/" + unit + "/proof")
                    .getBoolean("endpoint.proven"));
            Json proof = client.get("/api/units/" + unit + "/proof");
            assertEquals(Trouble.PASSWORD_REFUSED.text(), proof.getString("endpoint.sentence"));
            assertEquals(0, client.get("/api/bring-ups/" + row.id + "/handover").getInt("proven"));
        }
    }

    /** No secret stands in clear anywhere in the database, the journal included. */
    @Test
    void passwordsAreSealed() {
        try (Row row = new Row(31)) {
            row.start(1);
            row.await("done", states -> states.equals(List.of("DONE")));
            long clear = io.quarkus.narayana.jta.QuarkusTransaction.requiringNew()
                    .call(() -> db.createNativeQuery(
                                    "select count(*) from sealed_secret s join unit u on u.id = s.unit_id where "
                                            + "u.bring_up_id = :id and (encode(s.sealed, 'escape') ~ "
                                            + "'^[A-Za-z0-9]{20}$' or length(s.sealed) <> 36)",
                                    Long.class)
                            .setParameter("id", row.id)
                            .getSingleResult());
            assertEquals(0, clear);
            long journalled = io.quarkus.narayana.jta.QuarkusTransaction.requiringNew()
                    .call(() -> db.createNativeQuery(
                                    "select count(*) from journal where act ~ 'fellside' or cast(after as text) ~ "
                                            + "'fellside'",
                                    Long.class)
                            .getSingleResult());
            assertEquals(0, journalled);
        }
    }
}
