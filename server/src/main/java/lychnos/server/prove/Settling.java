package lychnos.server.prove;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import lychnos.core.proof.Rung;
import lychnos.server.live.Live;
import org.hibernate.Session;

/**
 * Looks again at what was set up a moment ago. Many a machine restarts once more, or begins to serve only minutes after
 * its setup has said its last word: what is not proven at first is looked at after 5 s, and then each time after as
 * long again as has gone by since the setup, for a quarter of an hour.
 */
@ApplicationScoped
public class Settling {

    private static final Duration LONGEST = Duration.ofMinutes(15);

    private final Session db;
    private final Checks checks;
    private final Live live;
    private final Clock clock;

    Settling(Session db, Checks checks, Live live, Clock clock) {
        this.db = db;
        this.checks = checks;
        this.live = live;
        this.clock = clock;
    }

    private record SettlingUnit(long id, long bringUpId) {}

    @Transactional
    void look() {
        Instant now = clock.instant();
        List<SettlingUnit> due = db.createNativeQuery(
                        "select distinct u.id, u.bring_up_id from run r join unit u on u.id = r.unit_id and "
                                + "u.retired_at is null join proof p on p.unit_id = u.id join claim c on c.id = "
                                + "p.claim_id and c.released_at is null"
                                + " where r.purpose = 'console' and r.state = 'DONE' and not r.earlier and "
                                + "r.ended_at > :since"
                                + " and not p.proven and p.at >= r.ended_at and p.at + greatest(p.at - r.ended_at, "
                                + "interval '5 seconds') <= :now",
                        Object[].class)
                .setParameter("since", now.minus(LONGEST))
                .setParameter("now", now)
                .getResultStream()
                .map(row -> new SettlingUnit(((Number) row[0]).longValue(), ((Number) row[1]).longValue()))
                .toList();
        if (!due.isEmpty() && checks.queue(due.stream().map(SettlingUnit::id).toList(), Rung.SAFE) > 0) {
            Set<Long> bringUps = due.stream().map(SettlingUnit::bringUpId).collect(Collectors.toSet());
            bringUps.forEach(bringUp -> live.tell(bringUp, "prove"));
        }
    }
}
