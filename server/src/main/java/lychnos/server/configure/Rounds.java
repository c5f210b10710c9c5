package lychnos.server.configure;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.persistence.LockModeType;
import jakarta.transaction.Transactional;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import lychnos.core.order.RoundOrder;
import lychnos.core.order.RunState;
import lychnos.core.order.SetupStep;
import lychnos.core.sheet.UnitFacts;
import lychnos.server.allocate.Claim;
import lychnos.server.allocate.Claims;
import lychnos.server.allocate.Plans;
import lychnos.server.api.problem.Refusal;
import lychnos.server.configure.plan.ChangeWindows;
import lychnos.server.identity.caller.Who;
import lychnos.server.jobs.Round;
import lychnos.server.jobs.Run;
import lychnos.server.journal.Journal;
import lychnos.server.kinds.Kinds;
import lychnos.server.live.Live;
import lychnos.server.site.BringUp;
import lychnos.server.text.ConfigureText;
import lychnos.server.units.BringUps;
import lychnos.server.units.Facts;
import lychnos.server.units.Unit;
import org.hibernate.Session;
import org.jspecify.annotations.Nullable;

/** Rounds: started, cancelled, and decided on when one of their units stopped. */
@ApplicationScoped
public class Rounds {

    private final Session db;
    private final BringUps bringUps;
    private final Plans plans;
    private final Kinds kinds;
    private final Claims claims;
    private final Journal journal;
    private final Live live;
    private final Clock clock;
    private final Facts facts;
    private final ChangeWindows windows;

    Rounds(
            Session db,
            BringUps bringUps,
            Plans plans,
            Kinds kinds,
            Claims claims,
            Journal journal,
            Live live,
            Clock clock,
            Facts facts,
            ChangeWindows windows) {
        this.db = db;
        this.bringUps = bringUps;
        this.plans = plans;
        this.kinds = kinds;
        this.claims = claims;
        this.journal = journal;
        this.live = live;
        this.clock = clock;
        this.facts = facts;
        this.windows = windows;
    }

    /** Units that may start now: label read, address taken, not set up and not under way. */
    private List<Unit> startable(BringUp bringUp) {
        return startable(
                bringUps.units(bringUp.id),
                claims.primaries(bringUp.id).keySet(),
                newest(bringUp.id).values(),
                kinds);
    }

    /** The same of what was read already. */
    public static List<Unit> startable(Collection<Unit> units, Set<Long> placed, Collection<Run> newest, Kinds kinds) {
        Set<Long> busy = newest.stream()
                .filter(run -> run.state != RunState.CANCELLED && run.state != RunState.SET_ASIDE)
                .map(run -> run.unitId)
                .collect(Collectors.toSet());
        return units.stream()
                .filter(unit ->
                        kinds.of(unit).driven() && unit.known() && placed.contains(unit.id) && !busy.contains(unit.id))
                .toList();
    }

    /** The newest setup run of each unit. */
    public Map<Long, Run> newest(long bringUpId) {
        return newest(bringUpId, Run.CONFIGURE);
    }

    /** The same for runs of another purpose. */
    public Map<Long, Run> newest(long bringUpId, String purpose) {
        return db.createQuery(
                        "select r from Run r join Unit u on u.id = r.unitId where u.bringUpId = :id and r.purpose = "
                                + ":purpose and r.earlier = false order by r.id",
                        Run.class)
                .setParameter("id", bringUpId)
                .setParameter("purpose", purpose)
                .getResultStream()
                .collect(Collectors.toMap(run -> run.unitId, Function.identity(), (older, newer) -> newer));
    }

    /**
     * Starts every unit that is ready: the first alone, then so many at once.
     *
     * @param reason why units outside of their change windows are started as well; where it is empty, they are left out
     */
    @Transactional
    public void start(long bringUpId, int width, String reason, Who.Person person) {
        BringUp bringUp = bringUps.get(bringUpId);
        db.lock(bringUp, LockModeType.PESSIMISTIC_WRITE);
        refuseWidth(width);
        List<Unit> ready = startable(bringUp);
        if (ready.isEmpty()) {
            throw Refusal.conflict(ConfigureText.NO_UNIT_IS_READY.said());
        }
        ready = inTheirWindows(bringUp, ready, reason, person);
        // what is wrong with another unit stands in nobody's way
        Set<Long> starting = ready.stream().map(unit -> unit.id).collect(Collectors.toSet());
        plans.findings(bringUp).stream()
                .filter(finding -> finding.blocks()
                        && (finding.about().unitId() == null
                                || starting.contains(finding.about().unitId())))
                .findFirst()
                .ifPresent(finding -> {
                    throw Refusal.conflict(ConfigureText.FINDING_BLOCKS.said(finding.what(), finding.why()));
                });
        begin(bringUpId, Run.CONFIGURE, width, ready, person);
        journal.write(
                person,
                bringUpId,
                null,
                ConfigureText.STARTED_THE_SETUP_OF_UNITS.text(ready.size(), width),
                null,
                null);
        live.tell(bringUpId, Run.CONFIGURE);
    }

