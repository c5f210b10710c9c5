package lychnos.server.configure.plan;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.persistence.LockModeType;
import jakarta.transaction.Transactional;
import java.time.Clock;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.Mode;
import lychnos.core.kind.Kind;
import lychnos.core.order.FirstAlone.Stage;
import lychnos.core.order.RunState;
import lychnos.core.rule.Finding;
import lychnos.core.sheet.UnitFacts;
import lychnos.server.allocate.Plans;
import lychnos.server.api.problem.Refusal;
import lychnos.server.configure.model.ConsoleStore;
import lychnos.server.configure.model.MemberDialogue;
import lychnos.server.database.ReadsOnly;
import lychnos.server.identity.caller.Who;
import lychnos.server.jobs.Run;
import lychnos.server.journal.Journal;
import lychnos.server.kinds.Kinds;
import lychnos.server.live.Live;
import lychnos.server.site.BringUp;
import lychnos.server.units.BringUps;
import lychnos.server.units.SignedUnits;
import lychnos.server.units.Unit;
import org.hibernate.FlushMode;
import org.hibernate.Session;

/** Setups on consoles: begun and put away. */
@ApplicationScoped
public class Setups {

    private static final int SHORTEST_REASON = 8;

    private final Session db;
    private final BringUps bringUps;
    private final SignedUnits signedUnits;
    private final Kinds kinds;
    private final Plans plans;
    private final Answers answers;
    private final ConsoleLines lines;
    private final ConsoleStore store;
    private final Journal journal;
    private final Live live;
    private final Clock clock;
    private final GoingAlone goingAlone;

    Setups(
            Session db,
            BringUps bringUps,
            Kinds kinds,
            Plans plans,
            Answers answers,
            ConsoleLines lines,
            ConsoleStore store,
            Journal journal,
            Live live,
            Clock clock,
            GoingAlone goingAlone,
            SignedUnits signedUnits) {
        this.signedUnits = signedUnits;
        this.db = db;
        this.bringUps = bringUps;
        this.kinds = kinds;
        this.plans = plans;
        this.answers = answers;
        this.lines = lines;
        this.store = store;
        this.journal = journal;
        this.live = live;
        this.clock = clock;
        this.goingAlone = goingAlone;
    }

    /**
     * Begins the setup of units, of all of them or of none.
     *
     * @param reason why the first of its kind need not go alone; only a lead has such a reason. Empty where none is
     * needed
     */
    @Transactional
    public void begin(long bringUpId, List<Long> unitIds, Mode mode, String reason, Who.Person person) {
        BringUp bringUp = bringUps.get(bringUpId);
        db.lock(bringUp, LockModeType.PESSIMISTIC_WRITE);
        // everything is read before it is written here: nothing is gained by comparing all of it at each question
        db.setHibernateFlushMode(FlushMode.COMMIT);
        GoingAlone.Begun begun = goingAlone.begun(bringUpId);
        signedUnits.refuse(unitIds);
        for (long id : unitIds.stream().distinct().sorted().toList()) {
            Unit unit = bringUps.unit(id);
            if (!unit.bringUpId.equals(bringUpId)) {
                throw Refusal.notFound("There is no such unit in this bring-up.");
            }
            begin(unit, bringUp, begun, mode, reason, person);
        }
        live.tell(bringUpId, "configure");
    }

    private void begin(
            Unit unit, BringUp bringUp, GoingAlone.Begun begun, Mode mode, String reason, Who.Person person) {
        Kind kind = kinds.of(unit);
        Dialogue dialogue = kind.dialogue()
                .orElseThrow(() ->
                        Refusal.conflict("The kind does not describe what " + kind.title() + " asks on its console."));
        UnitFacts known = answers.known(unit);
        refuseUnready(unit, known);
        if (begun.underWay().contains(unit.id)) {
            throw Refusal.conflict(unit.label() + " is already in progress.");
        }
        refuseSecondOfItsKind(unit, begun, reason, person);
        answers.makePasswords(unit, known);
        Run run = new Run();
        run.unitId = unit.id;
        run.purpose = ConsoleStore.CONSOLE;
        run.state = RunState.WAITING;
        run.createdAt = clock.instant();
        db.persist(run);
        Set<String> kept = keepOthers(unit, run);
        int place = 0;
        String before = "";
        for (String member : kind.members().of(unit.members)) {
            if (kept.contains(member)) {
                place++;
                continue;
            }
            MemberDialogue row = new MemberDialogue();
            row.runId = run.id;
            row.unitId = unit.id;
            row.member = member;
            row.place = place++;
            Optional<ConsoleLines.OpenableLine> line = lines.of(bringUp.site.id, known, member);
            row.line = line.map(ConsoleLines.OpenableLine::title).orElse("");
            row.mode = mode;
            boolean pagesAlone = dialogue.setup().isEmpty() && dialogue.drivesPages(member) && mode != Mode.WATCH;
            row.state = line.isPresent() || pagesAlone
                    ? MemberDialogue.DialogueState.SHUT
                    : MemberDialogue.DialogueState.BY_HAND;
            if (dialogue.beginsByHand(member)) {
                row.shut(MemberDialogue.WaitsFor.TICKS, "opens when what comes before it is ticked");
            } else if (dialogue.oneByOne() && !before.isEmpty()) {
                row.shut(MemberDialogue.WaitsFor.MEMBER, "opens when " + before + " is done");
            }
            db.persist(row);
            store.plan(row.id, dialogue.withPages(member, false));
            before = member;
        }
        begun.underWay().add(unit.id);
        begun.add(unit.kind, new GoingAlone.Other(unit.id, unit.label(), Stage.UNDER_WAY));
        journal.write(
                person,
                unit.bringUpId,
                unit.id,
                "started the setup on the console"
                        + (reason.isBlank() ? "" : ", although it is not the first of its kind: " + reason),
                null,
                null);
    }

