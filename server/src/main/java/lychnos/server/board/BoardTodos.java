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

    static List<Board.Todo> benchTodos(List<Board.Row> rows, Map<Long, AtBench.Unit> benches) {
        List<Board.Todo> todos = new ArrayList<>();
        for (Board.Row row : rows) {
            for (AtBench.Member member : Board.members(benches, row.unitId())) {
                if (member.wantsPerson() || member.amiss()) {
                    String sentence = member.dialogue().hold == null
                            ? member.dialogue().note
                            : member.dialogue().hold.sentence();
                    todos.add(new Board.Todo(
                            member.amiss() ? "fault" : "work",
                            (row.name() + " " + BoardCells.said(member)).strip(),
                            sentence,
                            "configure",
                            row.unitId()));
                }
            }
        }
        rows.stream()
                .filter(row -> row.configure().code() == Board.Code.READY_FOR_BENCH)
                .findFirst()
                .ifPresent(row -> todos.add(new Board.Todo(
                        "work",
                        "Begin " + row.name() + " at its console",
                        "all answers are known; stops before anything permanent",
                        "configure",
                        row.unitId())));
        return todos;
    }

    private static String counted(long units) {
        return units == 1 ? "1 unit" : units + " units";
    }

    static List<Board.Todo> todos(
            BringUp bringUp, List<Board.Row> rows, List<Finding> findings, List<Unit> ready, Map<Long, Run> runs) {
        List<Board.Todo> todos = new ArrayList<>();
        for (Board.Row row : rows) {
            Run run = runs.get(row.unitId());
            if (run != null && run.state == RunState.STOPPED) {
                todos.add(new Board.Todo(
                        "fault",
                        row.name() + " stopped",
                        run.note + " The others wait until you decide.",
                        "configure",
                        row.unitId()));
            }
        }
        for (Board.Row row : rows) {
            Run run = runs.get(row.unitId());
            if (row.prove().mark().equals("fault") && (run == null || run.state != RunState.STOPPED)) {
                todos.add(
                        new Board.Todo("fault", row.name() + " is not proven", row.sentence(), "prove", row.unitId()));
            }
        }
        long unread = rows.stream()
                .filter(row -> !row.prepare().mark().equals("done"))
                .count();
        if (unread > 0 || rows.isEmpty()) {
            todos.add(new Board.Todo(
                    "work",
                    rows.isEmpty() ? "Add the expected units" : "Find the missing facts of " + counted(unread),
                    "import a label list or a table, or type into the fact sheet",
                    "prepare",
                    null));
        }
        if (bringUp.network == null) {
            todos.add(new Board.Todo(
                    "work",
                    "Define the network",
                    "prefix, gateway, domain, name and time servers, and a pool",
                    "prepare",
                    null));
        }
        for (Finding finding : findings) {
            if (finding.blocks()) {
                todos.add(new Board.Todo("fault", finding.what(), finding.why(), "prepare", null));
            }
        }
        long unplaced = rows.stream().filter(row -> row.address() == null).count();
        if (unplaced > 0 && bringUp.network != null) {
            todos.add(new Board.Todo(
                    "work",
                    "Allocate addresses to " + counted(unplaced),
                    "Allocate proposes a fit in " + bringUp.network.prefix,
                    "allocate",
                    null));
        }
        if (!ready.isEmpty()
                && todos.stream()
                        .noneMatch(todo ->
                                todo.mark().equals("fault") && todo.stage().equals("prepare"))) {
            todos.add(new Board.Todo(
                    "work",
                    "Set up " + counted(ready.size()),
                    "the first is set up alone until it is proven; the others follow in parallel",
                    "configure",
                    null));
        }
        long toSign = Board.count(rows, Board.Row::handover, "set");
        if (toSign > 0 && unread == 0 && unplaced == 0 && ready.isEmpty()) {
            todos.add(new Board.Todo(
                    "work",
                    "Sign " + counted(toSign),
                    "proven but not signed: a lead signs in Hand over",
                    "handover",
                    null));
        }
        return todos;
    }
}