    /** Begins a round: its runs wait until it is their turn. */
    void begin(long bringUpId, String purpose, int width, List<Unit> units, Who.Person person) {
        Round round = new Round();
        round.bringUpId = bringUpId;
        round.purpose = purpose;
        round.width = width;
        round.startedBy = person.id();
        round.startedAt = clock.instant();
        db.persist(round);
        int place = 0;
        for (Unit unit : units) {
            Run run = new Run();
            run.roundId = round.id;
            run.unitId = unit.id;
            run.purpose = purpose;
            run.place = place++;
            run.state = RunState.WAITING;
            run.createdAt = clock.instant();
            db.persist(run);
        }
        db.flush();
    }

    static void refuseWidth(int width) {
        if (width < 1 || width > 50) {
            throw Refusal.bad(ConfigureText.FROM_1_TO_50_SETUPS_CAN_RUN_IN_PARALLEL.said());
        }
    }

    private List<Unit> inTheirWindows(BringUp bringUp, List<Unit> ready, String reason, Who.Person person) {
        Map<Unit, UnitFacts> known = facts.of(bringUp);
        if (!reason.isBlank()) {
            ready.forEach(unit -> windows.refuse(unit, known.get(unit), reason, person));
            return ready;
        }
        List<Unit> open = ready.stream()
                .filter(unit -> windows.closed(unit, known.get(unit)).isEmpty())
                .toList();
        if (open.isEmpty()) {
            throw Refusal.conflict(ConfigureText.SETUPS_ARE_OUTSIDE_THEIR_WINDOWS.said(), Map.of("reasonWanted", true));
        }
        return open;
    }

    /** Ends all rounds of a bring-up: what waits is cancelled at once, what runs ends between two steps. */
    @Transactional
    public void cancel(long bringUpId, String purpose, Who.Person person) {
        List<Round> rounds = db.createQuery("from Round where bringUpId = :id and purpose = :purpose", Round.class)
                .setParameter("id", bringUpId)
                .setParameter("purpose", purpose)
                .setLockMode(LockModeType.PESSIMISTIC_WRITE)
                .getResultList();
        int count = 0;
        for (Round round : rounds) {
            for (Run run : runsOf(round)) {
                if (run.state == RunState.WAITING) {
                    run.become(RunState.CANCELLED, clock.instant());
                    run.note = ConfigureText.CANCELLED_BEFORE_THE_START.text();
                    count++;
                } else if (run.state == RunState.RUNNING) {
                    run.cancel = true;
                    count++;
                }
            }
        }
        if (count == 0) {
            throw Refusal.conflict(ConfigureText.NO_SETUP_IS_IN_PROGRESS.said());
        }
        journal.write(
                person,
                bringUpId,
                null,
                (purpose.equals(Run.PASSWORD)
                                ? ConfigureText.CANCELLED_PASSWORD_CHANGES
                                : ConfigureText.CANCELLED_THE_SETUP_OF_UNITS)
                        .text(count),
                null,
                null);
        live.tell(bringUpId, purpose);
    }

    private List<Run> runsOf(Round round) {
        return db.createQuery("from Run where roundId = :id order by place", Run.class)
                .setParameter("id", round.id)
                .setLockMode(LockModeType.PESSIMISTIC_WRITE)
                .getResultList();
    }

    /** Tries a unit again that stopped, was cancelled or set aside; it goes on from the step that it was in. */
    @Transactional
    public void retry(long runId, String purpose, Who.Person person) {
        Run run = locked(runId, purpose);
        if (!run.state.mayBecome(RunState.WAITING)) {
            throw Refusal.conflict(
                    run.state == RunState.DONE
                            ? (purpose.equals(Run.PASSWORD)
                                            ? ConfigureText.PASSWORD_IS_CHANGED_ALREADY
                                            : ConfigureText.SET_UP_ALREADY)
                                    .said()
                            : ConfigureText.UNDER_WAY_ALREADY.said());
        }
        run.become(RunState.WAITING, clock.instant());
        run.cancel = false;
        // a machine is looked for again: it may have been moved, reset or replaced meanwhile
        run.step = null;
        run.note = "";
        run.advice = "";
        tell(run, person, ConfigureText.TRIES_AGAIN.text());
    }