    /** After one machine of a unit was replaced the others' setups stand, and belong to the new one. */
    private Set<String> keepOthers(Unit unit, Run run) {
        List<MemberDialogue> standing = db.createQuery(
                        "from MemberDialogue d where d.unitId = :unit and d.earlier = false and d.state = DONE and "
                                + "d.runId = (select max(r.id) from Run r where r.unitId = :unit and r.purpose = "
                                + "'console' and r.earlier = true and r.state = DONE)",
                        MemberDialogue.class)
                .setParameter("unit", unit.id)
                .getResultList();
        standing.forEach(row -> row.runId = run.id);
        return standing.stream().map(row -> row.member).collect(Collectors.toSet());
    }

    /**
     * Refuses units that a finding blocks. Asked before {@link #begin}, since the whole plan is looked at for it, and
     * what is loaded for that would be compared at each statement of what follows.
     */
    @Transactional
    @ReadsOnly
    public void refuseBlocked(long bringUpId, List<Long> unitIds) {
        plans.findings(bringUps.get(bringUpId)).stream()
                .filter(Finding::blocks)
                .filter(finding -> finding.about().unitId() != null
                        && unitIds.contains(finding.about().unitId()))
                .findFirst()
                .ifPresent(finding -> {
                    throw Refusal.conflict(finding.what() + ". " + finding.why());
                });
    }

    private void refuseUnready(Unit unit, UnitFacts known) {
        if (!known.known()) {
            throw Refusal.conflict("Not everything that " + unit.label() + " asks is known: "
                    + String.join(
                            ", ",
                            known.missing().stream()
                                    .map(missing -> missing.fact().title())
                                    .distinct()
                                    .toList())
                    + ". It cannot be paused half-way; find it out in Prepare first.");
        }
        if (plans.seatsOf(unit.id).isEmpty()) {
            throw Refusal.conflict(unit.label() + " has no address yet: that is part of Allocate.");
        }
    }

    private static void refuseSecondOfItsKind(Unit unit, GoingAlone.Begun begun, String reason, Who.Person person) {
        begun.waits(unit).ifPresent(waits -> overridden(reason, person, waits.sentence()));
    }

    static void overridden(String reason, Who.Person person, String prerequisite) {
        if (reason.isBlank()) {
            throw Refusal.conflict(
                    prerequisite + " A lead can start it anyway, with a reason.", Map.of("prerequisite", true));
        }
        if (!person.role().equals("lead")) {
            throw Refusal.conflict(prerequisite + " Only a lead can start it anyway.", Map.of("prerequisite", true));
        }
        if (reason.strip().length() < SHORTEST_REASON) {
            throw Refusal.fields(
                    List.of(new Refusal.FieldFault("reason", "Write a reason that somebody understands in a year.")));
        }
    }

    public Optional<Run> newest(long unitId) {
        return db.createQuery(
                        "from Run where unitId = :unit and purpose = 'console' and earlier = false order by id desc",
                        Run.class)
                .setParameter("unit", unitId)
                .setMaxResults(1)
                .getResultStream()
                .findFirst();
    }

    /** Puts a unit's setup away; what is set on it already stays. */
    @Transactional
    public void putAway(long unitId, Who.Person person) {
        Unit unit = bringUps.unit(unitId);
        Run run = newest(unitId).orElseThrow(() -> Refusal.conflict("No setup of this unit is in progress."));
        db.refresh(run, LockModeType.PESSIMISTIC_WRITE);
        if (!run.state.mayBecome(RunState.CANCELLED)) {
            throw Refusal.conflict("No setup of this unit is in progress.");
        }
        run.become(RunState.CANCELLED, clock.instant());
        run.note = "Closed by " + person.login() + ".";
        journal.write(person, unit.bringUpId, unitId, "closed the setup", null, null);
        live.tell(unit.bringUpId, "configure");
    }
}
