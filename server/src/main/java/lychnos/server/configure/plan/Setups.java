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
import lychnos.server.text.ConfigureText;
import lychnos.server.units.BringUps;
import lychnos.server.units.SignedUnits;
import lychnos.server.units.Unit;
import org.hibernate.FlushMode;
import org.hibernate.Session;

/** Setups on consoles: begun and put away. */
@ApplicationScoped
public class Setups {

    static final int SHORTEST_REASON = 8;

    private final Session db;
    private final BringUps bringUps;
    private final SignedUnits signedUnits;
    private final ChangeWindows windows;
    private final Kinds kinds;
    private final Plans plans;
    private final Answers answers;
    private final ConsoleLines lines;
    private final ConsoleStore store;
    private final Journal journal;
    private final Live live;
    private final Clock clock;
    private final GoingAlone goingAlone;
    private final FactoryAddresses factoryAddresses;

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
            FactoryAddresses factoryAddresses,
            SignedUnits signedUnits,
            ChangeWindows windows) {
        this.windows = windows;
        this.factoryAddresses = factoryAddresses;
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
        List<Unit> units =
                unitIds.stream().distinct().sorted().map(bringUps::unit).toList();
        if (units.stream().anyMatch(unit -> !unit.bringUpId.equals(bringUpId))) {
            throw Refusal.notFound(ConfigureText.NO_SUCH_UNIT_IN_THIS_BRING_UP.said());
        }
        factoryAddresses.refuse(bringUp, units);
        units.forEach(unit -> begin(unit, bringUp, begun, mode, reason, person));
        live.tell(bringUpId, "configure");
    }

    private void begin(
            Unit unit, BringUp bringUp, GoingAlone.Begun begun, Mode mode, String reason, Who.Person person) {
        Kind kind = kinds.of(unit);
        Dialogue dialogue = kind.dialogue()
                .orElseThrow(() -> Refusal.conflict(ConfigureText.KIND_DESCRIBES_NO_CONSOLE.said(kind.title())));
        UnitFacts known = answers.known(unit);
        refuseUnready(unit, known);
        if (begun.underWay().contains(unit.id)) {
            throw Refusal.conflict(ConfigureText.IS_ALREADY_IN_PROGRESS.said(unit.label()));
        }
        if (!dialogue.byHand()) {
            refuseSecondOfItsKind(unit, begun, reason, person);
        }
        windows.refuse(unit, known, reason, person);
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
            if (dialogue.byHand() && line.isEmpty()) {
                throw Refusal.conflict(ConfigureText.NO_LINE_FOR_A_SETUP_BY_HAND.said(unit.label()));
            }
            row.line = line.map(ConsoleLines.OpenableLine::title).orElse("");
            row.mode = mode;
            boolean pagesAlone = dialogue.setup().isEmpty() && dialogue.drivesPages(member) && mode != Mode.WATCH;
            row.state = line.isPresent() || pagesAlone
                    ? MemberDialogue.DialogueState.SHUT
                    : MemberDialogue.DialogueState.BY_HAND;
            if (dialogue.beginsByHand(member)) {
                row.shut(MemberDialogue.WaitsFor.TICKS, ConfigureText.OPENS_WHEN_TICKED.text());
            } else if (dialogue.oneByOne() && !before.isEmpty()) {
                row.shut(MemberDialogue.WaitsFor.MEMBER, ConfigureText.OPENS_WHEN_DONE.text(before));
            }
            db.persist(row);
            store.plan(row.id, dialogue.withPages(member, false));
            before = member;
        }
        begun.underWay().add(unit.id);
        if (!dialogue.byHand()) {
            begun.add(unit.kind, new GoingAlone.Other(unit.id, unit.label(), Stage.UNDER_WAY));
        }
        journal.write(
                person,
                unit.bringUpId,
                unit.id,
                reason.isBlank()
                        ? (dialogue.byHand()
                                        ? ConfigureText.STARTED_THE_SETUP_BY_HAND
                                        : ConfigureText.STARTED_THE_SETUP_ON_THE_CONSOLE)
                                .text()
                        : ConfigureText.STARTED_THE_SETUP_OUT_OF_ORDER.text(reason),
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
                    throw Refusal.conflict(ConfigureText.FINDING_BLOCKS.said(finding.what(), finding.why()));
                });
    }

    private void refuseUnready(Unit unit, UnitFacts known) {
        if (!known.known()) {
            throw Refusal.conflict(ConfigureText.NOT_EVERYTHING_THAT_ASKS_IS_KNOWN.said(
                    unit.label(),
                    String.join(
                            ", ",
                            known.missing().stream()
                                    .map(missing -> missing.fact().title())
                                    .distinct()
                                    .toList())));
        }
        if (plans.seatsOf(unit.id).isEmpty()) {
            throw Refusal.conflict(ConfigureText.HAS_NO_ADDRESS_YET.said(unit.label()));
        }
    }

    private static void refuseSecondOfItsKind(Unit unit, GoingAlone.Begun begun, String reason, Who.Person person) {
        begun.waits(unit).ifPresent(waits -> overridden(reason, person, waits.sentence()));
    }

    static void overridden(String reason, Who.Person person, String prerequisite) {
        if (reason.isBlank()) {
            throw Refusal.conflict(
                    ConfigureText.LEAD_CAN_START_IT_ANYWAY.said(prerequisite), Map.of("prerequisite", true));
        }
        if (!person.role().equals("lead")) {
            throw Refusal.conflict(
                    ConfigureText.ONLY_A_LEAD_CAN_START_IT_ANYWAY.said(prerequisite), Map.of("prerequisite", true));
        }
        if (reason.strip().length() < SHORTEST_REASON) {
            throw Refusal.fields(List.of(new Refusal.FieldFault("reason", ConfigureText.REASON_IS_TOO_SHORT.said())));
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

    /**
     * Lets the members begin on their lines that had none when the setup was begun and have one now; gives back the run
     * if there is one.
     */
    @Transactional
    public Optional<Long> linesBecameKnown(long unitId) {
        Unit unit = bringUps.unit(unitId);
        Optional<Run> run = newest(unitId).filter(each -> each.state.mayBecome(RunState.CANCELLED));
        if (run.isEmpty() || kinds.of(unit).dialogue().orElseThrow().setup().isEmpty()) {
            return Optional.empty();
        }
        long site = bringUps.get(unit.bringUpId).site.id;
        for (MemberDialogue row : db.createQuery(
                        "from MemberDialogue where runId = :run order by place", MemberDialogue.class)
                .setParameter("run", run.get().id)
                .setLockMode(LockModeType.PESSIMISTIC_WRITE)
                .getResultList()) {
            if (row.state == MemberDialogue.DialogueState.BY_HAND && row.line.isEmpty()) {
                lines.of(site, answers.known(unit), row.member).ifPresent(line -> {
                    row.line = line.title();
                    row.state = MemberDialogue.DialogueState.SHUT;
                });
            }
        }
        live.tell(unit.bringUpId, "configure");
        return run.map(each -> each.id);
    }

    /** Puts a unit's setup away; what is set on it already stays. */
    @Transactional
    public void putAway(long unitId, Who.Person person) {
        Unit unit = bringUps.unit(unitId);
        Run run = newest(unitId)
                .orElseThrow(() -> Refusal.conflict(ConfigureText.NO_SETUP_OF_THIS_UNIT_IS_IN_PROGRESS.said()));
        db.refresh(run, LockModeType.PESSIMISTIC_WRITE);
        if (!run.state.mayBecome(RunState.CANCELLED)) {
            throw Refusal.conflict(ConfigureText.NO_SETUP_OF_THIS_UNIT_IS_IN_PROGRESS.said());
        }
        run.become(RunState.CANCELLED, clock.instant());
        run.note = ConfigureText.CLOSED.text(person.login());
        journal.write(person, unit.bringUpId, unitId, ConfigureText.CLOSED_THE_SETUP.text(), null, null);
        live.tell(unit.bringUpId, "configure");
    }
}
