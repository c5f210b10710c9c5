package lychnos.server;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertNotEquals;
import static org.junit.jupiter.api.Assertions.assertNotSame;
import static org.junit.jupiter.api.Assertions.assertSame;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.quarkus.narayana.jta.QuarkusTransaction;
import io.quarkus.test.junit.QuarkusTest;
import jakarta.inject.Inject;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import lychnos.server.allocate.Claim;
import lychnos.server.allocate.ClaimsAsRead;
import lychnos.server.database.Reading;
import lychnos.server.database.RowsAsRead;
import lychnos.server.units.Unit;
import lychnos.server.units.UnitsAsRead;
import org.hibernate.Session;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** What is not read again is as good as what would be. */
@QuarkusTest
class RowsAsReadTest {

    @Inject
    RowsAsRead rows;

    @Inject
    UnitsAsRead unitRows;

    @Inject
    ClaimsAsRead claimRows;

    @Inject
    Reading reading;

    @Inject
    Session db;

    private Client client;
    private long id;

    @BeforeEach
    void begin() {
        client = Client.engineer();
        id = client.bringUp();
    }

    private List<Unit> units() {
        return reading.of(() -> unitRows.units(id));
    }

    private List<Claim> claims() {
        return reading.of(() -> claimRows.claims(id));
    }

    private void announce(int count) {
        client.post("/api/bring-ups/" + id + "/units", Map.of("kind", "hypervisor-host", "count", count))
                .statusCode(200);
    }

    private void mount(List<Unit> units, int rack) {
        List<Map<String, Object>> cells = IntStream.range(0, units.size())
                .mapToObj(i -> Map.<String, Object>of(
                        "unitId",
                        units.get(i).id,
                        "member",
                        "",
                        "name",
                        "location",
                        "value",
                        "R" + (rack + i / 40) + " u" + (1 + i % 40)))
                .toList();
        client.request()
                .body(Map.of("cells", cells))
                .put("/api/bring-ups/" + id + "/facts")
                .statusCode(200);
    }

    @Test
    void whatWasNotWrittenIsNotReadAgain() {
        announce(3);
        List<Unit> before = units();
        assertEquals(List.of(1, 2, 3), before.stream().map(unit -> unit.number).toList());
        mount(before.subList(1, 2), 7);
        List<Unit> after = units();
        assertSame(before.get(0), after.get(0));
        assertNotSame(before.get(1), after.get(1));
        assertEquals("R7 u1", after.get(1).place());
        assertSame(before.get(2), after.get(2));
        assertEquals("", before.get(1).place(), "who has the row of before keeps it as it was");
        assertThrows(UnsupportedOperationException.class, () -> after.remove(0), "it is shared");
    }

    @Test
    void whatManyHaveWrittenIsReadInOnePiece() {
        announce(300);
        List<Unit> before = units();
        mount(before.subList(20, 280), 1);
        List<Unit> after = units();
        assertEquals(300, after.size());
        assertEquals(
                List.of("", "R1 u1", "R7 u20", ""),
                List.of(
                        after.get(19).place(),
                        after.get(20).place(),
                        after.get(279).place(),
                        after.get(280).place()));
        assertEquals(
                before.stream().map(unit -> unit.id).toList(),
                after.stream().map(unit -> unit.id).toList());
    }

    @Test
    void addressesComeAndGo() {
        announce(3);
        client.network(id, Client.network("10.40.8.0/24", "10.40.8.1", "pool 10.40.8.100-180"));
        assertEquals(List.of(), claims());
        String taking = client.take(id).statusCode(200).json().getString("allocation");
        List<Claim> taken = claims();
        assertEquals(
                List.of("10.40.8.100", "10.40.8.101", "10.40.8.102"),
                taken.stream().map(claim -> claim.address.toString()).toList());
        announce(1);
        client.take(id).statusCode(200);
        List<Claim> more = claims();
        assertEquals(4, more.size());
        assertSame(taken.get(2), more.get(2));
        long network = more.get(0).networkId;
        assertEquals(4, reading.of(() -> claimRows.claimsIn(network)).size());
        assertEquals(
                units().stream().map(unit -> unit.id).toList(),
                reading.of(() -> claimRows.unitsIn(network)).keySet().stream()
                        .sorted()
                        .toList());
        client.post("/api/bring-ups/" + id + "/allocations/" + taking + "/undo", Map.of())
                .statusCode(204);
        assertEquals(
                List.of("10.40.8.103"),
                claims().stream().map(claim -> claim.address.toString()).toList());
        assertSame(more.get(3), claims().get(0));
    }

    @Test
    void whoWritesReadsForItself() {
        announce(1);
        assertTrue(reading.of(rows::suffice));
        assertFalse(QuarkusTransaction.requiringNew().call(rows::suffice));
        Unit shared = units().get(0);
        QuarkusTransaction.requiringNew().run(() -> {
            Unit own = db.createQuery("from Unit where bringUpId = :id", Unit.class)
                    .setParameter("id", id)
                    .getSingleResult();
            assertNotSame(shared, own);
            own.name = "renamed-" + id;
        });
        assertEquals("renamed-" + id, units().get(0).name);
    }

    @Test
    void whatTheSessionHasAlreadyDoesNotHideWhatIsWrittenMeanwhile() {
        announce(1);
        long unit = units().get(0).id;
        Runnable elsewhere = () -> db.createMutationQuery("update Unit set name = :name where id = :id")
                .setParameter("name", "renamed-" + id)
                .setParameter("id", unit)
                .executeUpdate();
        String read = reading.of(() -> {
            Unit loaded = db.find(Unit.class, unit);
            QuarkusTransaction.requiringNew().run(elsewhere);
            assertNotEquals("renamed-" + id, loaded.name);
            return unitRows.units(id).get(0).name;
        });
        assertEquals("renamed-" + id, read);
        assertEquals("renamed-" + id, units().get(0).name, "and it is what is remembered");
    }

    /** Those who list units without reading them call them the same. */
    @Test
    void theViewOfLabelsSaysWhatUnitsSay() {
        announce(3);
        mount(units().subList(0, 1), 1);
        QuarkusTransaction.requiringNew().run(() -> db.createMutationQuery(
                        "update Unit set name = null where id in :ids")
                .setParameter(
                        "ids", units().stream().limit(2).map(unit -> unit.id).toList())
                .executeUpdate());
        List<Unit> units = units();
        assertEquals("unit 2", units.get(1).label());
        for (Unit unit : units) {
            assertEquals(unit.label(), reading.of(() -> db.createNativeQuery(
                            "select label from unit_label where id = :id", String.class)
                    .setParameter("id", unit.id)
                    .getSingleResult()));
        }
    }

    @Test
    void whatIsRolledBackIsNeverSeen() {
        announce(1);
        String name = units().get(0).name;
        QuarkusTransaction.begin();
        db.createMutationQuery("update Unit set name = 'never' where bringUpId = :id")
                .setParameter("id", id)
                .executeUpdate();
        QuarkusTransaction.rollback();
        assertEquals(name, units().get(0).name);
    }
}
