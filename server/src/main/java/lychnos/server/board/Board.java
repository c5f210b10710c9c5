package lychnos.server.board;

import com.fasterxml.jackson.annotation.JsonIgnore;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import lychnos.core.kind.Kind;
import lychnos.core.order.RunState;
import lychnos.core.proof.Outcome;
import lychnos.core.rule.Finding;
import lychnos.core.rule.Plan;
import lychnos.core.rule.Readiness;
import lychnos.core.rule.Rule;
import lychnos.core.sheet.UnitFacts;
import lychnos.server.allocate.Plans;
import lychnos.server.allocate.Plans.Seat;
import lychnos.server.configure.Rounds;
import lychnos.server.configure.bench.AtBench;
import lychnos.server.configure.model.MemberDialogue;
import lychnos.server.configure.plan.GoingAlone;
import lychnos.server.handover.SignOff;
import lychnos.server.jobs.Run;
import lychnos.server.kinds.Kinds;
import lychnos.server.prove.Checks;
import lychnos.server.prove.Proof;
import lychnos.server.site.BringUp;
import lychnos.server.units.BringUps;
import lychnos.server.units.Facts;
import lychnos.server.units.SignedUnits;
import lychnos.server.units.Unit;

/** Every unit, stage by stage, and what can be done now. */
@ApplicationScoped
public class Board {

    private final BringUps bringUps;
    private final Plans plans;
    private final Facts facts;
    private final Rounds rounds;
    private final AtBench atBench;
    private final GoingAlone goingAlone;
    private final Checks checks;
    private final SignedUnits signedUnits;
    private final SignOff signOff;
    private final Kinds kinds;

    Board(
            BringUps bringUps,
            Plans plans,
            Facts facts,
            Rounds rounds,
            AtBench atBench,
            GoingAlone goingAlone,
            Checks checks,
            SignedUnits signedUnits,
            SignOff signOff,
            Kinds kinds) {
        this.signedUnits = signedUnits;
        this.signOff = signOff;
        this.bringUps = bringUps;
        this.plans = plans;
        this.facts = facts;
        this.rounds = rounds;
        this.atBench = atBench;
        this.goingAlone = goingAlone;
        this.checks = checks;
        this.kinds = kinds;
    }

    /** What a cell says that something else depends on. */
    enum Code {
        READY_FOR_BENCH
    }

    /**
     * A cell of the board.
     *
     * @param mark dark, set, work, wait, lit, done or fault
     * @param text beside the mark
     * @param since when the state began that is counted from, or null
     * @param code what the text says, where something else depends on it; else null
     */
    public record Cell(String mark, String text, Instant since, @JsonIgnore Code code) {

        Cell(String mark, String text, Instant since) {
            this(mark, text, since, null);
        }

        static Cell of(String mark, String text) {
            return new Cell(mark, text, null);
        }
    }

    /**
     * A row. {@code height} and {@code broken} draw the ladder; {@code standings} is empty where nothing was checked.
     */
    public record Row(
            long unitId,
            String name,
            String position,
            String rack,
            String kind,
            String serial,
            String mac,
            String address,
            Cell prepare,
            Cell allocate,
            Cell configure,
            Cell prove,
            Cell handover,
            List<Outcome.Standing> standings,
            String sentence) {}

    /** A stage in the course: what blocks it, what is done, and its progress in per cent. */
    public record Stage(String fault, String text, int percent) {}

    /** Something a person can do now. {@code stage} and {@code unitId} say where. */
    public record Todo(String mark, String title, String text, String stage, Long unitId) {}

    /** The Board with its rows; the course on the other stages has none. */
    public record View(
            long id,
            String name,
            LocalDate due,
            String network,
            int units,
            List<Row> rows,
            Map<String, Stage> course,
            List<Todo> todos,
            List<Todo> waiting) {

        /** The same without the units themselves: only how far they all are. */
        View withoutRows() {
            return new View(id, name, due, network, units, List.of(), course, todos, waiting);
        }
    }

