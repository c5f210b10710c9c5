package lychnos.server.configure.model;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.time.Instant;
import java.util.List;
import lychnos.server.api.problem.Refusal;
import lychnos.server.jobs.Held;
import lychnos.server.journal.Journal;
import lychnos.server.live.Live;
import lychnos.server.text.ConfigureText;
import org.hibernate.Session;

/** Logs that machines keep themselves, fetched when a step failed and kept with the unit. */
@ApplicationScoped
public class MachineLogs {

    /** The newest that are listed; more are a habit, not a search for a fault. */
    private static final int NEWEST = 50;

    private final Session db;
    private final Journal journal;
    private final Live live;

    MachineLogs(Session db, Journal journal, Live live) {
        this.db = db;
        this.journal = journal;
        this.live = live;
    }

    /**
     * A log that is kept.
     *
     * @param member whose it is; empty for a single machine
     * @param characters how long it is
     */
    public record MachineLogLine(long id, String member, Instant at, int characters) {}

    /** Keeps what came with a change. */
    void keep(Held held, Change change) {
        db.createNativeMutationQuery("insert into machine_log (unit_id, member, text, at) select :unit, member, :text, "
                        + ":at from dialogue where id = :dialogue")
                .setParameter("unit", held.unitId())
                .setParameter("text", change.log().replace("\0", ""))
                .setParameter("at", change.at())
                .setParameter("dialogue", change.dialogueId())
                .executeUpdate();
        journal.writeWork(held.bringUpId(), held.unitId(), ConfigureText.KEPT_THE_MACHINE_OWN_LOG.text());
        live.tell(held.bringUpId(), "configure");
    }

    /** Those of a unit, the newest first. */
    @Transactional
    public List<MachineLogLine> of(long unitId) {
        return db.createNativeQuery(
                        "select id, member, at, length(text) from machine_log where unit_id = :unit order by id desc",
                        Object[].class)
                .setParameter("unit", unitId)
                .setMaxResults(NEWEST)
                .getResultStream()
                .map(row -> new MachineLogLine(
                        ((Number) row[0]).longValue(), (String) row[1], (Instant) row[2], (Integer) row[3]))
                .toList();
    }

    /** @throws Refusal if there is none */
    @Transactional
    public String text(long id) {
        return db.createNativeQuery("select text from machine_log where id = :id", String.class)
                .setParameter("id", id)
                .getResultStream()
                .findFirst()
                .orElseThrow(() -> Refusal.notFound(ConfigureText.NO_SUCH_LOG.said()));
    }
}
