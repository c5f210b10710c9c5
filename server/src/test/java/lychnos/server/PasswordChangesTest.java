package lychnos.server;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertNotEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.quarkus.narayana.jta.QuarkusTransaction;
import io.quarkus.test.junit.QuarkusTest;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Predicate;
import java.util.stream.IntStream;
import lychnos.core.fact.Secret;
import lychnos.core.text.Texts;
import lychnos.lab.Quirk;
import lychnos.server.http.Json;
import lychnos.server.http.Response;
import lychnos.server.secrets.SealedStore.SealedState;
import lychnos.server.text.ConfigureText;
import org.junit.jupiter.api.Test;

/** The passwords of machines in use are replaced. */
@QuarkusTest
class PasswordChangesTest extends ConfigureStage {

    /** A row of machines in use. */
    private Row setUp(int net, Quirk... quirks) {
        Row row = new Row(net, quirks);
        row.start(5);
        row.await("all set up", states -> states.stream().allMatch("DONE"::equals));
        return row;
    }

    private Response start(Client by, Row row, int width) {
        return by.post(
                "/api/bring-ups/" + row.id + "/password-changes",
                Map.of(
                        "units",
                        IntStream.range(0, row.count).map(row::unit).boxed().toList(),
                        "width",
                        width));
    }

    private Json await(String what, Row row, Predicate<List<String>> states) {
        AtomicReference<Json> view = new AtomicReference<>();
        ConsoleStage.until(
                what,
                () -> {
                    view.set(client.get("/api/bring-ups/" + row.id + "/password-changes"));
                    return states.test(view.get().getList("lanes.state"));
                },
                () -> view.get().prettify());
        return view.get();
    }

    private String password(Row row, int i) {
        return sealed.open(row.unit(i), SealedState.PROVEN).orElseThrow().use(text -> text);
    }

    @Test
    void eachGetsANewPasswordAndRefusesTheOldOne() {
        try (Row row = setUp(60, null, null, Quirk.NO_SESSIONS)) {
            List<String> old =
                    IntStream.range(0, 3).mapToObj(i -> password(row, i)).toList();
            start(Client.lead(), row, 2).statusCode(204);
            start(Client.lead(), row, 2).statusCode(409); // a second click
            Json view = await("all changed", row, states -> states.equals(List.of("DONE", "DONE", "DONE")));
            for (int i = 0; i < 3; i++) {
                assertNotEquals(old.get(i), password(row, i));
                assertTrue(row.machine(i).controller().admits(password(row, i)));
                assertEquals(2, row.machine(i).controller().passwordChanges());
                assertEquals(Optional.empty(), sealed.open(row.unit(i), SealedState.MADE));
            }
            assertEquals(3, view.getList("units").size(), "it can be done again");
            assertEquals(3, client.get("/api/bring-ups/" + row.id + "/handover").getInt("proven"));
            String journal = client.get("/api/bring-ups/" + row.id + "/journal").prettify();
            assertFalse(journal.contains(password(row, 0)), "a password is never written into the journal");
        }
    }

    @Test
    void aMachineThatHangsUpHasTakenItOnce() {
        try (Row row = setUp(61, Quirk.HANGS_UP_ON_NEW_PASSWORD)) {
            start(Client.lead(), row, 1).statusCode(204);
            await("changed", row, states -> states.equals(List.of("DONE")));
            assertEquals(2, row.machine(0).controller().passwordChanges());
            assertTrue(row.machine(0).controller().admits(password(row, 0)));
        }
    }

    @Test
    void oneThatKeepsTheOldPasswordStopsTheOthers() {
        try (Row row = setUp(62, Quirk.KEEPS_OLD, null)) {
            start(Client.lead(), row, 2).statusCode(204);
            Json view = await("a stop", row, states -> states.contains("STOPPED"));
            assertEquals(List.of("STOPPED", "WAITING"), view.getList("lanes.state"));
            assertEquals("SURPRISE", view.getString("hold"));
            assertTrue(
                    client.get("/api/bring-ups/" + row.id + "/board").<String>getList("todos.text").stream()
                            .anyMatch(sentence -> Texts.says("server.text.BoardText.DECIDE_IN_HAND_OVER", sentence)),
                    "the Board tells who must decide");
            assertEquals(ConfigureText.OLD_PASSWORD_STILL_WORKS.text(), view.getString("lanes[0].note"));
            assertTrue(row.machine(0).controller().admits(password(row, 0)), "the new one is on record");
            assertEquals(1, row.machine(1).controller().passwordChanges(), "nothing was sent to the other");
            String stopped = "/api/password-changes/" + view.getLong("lanes[0].runId");
            client.post(stopped + "/set-aside", Map.of()).statusCode(403);
            Client.lead()
                    .post(stopped.replace("password-changes", "setups") + "/set-aside", Map.of())
                    .statusCode(404);
            Client.lead().post(stopped + "/set-aside", Map.of()).statusCode(204);
            await("the other is changed", row, states -> states.equals(List.of("SET_ASIDE", "DONE")));
        }
    }

    @Test
    void aPasswordThatNobodyHereKnowsIsTriedOnceAndNothingIsWritten() {
        try (Row row = setUp(63, (Quirk) null)) {
            row.machine(0).controller().setPhrase("changed-at-the-machine");
            int refused = row.machine(0).controller().refusedLogins();
            start(Client.lead(), row, 1).statusCode(204);
            Json view = await("a stop", row, states -> states.equals(List.of("STOPPED")));
            assertTrue(Texts.says(ConfigureText.CONTROLLER_REFUSES_THE_PASSWORD, view.getString("lanes[0].note")));
            assertEquals(refused + 1, row.machine(0).controller().refusedLogins());
            assertEquals(1, row.machine(0).controller().passwordChanges());
        }
    }

    /** A server died after it had sent the new password: another one goes on and sends it no second time. */
    @Test
    void afterAnInterruptionTheNewPasswordIsTriedFirst() {
        try (Row row = setUp(64, (Quirk) null)) {
            int unit = row.unit(0);
            Secret sent = Secret.of("sent-before-the-server-died");
            sealed.seal(unit, sent);
            row.machine(0).controller().setPhrase("sent-before-the-server-died");
            QuarkusTransaction.requiringNew().run(() -> db.createNativeMutationQuery(
                            "insert into run (unit_id, purpose, state, step, found_at, lease_until) values (:unit, "
                                    + "'password', 'RUNNING', 'SET_PASSWORD', cast(:at as inet), now() - interval '1 "
                                    + "minute')")
                    .setParameter("unit", unit)
                    .setParameter("at", row.machine(0).address())
                    .executeUpdate());
            await("changed", row, states -> states.equals(List.of("DONE")));
            assertEquals(1, row.machine(0).controller().passwordChanges(), "it was not sent again");
            assertEquals("sent-before-the-server-died", password(row, 0));
        }
    }

    @Test
    void onlyLeadsAndOnlyForMachinesInUse() {
        try (Row row = new Row(65)) {
            start(Client.lead(), row, 1)
                    .statusCode(409)
                    .body("code", org.hamcrest.Matchers.equalTo("NO_PASSWORD_CAN_BE_CHANGED"));
            start(client, row, 1).statusCode(403);
            start(Client.viewer(), row, 1).statusCode(403);
            Client.lead()
                    .post("/api/bring-ups/" + row.id + "/password-changes", Map.of("width", 0))
                    .statusCode(400);
            assertEquals(
                    List.of(),
                    client.get("/api/bring-ups/" + row.id + "/password-changes").getList("units"));
        }
    }
}
