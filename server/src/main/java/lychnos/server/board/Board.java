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
import lychnos.server.allocate.Plans.PlannedSeat;
import lychnos.server.configure.Rounds;
import lychnos.server.configure.bench.AtBench;
import lychnos.server.configure.model.MemberDialogue;
import lychnos.server.configure.plan.GoingAlone;
import lychnos.server.handover.SignOff;
import lychnos.server.jobs.Run;
import lychnos.server.kinds.Kinds;
import lychnos.server.prove.Checks;
import lychnos.server.prove.Proof;
import lychnos.server.prove.notices.DatedItems;
import lychnos.server.site.BringUp;
import lychnos.server.text.BoardText;
import lychnos.server.units.BringUps;
import lychnos.server.units.Facts;
import lychnos.server.units.SignedUnits;
import lychnos.server.units.Unit;
import org.jspecify.annotations.Nullable;

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
    private final DatedItems dated;

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
            Kinds kinds,
            DatedItems dated) {
        this.dated = dated;
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
    enum BoardCode {
        READY_FOR_BENCH
    }

    /**
     * A cell of the board.
     *
     * @param text beside the mark
     * @param since when the state began that is counted from, or null
     * @param code what the text says, where something else depends on it; else null
     */
    public record BoardCell(Mark mark, String text, @Nullable Instant since, @JsonIgnore BoardCode code) {

        BoardCell(Mark mark, String text, Instant since) {
            this(mark, text, since, null);
        }

        static BoardCell of(Mark mark, String text) {
            return new BoardCell(mark, text, null);
        }
    }

    /**
     * A row. {@code height} and {@code broken} draw the ladder; {@code standings} is empty where nothing was checked.
     */
    public record BoardRow(
            long unitId,
            String name,
            String position,
            @Nullable String rack,
            String kind,
            @Nullable String serial,
            @Nullable String mac,
            @Nullable String address,
            BoardCell prepare,
            BoardCell allocate,
            BoardCell configure,
            BoardCell prove,
            BoardCell handover,
            List<Outcome.Standing> standings,
            String sentence) {}

    /** A stage in the course: what blocks it, what is done, and its progress in per cent. */
    public record BoardStage(String fault, String text, int percent) {}

    /** The stages after the Board, in the order of the work. */
    public record BoardCourse(
            BoardStage prepare, BoardStage allocate, BoardStage configure, BoardStage prove, BoardStage handover) {}

    /** Something a person can do now. {@code stage} and {@code unitId} say where. */
    public record BoardTodo(Mark mark, String title, String text, Stage stage, @Nullable Long unitId) {}

    /** The Board with its rows; the course on the other stages has none. */
    public record BoardView(
            long id,
            String name,
            @Nullable LocalDate due,
            String network,
            int units,
            List<BoardRow> rows,
            BoardCourse course,
            List<BoardTodo> todos,
            List<BoardTodo> waiting) {

        /** The same without the units themselves: only how far they all are. */
        BoardView withoutRows() {
            return new BoardView(id, name, due, network, units, List.of(), course, todos, waiting);
        }
    }

    @Transactional
    public BoardView view(long bringUpId) {
        BringUp bringUp = bringUps.get(bringUpId);
        Map<Unit, UnitFacts> sheet = facts.of(bringUp);
        Map<Long, List<PlannedSeat>> seats = plans.seats(bringUpId);
        Map<Long, Run> runs = rounds.newest(bringUpId);
        Map<Long, AtBench.BenchUnit> benches = atBench.of(bringUpId);
        Map<Long, Proof> proofs = checks.proofs(bringUpId);
        Set<Long> signed = signedUnits.of(bringUpId);
        Map<Long, String> held = signOff.held(bringUpId);
        Plan plan = plans.plan(bringUp, sheet, seats);
        List<Finding> findings = Rule.lookAt(plan);
        Map<Long, Readiness> readiness = Readiness.of(plan);
        List<BoardRow> rows = new ArrayList<>();
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
        List<BoardTodo> todos = BoardTodos.benchTodos(rows, benches);
        todos.addAll(BoardTodos.todos(
                bringUp, rows, findings, Rounds.startable(sheet.keySet(), seats.keySet(), runs.values(), kinds), runs));
        todos.addAll(BoardTodos.passwords(
                rows, rounds.newest(bringUpId, Run.PASSWORD).values()));
        todos.addAll(BoardTodos.dated(dated.near(bringUpId)));
        Map<Long, Kind> kindOf = sheet.entrySet().stream()
                .collect(Collectors.toMap(
                        entry -> entry.getKey().id, entry -> entry.getValue().kind()));
        List<BoardTodo> waiting = new ArrayList<>(rows.stream()
                .filter(row -> row.configure.mark == Mark.WAIT)
                .filter(row -> !benches.containsKey(row.unitId))
                .map(row -> new BoardTodo(
                        Mark.WAIT,
                        row.name + " restarts",
                        BoardText.USUALLY_BACK_WITHIN.text(
                                kindOf.get(row.unitId).restartAbout().toSeconds()),
                        Stage.CONFIGURE,
                        row.unitId))
                .toList());
        rows.forEach(row -> members(benches, row.unitId).stream()
                .filter(member -> member.dialogue().state == MemberDialogue.DialogueState.WAITING)
                .map(member -> new BoardTodo(
                        Mark.WAIT,
                        row.name + " " + member.label() + " works",
                        BoardText.USUALLY.text(BoardCells.text(member.about())),
                        Stage.CONFIGURE,
                        row.unitId))
                .forEach(waiting::add));
        return new BoardView(
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

    private static BoardRow row(
            Unit unit,
            UnitFacts known,
            List<PlannedSeat> seats,
            Readiness readiness,
            String heldUp,
            Run run,
            AtBench.BenchUnit bench,
            Proof proof,
            boolean signed,
            String blocks) {
        PlannedSeat claim = seats.isEmpty() ? null : seats.get(0);
        String name = unit.name != null || claim == null ? unit.label() : claim.hostName();
        boolean settingUp = run != null && run.state == RunState.RUNNING;
        return new BoardRow(
                unit.id,
                name,
                known.fact("", "host").map(host -> "host " + host.value()).orElse(unit.place()),
                unit.rack,
                known.kind().title(),
                unit.serial,
                unit.mac == null ? null : unit.mac.toString(),
                claim == null ? null : claim.address().toString(),
                BoardCells.prepare(known),
                claim == null ? BoardCell.of(Mark.DARK, "—") : BoardCell.of(Mark.DONE, BoardCells.span(seats)),
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
                .forEach(finding -> heldUp.put(finding.about().unitId(), BoardText.SEE_FINDINGS.text()));
        return heldUp;
    }

    static List<AtBench.MemberAtBench> members(Map<Long, AtBench.BenchUnit> benches, long unitId) {
        return benches.containsKey(unitId) && !benches.get(unitId).done()
                ? benches.get(unitId).members()
                : List.of();
    }

    private static int percent(long part, int whole) {
        return whole == 0 ? 0 : (int) (part * 100 / whole);
    }

    static long count(List<BoardRow> rows, Function<BoardRow, BoardCell> stage, Mark mark) {
        return rows.stream().filter(row -> stage.apply(row).mark == mark).count();
    }

    private static BoardCourse course(
            BringUp bringUp, List<BoardRow> rows, List<Finding> findings, Map<Long, Run> runs, long missing) {
        int all = rows.size();
        long known = count(rows, BoardRow::prepare, Mark.DONE);
        long blocking = findings.stream().filter(Finding::blocks).count();
        String prepareFault = bringUp.network == null && known > 0
                ? BoardText.NO_NETWORK.text()
                : blocking > 0
                        ? BoardText.FINDINGS_BLOCK.text(blocking)
                        : missing > 0 ? BoardText.FACTS_MISSING.text(missing) : "";
        long placed = count(rows, BoardRow::allocate, Mark.DONE);
        long set = count(rows, BoardRow::configure, Mark.DONE);
        long stopped = count(rows, BoardRow::configure, Mark.FAULT);
        long running = count(rows, BoardRow::configure, Mark.WORK) + count(rows, BoardRow::configure, Mark.WAIT);
        long waiting = runs.values().stream()
                .filter(run -> run.state == RunState.WAITING)
                .count();
        long ready = count(rows, BoardRow::configure, Mark.SET) - waiting;
        long proven = count(rows, BoardRow::prove, Mark.LIT);
        long broken = count(rows, BoardRow::prove, Mark.FAULT);
        long signed = count(rows, BoardRow::handover, Mark.DONE);
        long toSign = count(rows, BoardRow::handover, Mark.SET);
        String configure = (running > 0 ? BoardText.IN_PROGRESS.text(running) : set + " set up")
                + (waiting > 0 ? " · " + waiting + " waiting" : "")
                + (ready > 0 ? " · " + ready + " ready" : "");
        return new BoardCourse(
                new BoardStage(
                        prepareFault,
                        all == 0 ? BoardText.NO_UNITS_YET.text() : BoardText.KNOWN.text(known, all),
                        percent(known, all)),
                new BoardStage(
                        "",
                        placed < all
                                ? BoardText.SOME_ALLOCATED.text(placed, all - placed)
                                : BoardText.ALLOCATED.text(placed),
                        percent(placed, all)),
                new BoardStage(stopped > 0 ? BoardText.STOPPED.text(stopped) : "", configure, percent(set, all)),
                new BoardStage(
                        broken > 0 ? BoardText.NOT_PROVEN.text(broken) : "",
                        BoardText.PROVEN.text(proven),
                        percent(proven, all)),
                new BoardStage(
                        "",
                        toSign > 0 ? BoardText.SOME_TO_SIGN.text(signed, toSign) : BoardText.SIGNED.text(signed),
                        percent(signed, all)));
    }
}
