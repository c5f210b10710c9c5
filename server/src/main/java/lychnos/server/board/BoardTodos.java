package lychnos.server.board;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import lychnos.core.order.RunState;
import lychnos.core.rule.Finding;
import lychnos.server.configure.bench.AtBench;
import lychnos.server.jobs.Run;
import lychnos.server.site.BringUp;
import lychnos.server.units.Unit;

/** What is to be done next, and by whom. */
final class BoardTodos {

    private BoardTodos() {}

    static List<Board.BoardTodo> benchTodos(List<Board.BoardRow> rows, Map<Long, AtBench.BenchUnit> benches) {
        List<Board.BoardTodo> todos = new ArrayList<>();
        for (Board.BoardRow row : rows) {
            for (AtBench.MemberAtBench member : Board.members(benches, row.unitId())) {
                if (member.wantsPerson() || member.amiss()) {
                    String sentence = member.dialogue().hold == null
                            ? member.dialogue().note
                            : member.dialogue().hold.sentence();
                    todos.add(new Board.BoardTodo(
                            member.amiss() ? Mark.FAULT : Mark.WORK,
                            (row.name() + " " + BoardCells.said(member)).strip(),
                            sentence,
                            Stage.CONFIGURE,
                            row.unitId()));
                }
            }
        }
        rows.stream()
                .filter(row -> row.configure().code() == Board.BoardCode.READY_FOR_BENCH)
                .findFirst()
                .ifPresent(row -> todos.add(new Board.BoardTodo(
                        Mark.WORK,
                        "Begin " + row.name() + " at its console",
                        "all answers are known; stops before anything permanent",
                        Stage.CONFIGURE,
                        row.unitId())));
        return todos;
    }

    private static String counted(long units) {
        return units == 1 ? "1 unit" : units + " units";
    }

    static List<Board.BoardTodo> todos(
            BringUp bringUp, List<Board.BoardRow> rows, List<Finding> findings, List<Unit> ready, Map<Long, Run> runs) {
        List<Board.BoardTodo> todos = new ArrayList<>();
        for (Board.BoardRow row : rows) {
            Run run = runs.get(row.unitId());
            if (run != null && run.state == RunState.STOPPED) {
                todos.add(new Board.BoardTodo(
                        Mark.FAULT,
                        row.name() + " stopped",
                        run.note + " The others wait until you decide.",
                        Stage.CONFIGURE,
                        row.unitId()));
            }
        }
        for (Board.BoardRow row : rows) {
            Run run = runs.get(row.unitId());
            if (row.prove().mark() == Mark.FAULT && (run == null || run.state != RunState.STOPPED)) {
                todos.add(new Board.BoardTodo(
                        Mark.FAULT, row.name() + " is not proven", row.sentence(), Stage.PROVE, row.unitId()));
            }
        }
        long unread =
                rows.stream().filter(row -> row.prepare().mark() != Mark.DONE).count();
        if (unread > 0 || rows.isEmpty()) {
            todos.add(new Board.BoardTodo(
                    Mark.WORK,
                    rows.isEmpty() ? "Add the expected units" : "Find the missing facts of " + counted(unread),
                    "import a label list or a table, or type into the fact sheet",
                    Stage.PREPARE,
                    null));
        }
        if (bringUp.network == null) {
            todos.add(new Board.BoardTodo(
                    Mark.WORK,
                    "Define the network",
                    "prefix, gateway, domain, name and time servers, and a pool",
                    Stage.PREPARE,
                    null));
        }
        for (Finding finding : findings) {
            if (finding.blocks()) {
                todos.add(new Board.BoardTodo(Mark.FAULT, finding.what(), finding.why(), Stage.PREPARE, null));
            }
        }
        long unplaced = rows.stream().filter(row -> row.address() == null).count();
        if (unplaced > 0 && bringUp.network != null) {
            todos.add(new Board.BoardTodo(
                    Mark.WORK,
                    "Allocate addresses to " + counted(unplaced),
                    "Allocate proposes a fit in " + bringUp.network.prefix,
                    Stage.ALLOCATE,
                    null));
        }
        if (!ready.isEmpty()
                && todos.stream().noneMatch(todo -> todo.mark() == Mark.FAULT && todo.stage() == Stage.PREPARE)) {
            todos.add(new Board.BoardTodo(
                    Mark.WORK,
                    "Set up " + counted(ready.size()),
                    "the first is set up alone until it is proven; the others follow in parallel",
                    Stage.CONFIGURE,
                    null));
        }
        long toSign = Board.count(rows, Board.BoardRow::handover, Mark.SET);
        if (toSign > 0 && unread == 0 && unplaced == 0 && ready.isEmpty()) {
            todos.add(new Board.BoardTodo(
                    Mark.WORK,
                    "Sign " + counted(toSign),
                    "proven but not signed: a lead signs in Hand over",
                    Stage.HANDOVER,
                    null));
        }
        return todos;
    }
}
