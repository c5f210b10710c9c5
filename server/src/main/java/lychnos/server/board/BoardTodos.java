package lychnos.server.board;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import lychnos.core.order.RunState;
import lychnos.core.rule.Finding;
import lychnos.server.configure.bench.AtBench;
import lychnos.server.jobs.Run;
import lychnos.server.prove.notices.DatedItems;
import lychnos.server.site.BringUp;
import lychnos.server.text.BoardText;
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
                        BoardText.BEGIN_AT_ITS_CONSOLE.text(row.name()),
                        BoardText.ALL_ANSWERS_ARE_KNOWN.text(),
                        Stage.CONFIGURE,
                        row.unitId())));
        return todos;
    }

    /** Password changes that wait for a decision. */
    static List<Board.BoardTodo> passwords(List<Board.BoardRow> rows, Collection<Run> newest) {
        Map<Long, String> names = rows.stream().collect(Collectors.toMap(Board.BoardRow::unitId, Board.BoardRow::name));
        return newest.stream()
                .filter(run -> run.state == RunState.STOPPED && names.containsKey(run.unitId))
                .map(run -> new Board.BoardTodo(
                        Mark.FAULT,
                        BoardText.PASSWORD_CHANGE_STOPPED.text(names.get(run.unitId)),
                        BoardText.DECIDE_IN_HAND_OVER.text(run.note),
                        Stage.HANDOVER,
                        run.unitId))
                .toList();
    }

    /** What somebody has noted with a day that comes near. */
    static List<Board.BoardTodo> dated(List<DatedItems.DatedItem> items) {
        return items.stream()
                .map(item -> new Board.BoardTodo(
                        item.days() < 0 ? Mark.FAULT : Mark.WORK,
                        (item.unit().isEmpty() ? "" : item.unit() + ": ") + item.text(),
                        switch (item.sort()) {
                            case OPEN_ITEM ->
                                (item.days() < 0 ? BoardText.OVERDUE_SINCE : BoardText.DUE_ON).text(item.due());
                            case REQUEST ->
                                (item.days() < 0 ? BoardText.REQUEST_OVERDUE_SINCE : BoardText.REQUEST_DUE_ON)
                                        .text(item.due());
                            case CERTIFICATE -> BoardText.REPLACE_CERTIFICATES.text(item.due());
                        },
                        switch (item.sort()) {
                            case OPEN_ITEM -> Stage.HANDOVER;
                            case CERTIFICATE -> Stage.PROVE;
                            case REQUEST -> Stage.PREPARE;
                        },
                        null))
                .toList();
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
                        BoardText.OTHERS_WAIT_UNTIL_YOU_DECIDE.text(run.note),
                        Stage.CONFIGURE,
                        row.unitId()));
            }
        }
        for (Board.BoardRow row : rows) {
            Run run = runs.get(row.unitId());
            if (row.prove().mark() == Mark.FAULT && (run == null || run.state != RunState.STOPPED)) {
                todos.add(new Board.BoardTodo(
                        Mark.FAULT,
                        BoardText.IS_NOT_PROVEN.text(row.name()),
                        row.sentence(),
                        Stage.PROVE,
                        row.unitId()));
            }
        }
        long unread =
                rows.stream().filter(row -> row.prepare().mark() != Mark.DONE).count();
        if (unread > 0 || rows.isEmpty()) {
            todos.add(new Board.BoardTodo(
                    Mark.WORK,
                    rows.isEmpty()
                            ? BoardText.ADD_THE_EXPECTED_UNITS.text()
                            : BoardText.FIND_THE_MISSING_FACTS.text(counted(unread)),
                    BoardText.IMPORT_A_LABEL_LIST_OR_A_TABLE.text(),
                    Stage.PREPARE,
                    null));
        }
        if (bringUp.network == null) {
            todos.add(new Board.BoardTodo(
                    Mark.WORK,
                    BoardText.DEFINE_THE_NETWORK.text(),
                    BoardText.PREFIX_GATEWAY_DOMAIN.text(),
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
                    BoardText.ALLOCATE_ADDRESSES.text(counted(unplaced)),
                    BoardText.ALLOCATE_PROPOSES_A_FIT.text(bringUp.network.prefix),
                    Stage.ALLOCATE,
                    null));
        }
        if (!ready.isEmpty()
                && todos.stream().noneMatch(todo -> todo.mark() == Mark.FAULT && todo.stage() == Stage.PREPARE)) {
            todos.add(new Board.BoardTodo(
                    Mark.WORK,
                    "Set up " + counted(ready.size()),
                    BoardText.FIRST_IS_SET_UP_ALONE.text(),
                    Stage.CONFIGURE,
                    null));
        }
        long toSign = Board.count(rows, Board.BoardRow::handover, Mark.SET);
        if (toSign > 0 && unread == 0 && unplaced == 0 && ready.isEmpty()) {
            todos.add(new Board.BoardTodo(
                    Mark.WORK,
                    "Sign " + counted(toSign),
                    BoardText.PROVEN_BUT_NOT_SIGNED.text(),
                    Stage.HANDOVER,
                    null));
        }
        return todos;
    }
}