    /** Leaves a stopped unit out, so that the others may go on. */
    @Transactional
    public void setAside(long runId, String purpose, Who.Person person) {
        Run run = locked(runId, purpose);
        if (!run.state.mayBecome(RunState.SET_ASIDE)) {
            throw Refusal.conflict(ConfigureText.ONLY_A_STOPPED_UNIT_CAN_BE_SET_ASIDE.said());
        }
        run.become(RunState.SET_ASIDE, clock.instant());
        tell(run, person, "set aside: " + run.note);
    }

    private Run locked(long runId, String purpose) {
        Run run = db.find(Run.class, runId, LockModeType.PESSIMISTIC_WRITE);
        if (run == null || !run.purpose.equals(purpose)) {
            throw Refusal.notFound(ConfigureText.NO_SUCH_SETUP.said());
        }
        return run;
    }

    private void tell(Run run, Who.Person person, String act) {
        Unit unit = bringUps.unit(run.unitId);
        journal.write(person, unit.bringUpId, unit.id, act, null, null);
        live.tell(unit.bringUpId, run.purpose);
    }

    /** One unit under way, or done. */
    public record SetupLane(
            long runId,
            long unitId,
            String name,
            String position,
            String address,
            RunState state,
            String step,
            int stepNumber,
            int steps,
            String note,
            String advice,
            @Nullable Instant startedAt,
            @Nullable Instant stepAt,
            @Nullable Instant endedAt,
            boolean cancelling) {}

    /** What the stage shows. */
    public record ConfigureView(
            List<SetupLane> lanes, int ready, String readyNames, String hold, Map<String, Long> counts) {}

    public ConfigureView view(long bringUpId) {
        BringUp bringUp = bringUps.get(bringUpId);
        Map<Long, Unit> units =
                bringUps.units(bringUpId).stream().collect(Collectors.toMap(unit -> unit.id, Function.identity()));
        Map<Long, Claim> byUnit = claims.primaries(bringUpId);
        List<Run> runs = new ArrayList<>(newest(bringUpId).values());
        runs.sort((a, b) -> Integer.compare(units.get(a.unitId).number, units.get(b.unitId).number));
        List<SetupLane> lanes = runs.stream()
                .map(run -> lane(run, units.get(run.unitId), byUnit.get(run.unitId)))
                .toList();
        Map<String, Long> counts =
                runs.stream().collect(Collectors.groupingBy(run -> run.state.name(), Collectors.counting()));
        List<Unit> ready = startable(bringUp);
        String names = ready.isEmpty()
                ? ""
                : name(ready.get(0), byUnit)
                        + (ready.size() > 1 ? " … " + name(ready.get(ready.size() - 1), byUnit) : "");
        return new ConfigureView(lanes, ready.size(), names, hold(bringUpId, Run.CONFIGURE), counts);
    }

    private static String name(Unit unit, Map<Long, Claim> claims) {
        Claim claim = claims.get(unit.id);
        return claim == null ? unit.label() : claim.hostName;
    }

    /** Why units of the newest round wait: a {@link RoundOrder.Hold} by its name. */
    String hold(long bringUpId, String purpose) {
        return db.createQuery("from Round where bringUpId = :id and purpose = :purpose order by id desc", Round.class)
                .setParameter("id", bringUpId)
                .setParameter("purpose", purpose)
                .setMaxResults(1)
                .getResultStream()
                .map(round -> RoundOrder.decide(
                                db.createQuery(
                                                "select r.state from Run r where r.roundId = :id order by r.place",
                                                RunState.class)
                                        .setParameter("id", round.id)
                                        .getResultList(),
                                round.width)
                        .hold()
                        .name())
                .findFirst()
                .orElse("NONE");
    }

    static SetupLane lane(Run run, Unit unit, Claim claim) {
        List<SetupStep> order = run.purpose.equals(Run.PASSWORD) ? SetupStep.PASSWORD_CHANGE : SetupStep.SETUP;
        return new SetupLane(
                run.id,
                unit.id,
                claim == null ? unit.label() : claim.hostName,
                unit.place(),
                claim == null ? "" : claim.address.toString(),
                run.state,
                run.step == null ? "" : run.step.doing(),
                run.step == null ? 0 : run.step.number(order),
                order.size(),
                run.note,
                run.advice,
                run.startedAt,
                run.stepAt,
                run.endedAt,
                run.cancel && run.state == RunState.RUNNING);
    }

    /** The steps of a run, oldest first. */
    public record SetupStepView(String step, java.time.Instant at, String note, boolean holds) {}

    public List<SetupStepView> steps(long runId) {
        return db.createQuery("from RunStep where runId = :id order by id", lychnos.server.jobs.RunStep.class)
                .setParameter("id", runId)
                .getResultStream()
                .map(step -> new SetupStepView(SetupStep.valueOf(step.step).doing(), step.at, step.note, step.holds))
                .toList();
    }
}
