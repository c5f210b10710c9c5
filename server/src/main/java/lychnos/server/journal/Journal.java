package lychnos.server.journal;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.time.Instant;
import java.util.List;
import lychnos.server.identity.caller.Who;
import org.hibernate.Session;

/** Who did what, when, to which unit, before and after. Written in the same transaction as what it tells of. */
@ApplicationScoped
public class Journal {

    private final Session db;
    private final ObjectMapper json;

    Journal(Session db, ObjectMapper json) {
        this.db = db;
        this.json = json;
    }

    /** One entry, as people read it. */
    public record JournalLine(Instant at, String actor, String act) {}

    /** Writes an entry for a person. Before and after may be null; neither ever holds a secret. */
    @Transactional(Transactional.TxType.MANDATORY)
    public void write(Who.Person person, Long bringUpId, Long unitId, String act, Object before, Object after) {
        write(person.id(), person.login(), bringUpId, unitId, act, before, after);
    }

    /** Writes an entry for what the program did automatically on behalf of a person. */
    @Transactional(Transactional.TxType.MANDATORY)
    public void writeWork(Long bringUpId, Long unitId, String act) {
        write(null, "Lychnos", bringUpId, unitId, act, null, null);
    }

    private void write(
            Long accountId, String actor, Long bringUpId, Long unitId, String act, Object before, Object after) {
        db.createNativeMutationQuery("insert into journal (account_id, actor, bring_up_id, unit_id, act, before, after)"
                        + " values (cast(:account as bigint), :actor, cast(:bringUp as bigint), cast(:unit "
                        + "as bigint), :act, cast(:before as jsonb), cast(:after as jsonb))")
                .setParameter("account", accountId)
                .setParameter("actor", actor)
                .setParameter("bringUp", bringUpId)
                .setParameter("unit", unitId)
                .setParameter("act", act)
                .setParameter("before", text(before))
                .setParameter("after", text(after))
                .executeUpdate();
    }

    private String text(Object value) {
        try {
            return value == null ? null : json.writeValueAsString(value);
        } catch (JsonProcessingException e) {
            throw new IllegalStateException("a journal entry can be written", e);
        }
    }

    /** The newest entries of a unit, newest first. */
    @Transactional
    public List<JournalLine> ofUnit(long unitId, int most) {
        return db.createNativeQuery(
                        "select at, actor, act from journal where unit_id = :unit order by id desc limit :most",
                        Object[].class)
                .setParameter("unit", unitId)
                .setParameter("most", most)
                .getResultStream()
                .map(columns -> {
                    return new JournalLine((Instant) columns[0], (String) columns[1], (String) columns[2]);
                })
                .toList();
    }
}
