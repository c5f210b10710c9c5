package lychnos.server.jobs;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.persistence.LockModeType;
import jakarta.transaction.Transactional;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import lychnos.core.address.Address;
import lychnos.core.order.RoundOrder;
import lychnos.core.order.RunState;
import lychnos.core.order.SetupStep;
import lychnos.server.LychnosConfig;
import lychnos.server.database.DatabaseClock;
import lychnos.server.database.ThisServer;
import lychnos.server.journal.Journal;
import lychnos.server.live.Live;
import lychnos.server.text.JobText;
import lychnos.server.units.Unit;
import org.hibernate.LockMode;
import org.hibernate.Session;

/** Runs as the database keeps them: claimed with a lease, advanced step by step under a fence, ended. */
@ApplicationScoped
public class Runs {

    /** How often a holder looks for more. */
    public static final Duration CLAIMED_EVERY = Duration.ofMillis(250);

    private static final long SHORTEST_RENEWAL_MILLIS = 200;

    /**
     * A condition on rows of {@code run}: nothing of the unit's is reached through a vantage that has dialled in to
     * another server. That one carries the work out; from here there is no way.
     */
    private static final String REACHES =
            "not exists (select 1 from unit_link l where l.unit_id = run.unit_id and l.linked_to <> '" + ThisServer.ID
                    + "')";

    private final Session db;
    private final LychnosConfig config;
    private final Journal journal;
    private final Live live;
    private final Clock clock;
    private final DatabaseClock databaseClock;

    Runs(Session db, LychnosConfig config, Journal journal, Live live, Clock clock, DatabaseClock databaseClock) {
        this.databaseClock = databaseClock;
        this.db = db;
        this.config = config;
        this.journal = journal;
        this.live = live;
        this.clock = clock;
    }

    /** Takes what may start now and what a dead server left, at most this many. */
    @Transactional
    public List<Held> claim(int most) {
        List<Held> held = new ArrayList<>();
        held.addAll(hold(lock("purpose <> 'console' and state = 'RUNNING' and lease_until < now()", most)));
        held.addAll(hold(lock("state = 'WAITING' and purpose = 'prove'", most - held.size())));
        for (Round round : waitingRounds()) {
            held.addAll(startOf(round, most - held.size()));
        }
        return held;
    }

    private List<Run> lock(String condition, int most) {
        return most <= 0
                ? List.of()
                : db.createNativeQuery(
                                "select * from run where " + condition + " and " + REACHES + " order by id limit "
                                        + most + " for update skip locked",
                                Run.class)
                        .getResultList();
    }

    private List<Round> waitingRounds() {
        return db.createNativeQuery(
                        "select * from round o where exists (select 1 from run r where r.round_id = o.id and r.state "
                                + "= 'WAITING')"
                                + " order by o.id for update skip locked",
                        Round.class)
                .getResultList();
    }

    private List<Held> startOf(Round round, int most) {
        List<Run> runs = db.createQuery("from Run where roundId = :id order by place", Run.class)
                .setParameter("id", round.id)
                .setLockMode(LockModeType.PESSIMISTIC_WRITE)
                .getResultList();
        runs.forEach(db::refresh);
        List<Integer> start = RoundOrder.decide(
                        runs.stream().map(run -> run.state).toList(), round.width)
                .start();
        List<Run> ours = start.stream().limit(Math.max(0, most)).map(runs::get).toList();
        return hold(
                ours.isEmpty()
                        ? ours
                        : db.createNativeQuery(
                                        "select * from run where id in :ids and " + REACHES + " order by place",
                                        Run.class)
                                .setParameter(
                                        "ids", ours.stream().map(run -> run.id).toList())
                                .getResultList());
    }

    private List<Held> hold(List<Run> runs) {
        if (!runs.isEmpty()) {
            // they are asked for one by one below, and are there then
            db.createQuery("from Unit where id in :ids", Unit.class)
                    .setParameter("ids", runs.stream().map(run -> run.unitId).toList())
                    .getResultList();
        }
        return runs.stream().map(this::hold).toList();
    }

