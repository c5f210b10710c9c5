package lychnos.server.prepare;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.persistence.LockModeType;
import jakarta.transaction.Transactional;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import lychnos.core.kind.Kind;
import lychnos.server.caller.Who;
import lychnos.server.journal.Journal;
import lychnos.server.kinds.Kinds;
import lychnos.server.kinds.Published;
import lychnos.server.live.Live;
import lychnos.server.problem.Refusal;
import lychnos.server.problem.Refusal.FieldFault;
import lychnos.server.store.BringUp;
import lychnos.server.store.Unit;
import org.hibernate.Session;

/** Units of any kind: announced, and taken back while nothing was done for them. */
@ApplicationScoped
public class Units {

    private final Session db;
    private final BringUps bringUps;
    private final Kinds kinds;
    private final Journal journal;
    private final Live live;

    Units(Session db, BringUps bringUps, Kinds kinds, Journal journal, Live live) {
        this.db = db;
        this.bringUps = bringUps;
        this.kinds = kinds;
        this.journal = journal;
        this.live = live;
    }

    /**
     * Units to be announced: so many of a kind, each with so many members; 0 members for as many as the kind has least.
     */
    public record Announcement(String kind, int count, int members) {}

    @Transactional
    public List<Long> announce(long bringUpId, Announcement request, Who.Person person) {
        BringUp bringUp = bringUps.get(bringUpId);
        db.lock(bringUp, LockModeType.PESSIMISTIC_WRITE);
        Published published = kinds.newest(String.valueOf(request.kind()));
        Kind kind = kinds.adjusted(published.id(), published.version(), bringUpId);
        int members = request.members() == 0 ? kind.members().least() : request.members();
        if (!kind.members().counts().contains(members)) {
            throw Refusal.fields(List.of(new FieldFault(
                    "members",
                    kind.title() + " has " + kind.members().counts().toString().replaceAll("[\\[\\]]", "")
                            + " members.")));
        }
        List<Unit> there = bringUps.units(bringUpId);
        if (request.count() < 1 || there.size() + request.count() > BringUps.MOST_UNITS) {
            throw Refusal.fields(List.of(new FieldFault(
                    "count",
                    "A bring-up has 1 to " + BringUps.MOST_UNITS + " units; " + there.size() + " are there.")));
        }
        Set<String> names = new HashSet<>(db.createNativeQuery(
                        "select u.name from unit u join bring_up b on b.id = u.bring_up_id where b.site_id = :site "
                                + "and u.name is not null",
                        String.class)
                .setParameter("site", bringUp.site.id)
                .getResultList());
        int number = bringUps.nextNumber(bringUpId);
        List<Long> ids = new ArrayList<>();
        int counter = 1;
        for (int i = 0; i < request.count(); i++) {
            Unit unit = new Unit();
            unit.bringUpId = bringUpId;
            unit.number = number++;
            unit.kind = published.id();
            unit.kindVersion = published.version();
            unit.members = members;
            unit.model = "";
            do {
                unit.name = kind.names()
                        .unit()
                        .name(
                                Map.of("site", bringUp.site.code, "kind", kind.shortName(), "rack", "", "u", ""),
                                counter++);
            } while (!names.add(unit.name));
            db.persist(unit);
            ids.add(unit.id);
        }
        db.flush();
        journal.write(person, bringUpId, null, "announced " + request.count() + " × " + kind.title(), null, ids);
        live.tell(bringUpId, "prepare");
        return ids;
    }

    /** Takes units back that bear no address and were never set up. */
    @Transactional
    public void withdraw(long unitId, Who.Person person) {
        Unit unit = bringUps.unit(unitId);
        boolean used = !db.createNativeQuery(
                        "select 1 from claim where unit_id = :id union all select 1 from run where unit_id = :id "
                                + "union all select 1 from label_import_unit where unit_id = :id limit 1",
                        Integer.class)
                .setParameter("id", unitId)
                .getResultList()
                .isEmpty();
        if (used) {
            throw Refusal.conflict(
                    unit.label() + " has borne an address or was read from a label list; it cannot simply go.");
        }
        journal.write(person, unit.bringUpId, unitId, "took back " + unit.label(), null, null);
        db.createNativeMutationQuery("delete from fact where unit_id = :id")
                .setParameter("id", unitId)
                .executeUpdate();
        db.remove(unit);
        live.tell(unit.bringUpId, "prepare");
    }
}
