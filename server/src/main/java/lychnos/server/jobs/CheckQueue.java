package lychnos.server.jobs;

import jakarta.enterprise.context.ApplicationScoped;
import java.util.List;
import lychnos.server.database.Rows;
import org.hibernate.Session;
import org.jspecify.annotations.Nullable;

/** Checks that are asked for and have not begun. Each method is part of its caller's transaction. */
@ApplicationScoped
public class CheckQueue {

    private static final String UNLESS_UNDER_WAY =
            " on conflict (unit_id, purpose) where state in ('WAITING', 'RUNNING', 'STOPPED') do nothing";

    private final Session db;

    CheckQueue(Session db) {
        this.db = db;
    }

    /**
     * Asks for checks of units, without those in the middle of their setup.
     *
     * @param rung up to which rung, by its place; null for all
     * @return how many were not under way already
     */
    public int ask(List<Long> units, @Nullable Integer rung) {
        // a unit in the middle of its setup is not a fault: it is left alone until that is over
        return Rows.of(units)
                .column("bigint", unit -> unit)
                .write(
                        db,
                        "insert into run (unit_id, purpose, state, rung) select unit, 'prove', 'WAITING', " + rung
                                + " from %s as asked (unit) where not exists (select 1 from run r where r.unit_id = "
                                + "unit and r.purpose in ('configure', 'console', 'password') and r.state = 'RUNNING')"
                                + UNLESS_UNDER_WAY);
    }

    /** Asks for a check of a unit whose setup ends with this transaction. */
    public void askAfterSetup(long unitId) {
        db.createNativeMutationQuery("insert into run (unit_id, purpose, state) values (:unit, 'prove', 'WAITING')"
                        + UNLESS_UNDER_WAY)
                .setParameter("unit", unitId)
                .executeUpdate();
    }

    /** Cancels what waits in a bring-up; gives how many. */
    public int cancel(long bringUpId) {
        return db.createNativeMutationQuery(
                        "update run r set state = 'CANCELLED', ended_at = now() from unit u where u.id = r.unit_id "
                                + "and u.bring_up_id = :id and r.purpose = 'prove' and r.state = 'WAITING'")
                .setParameter("id", bringUpId)
                .executeUpdate();
    }

    /** Cancels what waits of one unit. */
    public void cancelOf(long unitId) {
        db.createNativeMutationQuery("update run set state = 'CANCELLED', ended_at = now() where unit_id = :unit and "
                        + "purpose = 'prove' and state = 'WAITING'")
                .setParameter("unit", unitId)
                .executeUpdate();
    }
}