    private Held hold(Run run) {
        Instant now = clock.instant();
        if (run.state == RunState.WAITING) {
            run.become(RunState.RUNNING, now);
            run.startedAt = now;
        }
        run.fence++;
        run.leaseOwner = ThisServer.ID;
        run.leaseUntil = databaseClock.now().plus(config.run().lease());
        run.stepAt = now;
        Unit unit = db.find(Unit.class, run.unitId);
        live.tell(unit.bringUpId, run.purpose);
        return new Held(run.id, run.unitId, unit.bringUpId, run.purpose, run.fence);
    }

    /** Takes the runs of one purpose that were started, and those that a dead server left. */
    @Transactional
    public List<Held> claim(String purpose, int most) {
        return hold(lock(
                "purpose = '" + purpose + "' and (state = 'WAITING' or state = 'RUNNING' and lease_until < now())",
                most));
    }

    /** How often a holder says that it is still at work. */
    public Duration renewedEvery() {
        return Duration.ofMillis(
                Math.max(SHORTEST_RENEWAL_MILLIS, config.run().lease().toMillis() / 4));
    }

    /** Says that this server is still at work on these; gives the ones that it has lost. */
    @Transactional
    public List<Held> renew(Collection<Held> all) {
        if (all.isEmpty()) {
            return List.of();
        }
        // locked in the order in which everybody locks several runs, so that no two wait for each other
        Set<String> renewed = new HashSet<>(db.createNativeQuery(
                        "with mine as (select r.id from run r join unnest(cast(:ids as bigint[]), cast(:fences as "
                                + "bigint[])) as m (id, fence) on r.id = m.id and r.fence = m.fence where r.state = "
                                + "'RUNNING' order by r.id for no key update of r), renewed as (update run set "
                                + "lease_until = clock_timestamp() + :millis * interval '1 millisecond' from mine "
                                + "where run.id = mine.id returning run.id || ' ' || run.fence as held) select held "
                                + "from renewed",
                        String.class)
                .setParameter("millis", config.run().lease().toMillis())
                .setParameter("ids", array(all, Held::runId))
                .setParameter("fences", array(all, Held::fence))
                .getResultList());
        return all.stream()
                .filter(held -> !renewed.contains(held.runId() + " " + held.fence()))
                .toList();
    }

    private static String array(Collection<Held> all, Function<Held, Long> value) {
        return all.stream().map(value).map(String::valueOf).collect(Collectors.joining(",", "{", "}"));
    }

    private Run held(Held held) throws HoldLost {
        Run run = db.find(Run.class, held.runId());
        if (db.getCurrentLockMode(run) != LockMode.PESSIMISTIC_WRITE) {
            db.refresh(run, LockModeType.PESSIMISTIC_WRITE);
        }
        if (!holds(held, run)) {
            throw new HoldLost(JobText.ANOTHER_SERVER_HAS_TAKEN_THIS_OVER.text());
        }
        return run;
    }

    /**
     * Locks several runs at once for this transaction; gives those that are
     * still theirs.
     */
    @Transactional(Transactional.TxType.MANDATORY)
    public Set<Held> stillHeld(Collection<Held> all) {
        Map<Long, Run> runs = db.createQuery("from Run where id in :ids order by id", Run.class)
                .setParameter("ids", all.stream().map(Held::runId).toList())
                .setLockMode(LockModeType.PESSIMISTIC_WRITE)
                .getResultStream()
                .collect(Collectors.toMap(run -> run.id, Function.identity()));
        return all.stream()
                .filter(held -> runs.containsKey(held.runId()) && holds(held, runs.get(held.runId())))
                .collect(Collectors.toSet());
    }

    private static boolean holds(Held held, Run run) {
        return run.fence == held.fence() && run.state == RunState.RUNNING;
    }

