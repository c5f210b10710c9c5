package lychnos.server.units;

import jakarta.enterprise.context.ApplicationScoped;
import java.util.Collection;
import java.util.HashSet;
import java.util.Set;
import lychnos.server.api.problem.Refusal;
import org.hibernate.Session;

/** Which units are signed: nothing of them is changed until they are opened again. */
@ApplicationScoped
public class SignedUnits {

    private final Session db;

    SignedUnits(Session db) {
        this.db = db;
    }

    public Set<Long> of(long bringUpId) {
        return new HashSet<>(
                db.createQuery("select unitId from SignedRecord where bringUpId = :id and endedAt is null", Long.class)
                        .setParameter("id", bringUpId)
                        .getResultList());
    }

    /** @throws Refusal where one of these is signed */
    public void refuse(Collection<Long> units) {
        db.createQuery(
                        "select u from Unit u where u.id in :units and exists (select 1 from SignedRecord r where "
                                + "r.unitId = u.id and r.endedAt is null)",
                        lychnos.server.units.Unit.class)
                .setParameter("units", units)
                .setMaxResults(1)
                .getResultStream()
                .findFirst()
                .ifPresent(unit -> {
                    throw Refusal.conflict(unit.label()
                            + " is signed, and its record is to stay true: open it again in Hand over first.");
                });
    }
}
