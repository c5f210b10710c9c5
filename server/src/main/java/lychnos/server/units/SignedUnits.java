package lychnos.server.units;

import jakarta.enterprise.context.ApplicationScoped;
import java.util.Collection;
import java.util.HashSet;
import java.util.Set;
import lychnos.server.api.problem.Refusal;
import lychnos.server.text.PrepareText;
import org.hibernate.Session;

/** Which units are signed: nothing of them is changed until they are opened again. */
@ApplicationScoped
public class SignedUnits {

    private final Session db;

    SignedUnits(Session db) {
        this.db = db;
    }

    public Set<Long> of(long bringUpId) {
        return new HashSet<>(db.createNativeQuery("select unit_id from signed_unit where bring_up_id = :id", Long.class)
                .setParameter("id", bringUpId)
                .getResultList());
    }

    /** @throws Refusal where one of these is signed */
    public void refuse(Collection<Long> units) {
        db.createNativeQuery(
                        "select l.label from unit_label l join signed_unit s on s.unit_id = l.id where l.id in :units",
                        String.class)
                .setParameter("units", units)
                .setMaxResults(1)
                .getResultStream()
                .findFirst()
                .ifPresent(label -> {
                    throw Refusal.conflict(PrepareText.IS_SIGNED_AND_STAYS_TRUE.said(label));
                });
    }
}