    /** By run, the rung up to which it looks; those that look at everything are missing. */
    @Transactional
    public Map<Long, Integer> rungs(Collection<Held> all) {
        return all.isEmpty()
                ? Map.of()
                : db.createQuery(
                                "select r.id, r.rung from Run r where r.id in :ids and r.rung is not null",
                                Object[].class)
                        .setParameter("ids", all.stream().map(Held::runId).toList())
                        .getResultStream()
                        .collect(Collectors.toMap(row -> (Long) row[0], row -> (Integer) row[1]));
    }

    /** The run as it stands, for its holder alone. */
    @Transactional(rollbackOn = HoldLost.class)
    public Run look(Held held) throws HoldLost {
        Run run = held(held);
        db.detach(run);
        return run;
    }

    /** Begins a step; a wish to cancel is heard here, between two steps. */
    @Transactional(rollbackOn = HoldLost.class)
    public void begin(Held held, SetupStep step) throws HoldLost {
        Run run = held(held);
        run.step = step;
        run.stepAt = clock.instant();
        live.tell(held.bringUpId(), held.purpose());
    }

    /** Ends the run as cancelled if somebody wished so. */
    @Transactional
    public boolean cancelled(Held held) throws HoldLost {
        Run run = held(held);
        if (!run.cancel) {
            return false;
        }
        run.become(RunState.CANCELLED, clock.instant());
        run.note = run.step == null || !run.step.writes()
                ? JobText.CANCELLED_BEFORE_ANYTHING_WAS_WRITTEN.text()
                : JobText.CANCELLED_BEFORE_COMPLETED_STEPS_STAY.text(run.step.doing());
        journal.writeWork(held.bringUpId(), held.unitId(), "cancelled: " + run.note);
        live.tell(held.bringUpId(), held.purpose());
        return true;
    }

    /** Notes what a step came to. */
    @Transactional(rollbackOn = HoldLost.class)
    public void note(Held held, SetupStep step, String note, Address foundAt) throws HoldLost {
        Run run = held(held);
        if (foundAt != null) {
            run.foundAt = foundAt;
        }
        keep(held, step, note, true);
        live.tell(held.bringUpId(), held.purpose());
    }

    private void keep(Held held, SetupStep step, String note, boolean holds) {
        RunStep entry = new RunStep();
        entry.runId = held.runId();
        entry.step = step.name();
        entry.at = clock.instant();
        entry.note = note;
        entry.holds = holds;
        db.persist(entry);
        if (step.writes()) {
            journal.writeWork(held.bringUpId(), held.unitId(), step.doing() + ": " + note);
        }
    }

    /** Ends a run well. */
    @Transactional(rollbackOn = HoldLost.class)
    public void done(Held held, String note) throws HoldLost {
        Run run = held(held);
        run.become(RunState.DONE, clock.instant());
        run.note = note;
        run.advice = "";
        live.tell(held.bringUpId(), held.purpose());
    }

    /** Ends a run because of something that a person must look at. */
    @Transactional(rollbackOn = HoldLost.class)
    public void stop(Held held, SetupStep step, String sentence, String advice) throws HoldLost {
        Run run = held(held);
        run.become(RunState.STOPPED, clock.instant());
        run.note = sentence;
        run.advice = advice;
        if (step != null) {
            keep(held, step, sentence, false);
        }
        live.tell(held.bringUpId(), held.purpose());
    }

    /** The unit's machine was replaced: how it was set up says nothing of the new one. */
    public void replaced(long unitId) {
        db.createMutationQuery(
                        "update Run set earlier = true where unitId = :unit and purpose in ('configure', 'console')")
                .setParameter("unit", unitId)
                .executeUpdate();
    }

    /** Whether a unit is being set up, or about to be. */
    public boolean settingUp(long unitId) {
        return !db.createQuery(
                        "select r.id from Run r where r.unitId = :unit and r.purpose in ('configure', 'console') and "
                                + "r.state in (WAITING, RUNNING)",
                        Long.class)
                .setParameter("unit", unitId)
                .getResultList()
                .isEmpty();
    }
}