    @Transactional
    public View view(long bringUpId) {
        BringUp bringUp = bringUps.get(bringUpId);
        Map<Unit, UnitFacts> sheet = facts.of(bringUp);
        Map<Long, List<Seat>> seats = plans.seats(bringUpId);
        Map<Long, Run> runs = rounds.newest(bringUpId);
        Map<Long, AtBench.Unit> benches = atBench.of(bringUpId);
        Map<Long, Proof> proofs = checks.proofs(bringUpId);
        Set<Long> signed = signedUnits.of(bringUpId);
        Map<Long, String> held = signOff.held(bringUpId);
        Plan plan = plans.plan(bringUp, sheet, seats);
        List<Finding> findings = Rule.lookAt(plan);
        Map<Long, Readiness> readiness = Readiness.of(plan);
        List<Row> rows = new ArrayList<>();
        Map<Long, String> heldUp = heldUp(sheet.keySet(), findings, goingAlone.goingAlone(bringUpId));
        sheet.forEach((unit, known) -> rows.add(row(
                unit,
                known,
                seats.getOrDefault(unit.id, List.of()),
                readiness.get(unit.id),
                heldUp.get(unit.id),
                runs.get(unit.id),
                benches.get(unit.id),
                proofs.get(unit.id),
                signed.contains(unit.id),
                held.getOrDefault(unit.id, ""))));
        List<Todo> todos = BoardTodos.benchTodos(rows, benches);
        todos.addAll(BoardTodos.todos(
                bringUp, rows, findings, Rounds.startable(sheet.keySet(), seats.keySet(), runs.values(), kinds), runs));
        Map<Long, Kind> kindOf = sheet.entrySet().stream()
                .collect(Collectors.toMap(
                        entry -> entry.getKey().id, entry -> entry.getValue().kind()));
        List<Todo> waiting = new ArrayList<>(rows.stream()
                .filter(row -> row.configure.mark.equals("wait"))
                .filter(row -> !benches.containsKey(row.unitId))
                .map(row -> new Todo(
                        "wait",
                        row.name + " restarts",
                        "usually back within "
                                + kindOf.get(row.unitId).restartAbout().toSeconds()
                                + " s; then it is read back and proven",
                        "configure",
                        row.unitId))
                .toList());
        rows.forEach(row -> members(benches, row.unitId).stream()
                .filter(member -> member.dialogue().state == MemberDialogue.State.WAITING)
                .map(member -> new Todo(
                        "wait",
                        row.name + " " + member.label() + " works",
                        "usually for " + BoardCells.text(member.about()),
                        "configure",
                        row.unitId))
                .forEach(waiting::add));
        return new View(
                bringUp.id,
                bringUp.name,
                bringUp.due,
                bringUp.network == null ? "" : bringUp.network.prefix.toString(),
                rows.size(),
                rows,
                course(
                        bringUp,
                        rows,
                        findings,
                        runs,
                        sheet.values().stream()
                                .mapToLong(known -> known.missing().size())
                                .sum()),
                todos,
                waiting);
    }

    private static Row row(
            Unit unit,
            UnitFacts known,
            List<Seat> seats,
            Readiness readiness,
            String heldUp,
            Run run,
            AtBench.Unit bench,
            Proof proof,
            boolean signed,
            String blocks) {
        Seat claim = seats.isEmpty() ? null : seats.get(0);
        String name = unit.name != null || claim == null ? unit.label() : claim.hostName();
        boolean settingUp = run != null && run.state == RunState.RUNNING;
        return new Row(
                unit.id,
                name,
                known.fact("", "host").map(host -> "host " + host.value()).orElse(unit.place()),
                unit.rack,
                known.kind().title(),
                unit.serial,
                unit.mac == null ? null : unit.mac.toString(),
                claim == null ? null : claim.address().toString(),
                BoardCells.prepare(known),
                claim == null ? Cell.of("dark", "—") : Cell.of("done", BoardCells.span(seats)),
                bench != null
                        ? BoardCells.atBench(bench)
                        : run == null ? BoardCells.unbegun(known, claim, readiness, heldUp) : BoardCells.configure(run),
                BoardCells.prove(proof, settingUp),
                BoardCells.handover(proof, signed, blocks),
                proof == null
                        ? List.of()
                        : proof.outcomes.stream().map(Outcome::standing).toList(),
                proof == null ? "" : proof.sentence);
    }

