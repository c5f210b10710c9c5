package lychnos.server;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import io.quarkus.narayana.jta.QuarkusTransaction;
import io.quarkus.test.junit.QuarkusTest;
import jakarta.inject.Inject;
import java.util.List;
import java.util.Map;
import lychnos.core.order.SetupStep;
import lychnos.server.jobs.Held;
import lychnos.server.jobs.HoldLost;
import lychnos.server.jobs.Runs;
import org.hibernate.Session;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** The fence: a server that has lost a run can no longer write to it. */
@QuarkusTest
class RunsTest {

    @Inject
    Runs runs;

    @Inject
    Session db;

    private Client client;

    @BeforeEach
    void signIn() {
        client = Client.engineer();
    }

    /** A run that some dead server holds; no worker here takes it while its lease lasts. */
    private Held heldElsewhere(int net) {
        long id = client.bringUp();
        client.labels(id, "RU-" + net + "\t02:4c:59:d0:00:" + net + "\tR1 u1\tC4", false);
        client.network(id, Client.network("127.40." + net + ".0/24", "127.40." + net + ".1", "pool .101-.180"));
        client.take(id).statusCode(200);
        long unit = client.get("/api/bring-ups/" + id + "/prepare").getLong("units[0].id");
        long run = QuarkusTransaction.requiringNew().call(() -> db.createNativeQuery(
                        "insert into run (unit_id, purpose, state, fence, lease_until) values (:unit, 'configure', "
                                + "'RUNNING', 7, now() + interval '1 hour') returning id",
                        Long.class)
                .setParameter("unit", unit)
                .getSingleResult());
        return new Held(run, unit, id, "configure", 7);
    }

    @Test
    void anOldFenceWritesNothing() throws HoldLost {
        Held held = heldElsewhere(50);
        runs.begin(held, SetupStep.FIND);
        Held old = new Held(held.runId(), held.unitId(), held.bringUpId(), "configure", 6);
        assertThrows(HoldLost.class, () -> runs.begin(old, SetupStep.PROVE));
        assertThrows(HoldLost.class, () -> runs.note(old, SetupStep.PROVE, "x", null));
        assertThrows(HoldLost.class, () -> runs.done(old, "x"));
        assertThrows(HoldLost.class, () -> runs.stop(old, SetupStep.PROVE, "x", "y"));
        assertEquals(List.of(old), runs.renew(List.of(held, old)));
        assertEquals(SetupStep.FIND, runs.look(held).step);
        runs.done(held, "done");
        assertThrows(HoldLost.class, () -> runs.look(held));
    }

    @Test
    void aWishToCancelIsHeardBetweenTwoSteps() throws HoldLost {
        Held held = heldElsewhere(51);
        assertEquals(false, runs.cancelled(held));
        QuarkusTransaction.requiringNew()
                .run(() -> db.createNativeMutationQuery("update run set cancel = true where id = :id")
                        .setParameter("id", held.runId())
                        .executeUpdate());
        assertEquals(true, runs.cancelled(held));
        assertEquals(
                "CANCELLED",
                client.get("/api/bring-ups/" + held.bringUpId() + "/configure").getString("lanes[0].state"));
    }

    @Tag("wording")
    @Test
    void theJournalCannotBeChanged() {
        client.post("/api/bring-ups", Map.of("name", "For the journal", "siteCode", "jo"));
        assertThrows(RuntimeException.class, () -> QuarkusTransaction.requiringNew()
                .run(() -> db.createNativeMutationQuery("delete from journal").executeUpdate()));
    }
}
