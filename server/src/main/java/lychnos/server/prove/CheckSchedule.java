package lychnos.server.prove;

import io.quarkus.runtime.StartupEvent;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.enterprise.event.Observes;
import jakarta.transaction.Transactional;
import java.security.SecureRandom;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.random.RandomGenerator;
import lychnos.server.api.problem.Refusal;
import lychnos.server.identity.caller.Who;
import lychnos.server.journal.Journal;
import lychnos.server.live.Live;
import lychnos.server.text.ProveText;
import lychnos.server.time.Clockwork;
import lychnos.server.units.BringUps;
import org.hibernate.Session;

/**
 * Checks that are repeated until told otherwise. The next time is up to a fifth earlier or later than asked for, so
 * that halls do not all ask at the same moment; of several servers one asks.
 */
@ApplicationScoped
public class CheckSchedule {

    private static final Duration LOOK = Duration.ofSeconds(3);
    private static final int LONGEST_MINUTES = 10_080;
    private static final double JITTER = 0.2;

    private final Session db;
    private final BringUps bringUps;
    private final Checks checks;
    private final Settling settling;
    private final Journal journal;
    private final Live live;
    private final Clock clock;
    private final RandomGenerator random = new SecureRandom();

    CheckSchedule(
            Session db, BringUps bringUps, Checks checks, Settling settling, Journal journal, Live live, Clock clock) {
        this.db = db;
        this.bringUps = bringUps;
        this.checks = checks;
        this.settling = settling;
        this.journal = journal;
        this.live = live;
        this.clock = clock;
    }

    void start(@Observes StartupEvent event, Clockwork clockwork) {
        clockwork.every(LOOK, "Checks cannot be repeated now", () -> {
            askWhatIsDue();
            settling.look();
        });
    }

    /** The next time: the pace with up to a fifth more or less. {@code dice} lies between 0 and 1. */
    static Instant next(Instant now, int minutes, double dice) {
        return now.plus(Duration.ofSeconds(Math.round(minutes * 60 * (1 - JITTER + 2 * JITTER * dice))));
    }

    @Transactional
    void askWhatIsDue() {
        List<Object[]> due = db.createNativeQuery(
                        "select bring_up_id, minutes from check_pace where next_at <= :now order by bring_up_id for "
                                + "update skip locked",
                        Object[].class)
                .setParameter("now", clock.instant())
                .getResultList();
        for (Object[] row : due) {
            long bringUp = ((Number) row[0]).longValue();
            db.createNativeMutationQuery("update check_pace set next_at = :next where bring_up_id = :id")
                    .setParameter("next", next(clock.instant(), (Integer) row[1], random.nextDouble()))
                    .setParameter("id", bringUp)
                    .executeUpdate();
            checks.askAgain(bringUp);
        }
    }

    /** How often a bring-up is checked, in minutes; 0 where it is not. */
    @Transactional
    public int of(long bringUpId) {
        return Optional.ofNullable(
                        db.createNativeQuery("select minutes from check_pace where bring_up_id = :id", Integer.class)
                                .setParameter("id", bringUpId)
                                .getSingleResultOrNull())
                .orElse(0);
    }

    /** @param minutes 1 to 10,080, a week; 0 ends it */
    @Transactional
    public void set(long bringUpId, int minutes, Who.Person person) {
        bringUps.get(bringUpId);
        if (minutes < 0 || minutes > LONGEST_MINUTES) {
            throw Refusal.fields(List.of(new Refusal.FieldFault(
                    "minutes", ProveText.INTERVAL_OF_CHECKS_IS_1_TO_MINUTES.said(LONGEST_MINUTES))));
        }
        if (minutes == 0) {
            db.createNativeMutationQuery("delete from check_pace where bring_up_id = :id")
                    .setParameter("id", bringUpId)
                    .executeUpdate();
        } else {
            db.createNativeMutationQuery(
                            "insert into check_pace (bring_up_id, minutes, next_at, set_by) values (:id, :minutes, "
                                    + ":next, :by)"
                                    + " on conflict (bring_up_id) do update set minutes = excluded.minutes, next_at "
                                    + "= excluded.next_at, set_by = excluded.set_by")
                    .setParameter("id", bringUpId)
                    .setParameter("minutes", minutes)
                    .setParameter("next", next(clock.instant(), minutes, random.nextDouble()))
                    .setParameter("by", person.id())
                    .executeUpdate();
        }
        journal.write(
                person,
                bringUpId,
                null,
                minutes == 0
                        ? ProveText.DISABLED_AUTOMATIC_CHECKS.text()
                        : ProveText.SET_AUTOMATIC_CHECKS.text(minutes),
                null,
                null);
        live.tell(bringUpId, "prove");
    }
}