    /**
     * Why units that are ready otherwise may not begin: a finding blocks them, or the first of their kind goes alone
     * until it is done.
     */
    private static Map<Long, String> heldUp(
            Collection<Unit> units, List<Finding> findings, Map<String, String> goingAlone) {
        Map<Long, String> heldUp = new HashMap<>();
        units.stream()
                .filter(unit -> goingAlone.containsKey(unit.kind))
                .forEach(unit -> heldUp.put(unit.id, "after " + goingAlone.get(unit.kind)));
        findings.stream()
                .filter(Finding::blocks)
                .filter(finding -> finding.about().unitId() != null)
                .forEach(finding -> heldUp.put(finding.about().unitId(), "see findings"));
        return heldUp;
    }

    static List<AtBench.Member> members(Map<Long, AtBench.Unit> benches, long unitId) {
        return benches.containsKey(unitId) && !benches.get(unitId).done()
                ? benches.get(unitId).members()
                : List.of();
    }

    private static int percent(long part, int whole) {
        return whole == 0 ? 0 : (int) (part * 100 / whole);
    }

    static long count(List<Row> rows, Function<Row, Cell> stage, String mark) {
        return rows.stream().filter(row -> stage.apply(row).mark.equals(mark)).count();
    }

    private static Map<String, Stage> course(
            BringUp bringUp, List<Row> rows, List<Finding> findings, Map<Long, Run> runs, long missing) {
        int all = rows.size();
        long known = count(rows, Row::prepare, "done");
        long blocking = findings.stream().filter(Finding::blocks).count();
        String prepareFault = bringUp.network == null && known > 0
                ? "no network"
                : blocking > 0
                        ? blocking + (blocking == 1 ? " finding blocks" : " findings block")
                        : missing > 0 ? missing + (missing == 1 ? " fact missing" : " facts missing") : "";
        long placed = count(rows, Row::allocate, "done");
        long set = count(rows, Row::configure, "done");
        long stopped = count(rows, Row::configure, "fault");
        long running = count(rows, Row::configure, "work") + count(rows, Row::configure, "wait");
        long waiting = runs.values().stream()
                .filter(run -> run.state == RunState.WAITING)
                .count();
        long ready = count(rows, Row::configure, "set") - waiting;
        long proven = count(rows, Row::prove, "lit");
        long broken = count(rows, Row::prove, "fault");
        long signed = count(rows, Row::handover, "done");
        long toSign = count(rows, Row::handover, "set");
        String configure = (running > 0 ? running + " in progress" : set + " set up")
                + (waiting > 0 ? " · " + waiting + " waiting" : "")
                + (ready > 0 ? " · " + ready + " ready" : "");
        return Map.of(
                "prepare",
                        new Stage(
                                prepareFault,
                                all == 0 ? "no units yet" : known + " of " + all + " known",
                                percent(known, all)),
                "allocate",
                        new Stage(
                                "",
                                placed + " allocated"
                                        + (placed < all ? " · " + (all - placed) + " without address" : ""),
                                percent(placed, all)),
                "configure", new Stage(stopped > 0 ? stopped + " stopped" : "", configure, percent(set, all)),
                "prove", new Stage(broken > 0 ? broken + " not proven" : "", proven + " proven", percent(proven, all)),
                "handover",
                        new Stage(
                                "",
                                signed + " signed" + (toSign > 0 ? " · " + toSign + " to sign" : ""),
                                percent(signed, all)));
    }
}
