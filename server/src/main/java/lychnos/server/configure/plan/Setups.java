package lychnos.server.configure.plan;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.persistence.LockModeType;
import jakarta.transaction.Transactional;
import java.time.Clock;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import lychnos.core.dialogue.ControllerPlan;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.DialogueStep;
import lychnos.core.dialogue.DialogueStep.Asked;
import lychnos.core.dialogue.DialogueStep.Mark;
import lychnos.core.dialogue.Mode;
import lychnos.core.fact.Secret;
import lychnos.core.kind.Kind;
import lychnos.core.order.FirstAlone;
import lychnos.core.order.FirstAlone.Stage;
import lychnos.core.order.RoundOrder.Hold;
import lychnos.core.order.RunState;
import lychnos.core.rule.Finding;
import lychnos.core.sheet.MemberValues;
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

/** Setups on consoles: begun, put away, their gates overridden, their steps ticked by hand. */
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
        Begun begun = begun(bringUpId);
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

    private void begin(Unit unit, BringUp bringUp, Begun begun, Mode mode, String reason, Who.Person person) {
        Kind kind = kinds.of(unit);
        Dialogue dialogue = kind.dialogue()
                .orElseThrow(() ->
                        Refusal.conflict("The kind does not describe what " + kind.title() + " asks on its console."));
        UnitFacts known = answers.known(unit);
        refuseUnready(unit, known);
        if (begun.underWay.contains(unit.id)) {
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
            Optional<ConsoleLines.Line> line = lines.of(bringUp.site.id, known, member);
            row.line = line.map(ConsoleLines.Line::title).orElse("");
            row.mode = mode;
            boolean pagesAlone = dialogue.setup().isEmpty() && dialogue.drivesPages(member) && mode != Mode.WATCH;
            row.state = line.isPresent() || pagesAlone ? MemberDialogue.State.SHUT : MemberDialogue.State.BY_HAND;
            if (dialogue.beginsByHand(member)) {
                row.shut(MemberDialogue.WaitsFor.TICKS, "opens when what comes before it is ticked");
            } else if (dialogue.oneByOne() && !before.isEmpty()) {
                row.shut(MemberDialogue.WaitsFor.MEMBER, "opens when " + before + " is done");
            }
            db.persist(row);
            store.plan(row.id, dialogue.withPages(member, false));
            before = member;
        }
        begun.underWay.add(unit.id);
        begun.add(unit.kind, new Other(unit.id, unit.label(), Stage.UNDER_WAY));
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

    /** A unit that was begun on a console. */
    private record Other(long unitId, String label, Stage stage) {}

    /**
     * What was begun on consoles of a bring-up.
     *
     * @param underWay units
     * @param ofKind by kind, the units that were begun, in their order
     */
    public record Begun(Set<Long> underWay, Map<String, List<Other>> ofKind) {

        private Begun() {
            this(new HashSet<>(), new HashMap<>());
        }

        private void add(String kind, Other other) {
            ofKind.computeIfAbsent(kind, none -> new ArrayList<>()).add(other);
        }

        /** Why another unit of a kind must wait, and for which unit; nothing if it may begin. */
        public Optional<Waits> waits(String kind) {
            return waits(ofKind.getOrDefault(kind, List.of()));
        }

        /** The same for this unit, which may have been set up before. */
        Optional<Waits> waits(Unit unit) {
            return waits(ofKind.getOrDefault(unit.kind, List.of()).stream()
                    .filter(other -> other.unitId != unit.id)
                    .toList());
        }

        private static Optional<Waits> waits(List<Other> others) {
            Hold hold = FirstAlone.decide(others.stream().map(Other::stage).toList());
            return others.stream()
                    .filter(other -> hold != Hold.NONE && (hold != Hold.SURPRISE || other.stage == Stage.SURPRISE))
                    .findFirst()
                    .map(other -> new Waits(hold, other.label));
        }
    }

    /** Why units of a kind wait. */
    record Waits(Hold why, String unit) {

        String sentence() {
            return why == Hold.SURPRISE
                    ? unit + ", of the same kind, shows something that was not foreseen. Look at it first."
                    : "The first unit of each kind is set up alone until it is proven: " + unit + " is in progress.";
        }
    }

    public Begun begun(long bringUpId) {
        Begun begun = new Begun();
        List<Object[]> runs = db.createQuery(
                        "select r, u from Run r join Unit u on u.id = r.unitId where u.bringUpId = :bringUp and "
                                + "r.purpose = 'console' and r.earlier = false and r.state <> CANCELLED order by r.id",
                        Object[].class)
                .setParameter("bringUp", bringUpId)
                .getResultList();
        if (runs.isEmpty()) {
            return begun;
        }
        Set<Long> proven = proven(bringUpId);
        Set<Long> surprised = surprised(bringUpId);
        for (Object[] row : runs) {
            Run run = (Run) row[0];
            Unit unit = (Unit) row[1];
            boolean done = run.state == RunState.DONE;
            if (!done) {
                begun.underWay.add(unit.id);
            }
            Stage set = proven.contains(unit.id) ? Stage.PROVEN : Stage.SET_UP;
            Stage working = surprised.contains(run.id) ? Stage.SURPRISE : Stage.UNDER_WAY;
            begun.add(unit.kind, new Other(unit.id, unit.label(), done ? set : working));
        }
        return begun;
    }

    /** Units whose endpoints have all been checked and of which no rung fails. A missing name holds no other back. */
    private Set<Long> proven(long bringUpId) {
        return new HashSet<>(db.createQuery(
                        "select u.id from Unit u where u.bringUpId = :bringUp and exists (select 1 from Claim c where "
                                + "c.unitId = u.id and c.releasedAt is null) and not exists (select 1 from Claim c "
                                + "left join Proof p on p.claimId = c.id where c.unitId = u.id and c.releasedAt is "
                                + "null and (p is null or p.broken is not null))",
                        Long.class)
                .setParameter("bringUp", bringUpId)
                .getResultList());
    }

    /** Runs of which a member shows something that nobody foresaw. */
    private Set<Long> surprised(long bringUpId) {
        return db.createQuery(
                        "select d from MemberDialogue d join Unit u on u.id = d.unitId where u.bringUpId = :bringUp "
                                + "and d.state = HELD",
                        MemberDialogue.class)
                .setParameter("bringUp", bringUpId)
                .getResultStream()
                .filter(row -> row.hold != null && row.hold.why().surprise())
                .map(row -> row.runId)
                .collect(Collectors.toSet());
    }

    /** By kind of which no other unit may begin yet, the unit that the others wait for. */
    @Transactional
    public Map<String, String> goingAlone(long bringUpId) {
        Begun begun = begun(bringUpId);
        Map<String, String> alone = new HashMap<>();
        begun.ofKind.keySet().forEach(kind -> begun.waits(kind).ifPresent(waits -> alone.put(kind, waits.unit)));
        return alone;
    }

    private static void refuseSecondOfItsKind(Unit unit, Begun begun, String reason, Who.Person person) {
        begun.waits(unit).ifPresent(waits -> overridden(reason, person, waits.sentence()));
    }

    private static void overridden(String reason, Who.Person person, String gate) {
        if (reason.isBlank()) {
            throw Refusal.conflict(gate + " A lead can start it anyway, with a reason.", Map.of("gate", true));
        }
        if (!person.role().equals("lead")) {
            throw Refusal.conflict(gate + " Only a lead can start it anyway.", Map.of("gate", true));
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

    /** The steps of a member's setup. */
    List<DialogueStep> steps(MemberDialogue row) {
        return kinds.of(bringUps.unit(row.unitId)).dialogue().orElseThrow().withPages(row.member, row.wiped);
    }

    /** Tells the views that something of a member has changed; returns its run. */
    long changed(MemberDialogue row) {
        live.tell(bringUps.unit(row.unitId).bringUpId, "configure");
        return row.runId;
    }

    MemberDialogue locked(long dialogueId) {
        MemberDialogue row = db.find(MemberDialogue.class, dialogueId, LockModeType.PESSIMISTIC_WRITE);
        if (row == null) {
            throw Refusal.notFound("There is no such dialogue.");
        }
        return row;
    }

    /** Opens a member's line although its gate does not hold. */
    @Transactional
    public long override(long dialogueId, String reason, Who.Person person) {
        MemberDialogue row = locked(dialogueId);
        if (row.gate.isEmpty()) {
            throw Refusal.conflict("No prerequisite blocks it.");
        }
        overridden(reason, person, "It " + row.gate + ".");
        journal.write(
                person,
                bringUps.unit(row.unitId).bringUpId,
                row.unitId,
                "overrode the prerequisite of " + row.member + " (" + row.gate + "): " + reason.strip(),
                null,
                null);
        row.openGate();
        live.tell(bringUps.unit(row.unitId).bringUpId, "configure");
        return row.runId;
    }

    /** The name of the password that a question takes, or the field of a page. */
    private static Optional<String> passwordOf(DialogueStep step, String field, MemberValues values) {
        if (step instanceof DialogueStep.Page page) {
            return Optional.ofNullable(page.fields().get(field)).flatMap(entered -> entered.value().names().stream()
                    .filter(name -> values.secret(name).isPresent())
                    .findFirst());
        }
        if (step instanceof DialogueStep.Controller controller) {
            return Optional.ofNullable(
                    new ControllerPlan(controller, values).passwords().get(field));
        }
        return step instanceof Asked asked && asked.is(Mark.SECRET)
                ? asked.answer().names().stream().findFirst()
                : Optional.empty();
    }

    @Transactional
    public long runOf(long dialogueId) {
        return locked(dialogueId).runId;
    }

    /**
     * Lets the pages of a member be filled in that a person had begun to fill in by hand; gives back whether there are
     * any.
     */
    @Transactional
    public boolean letPagesBeFilledIn(long dialogueId, Mode mode, Who.Person person) {
        MemberDialogue row = locked(dialogueId);
        Unit unit = bringUps.unit(row.unitId);
        if (mode == Mode.WATCH
                || row.state != MemberDialogue.State.BY_HAND
                || !kinds.of(unit).dialogue().orElseThrow().drivesPages(row.member)) {
            return false;
        }
        row.mode = mode;
        journal.write(
                person,
                unit.bringUpId,
                unit.id,
                "started filling in the pages" + (row.member.isEmpty() ? "" : ", " + row.member),
                null,
                null);
        live.tell(unit.bringUpId, "configure");
        return true;
    }

    /**
     * The password that a step sends, for a person's eyes; that it was looked at is kept.
     *
     * @param field of a page, the label of the field that takes it; empty for a question
     */
    @Transactional
    public String password(long dialogueId, int place, String field, Who.Person person) {
        MemberDialogue row = locked(dialogueId);
        Unit unit = bringUps.unit(row.unitId);
        List<DialogueStep> steps = kinds.of(unit).dialogue().orElseThrow().withPages(row.member, row.wiped);
        MemberValues values = answers.of(unit, Map.of()).get(row.member);
        if (place < 0
                || place >= steps.size()
                || passwordOf(steps.get(place), field, values).isEmpty()) {
            throw Refusal.notFound("This step sends no password.");
        }
        String name = passwordOf(steps.get(place), field, values).get();
        Secret secret = values.secret(name).orElseThrow(() -> Refusal.conflict("This password is not known yet."));
        journal.write(
                person,
                unit.bringUpId,
                unit.id,
                "showed the password of “" + steps.get(place).title() + (field.isEmpty() ? "" : ", " + field) + "”"
                        + (row.member.isEmpty() ? "" : ", " + row.member),
                null,
                null);
        return secret.use(text -> text);
    }

    /** Ticks a step of a member whose line cannot be reached, or takes the tick back. */
    @Transactional
    public long tick(long dialogueId, int place, boolean done, Who.Person person) {
        MemberDialogue row = locked(dialogueId);
        List<DialogueStep> steps = steps(row);
        boolean first = place >= 0
                && place < steps.size()
                && steps.get(place) instanceof DialogueStep.Remote remote
                && remote.first();
        if (!first && row.state != MemberDialogue.State.BY_HAND && row.state != MemberDialogue.State.DONE) {
            throw Refusal.conflict("This member is on a line; its steps are ticked by what the line shows.");
        }
        if (fillsItself(row, steps, place)) {
            throw Refusal.conflict(
                    "That page is filled in automatically. To fill it in by hand, choose “I type” first.");
        }
        compared(row, steps, place, done);
        int ticked = db.createNativeMutationQuery(
                        "update dialogue_step set progress = :progress, by_whom = :by, done_at = cast(cast(:at as "
                                + "text) as timestamptz), evidence = :evidence, ticked = :ticked where dialogue_id = :id and place = "
                                + ":place and (progress in ('OPEN', 'SENT') or ticked)")
                .setParameter("progress", done ? "DONE" : "OPEN")
                .setParameter("by", done ? person.login() : "")
                .setParameter("at", done ? clock.instant().toString() : null)
                .setParameter("evidence", done ? "ticked by hand" : "")
                .setParameter("ticked", done)
                .setParameter("id", dialogueId)
                .setParameter("place", place)
                .executeUpdate();
        if (ticked == 0) {
            throw Refusal.conflict("This step was ticked automatically, or does not exist.");
        }
        if (first) {
            openIfTicked(row, steps);
        } else {
            boolean all = open(dialogueId).isEmpty();
            row.state = all ? MemberDialogue.State.DONE : MemberDialogue.State.BY_HAND;
            row.endedAt = all ? clock.instant() : null;
        }
        return changed(row);
    }

    /** The page that asks which machine it is can be ticked once that is recorded; taking the tick back forgets it. */
    private void compared(MemberDialogue row, List<DialogueStep> steps, int place, boolean done) {
        Kind kind = kinds.of(bringUps.unit(row.unitId));
        if (!Comparisons.needed(kind, row) || Comparisons.page(kind, steps) != place) {
            return;
        }
        if (done && row.comparedAt == null) {
            throw Refusal.conflict("Enter the serial number that you read on the machine; that ticks this step.");
        }
        if (!done) {
            row.comparedText = null;
            row.comparedBy = null;
            row.comparedAt = null;
        }
    }

    /** Whether a step needs no person: its line has asked everything, and nobody chose to do the rest by hand. */
    private boolean fillsItself(MemberDialogue row, List<DialogueStep> steps, int place) {
        boolean driven = place >= 0
                && place < steps.size()
                && steps.get(place) instanceof DialogueStep.Remote remote
                && remote.driven();
        return driven
                && row.mode != Mode.WATCH
                && open(row.id).stream().allMatch(open -> steps.get(open) instanceof DialogueStep.Remote);
    }

    /** The places of steps that are open. */
    private List<Integer> open(long dialogueId) {
        return db.createNativeQuery(
                        "select place from dialogue_step where dialogue_id = :id and progress in ('OPEN', 'SENT')",
                        Integer.class)
                .setParameter("id", dialogueId)
                .getResultList();
    }

    /** What is done by hand before a line is opened keeps it shut; a line that was opened is not shut again. */
    private void openIfTicked(MemberDialogue row, List<DialogueStep> steps) {
        boolean waits = open(row.id).stream()
                .anyMatch(place -> steps.get(place) instanceof DialogueStep.Remote remote && remote.first());
        if (!waits && row.waitsFor == MemberDialogue.WaitsFor.TICKS) {
            row.openGate();
        }
    }
}
