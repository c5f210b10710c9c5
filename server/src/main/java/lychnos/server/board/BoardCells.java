package lychnos.server.board;

import java.util.List;
import java.util.stream.Collectors;
import lychnos.core.order.SetupStep;
import lychnos.core.proof.Outcome;
import lychnos.core.rule.Readiness;
import lychnos.core.sheet.UnitFacts;
import lychnos.server.allocate.Plans.PlannedSeat;
import lychnos.server.configure.bench.AtBench;
import lychnos.server.configure.model.MemberDialogue;
import lychnos.server.jobs.Run;
import lychnos.server.prove.Proof;
import lychnos.server.text.BoardText;

/** What each cell of a unit's row says. */
final class BoardCells {

    private BoardCells() {}

    static Board.BoardCell prepare(UnitFacts known) {
        List<UnitFacts.Missing> missing = known.missing();
        if (missing.isEmpty()) {
            return Board.BoardCell.of(Mark.DONE, "known");
        }
        return Board.BoardCell.of(
                Mark.DARK,
                missing.size() == 1
                        ? BoardText.TO_FIND_OUT.text(missing.get(0).fact().title())
                        : BoardText.FACTS_TO_FIND_OUT.text(missing.size()));
    }

    /** {@code 10.40.8.40 – .42}, with how many more lie elsewhere. */
    static String span(List<PlannedSeat> seats) {
        PlannedSeat first = seats.get(0);
        List<PlannedSeat> here = seats.stream()
                .filter(claim -> claim.networkId() == first.networkId())
                .toList();
        String last = here.get(here.size() - 1).address().toString();
        String span = here.size() == 1
                ? first.address().toString()
                : first.address() + " – "
                        + last.substring(last.lastIndexOf(first.address().isV4() ? '.' : ':'));
        return span + (seats.size() > here.size() ? " + " + (seats.size() - here.size()) : "");
    }

    /** Known and placed is not ready yet: what the setup leans on must answer. */
    static Board.BoardCell unbegun(UnitFacts known, PlannedSeat claim, Readiness readiness, String heldUp) {
        if (readiness.ready() && heldUp != null && known.kind().dialogue().isPresent()) {
            return Board.BoardCell.of(Mark.DARK, heldUp);
        }
        if (readiness.ready()) {
            if (known.kind().driven()) {
                return Board.BoardCell.of(Mark.SET, "ready");
            }
            return known.kind().dialogue().isPresent()
                    ? new Board.BoardCell(
                            Mark.SET, BoardText.READY_FOR_THE_BENCH.text(), null, Board.BoardCode.READY_FOR_BENCH)
                    : Board.BoardCell.of(Mark.SET, BoardText.READY_BY_HAND.text());
        }
        return Board.BoardCell.of(
                Mark.DARK, known.known() && claim != null ? readiness.lacks().get(0) : "—");
    }

    /** Blocking items first, then what a person can do, then what machines are doing. */
    static Board.BoardCell atBench(AtBench.BenchUnit bench) {
        if (bench.done()) {
            return new Board.BoardCell(Mark.DONE, "set up", bench.run().endedAt);
        }
        for (AtBench.MemberAtBench member : bench.members()) {
            if (member.amiss()) {
                return Board.BoardCell.of(Mark.FAULT, said(member));
            }
        }
        for (AtBench.MemberAtBench member : bench.members()) {
            if (member.wantsPerson()) {
                return Board.BoardCell.of(Mark.WORK, said(member));
            }
        }
        return bench.members().stream()
                .filter(member -> member.dialogue().state == MemberDialogue.DialogueState.WAITING)
                .findFirst()
                .map(member -> new Board.BoardCell(Mark.WAIT, (member.label() + " works").strip(), member.since()))
                .or(() -> bench.members().stream()
                        .filter(AtBench.MemberAtBench::waitsForDay)
                        .findFirst()
                        .map(member -> Board.BoardCell.of(Mark.WAIT, said(member))))
                .orElse(Board.BoardCell.of(Mark.WORK, BoardText.AT_THE_BENCH.text()));
    }

    static String said(AtBench.MemberAtBench member) {
        String what =
                switch (member.dialogue().state) {
                    case CUT -> BoardText.LINE_DOWN.text();
                    case STOPPED -> "stopped";
                    case BY_HAND, MANUAL -> BoardText.BY_HAND.text();
                    default ->
                        member.dialogue().hold == null
                                ? BoardText.NEEDS_YOUR_DECISION.text()
                                : switch (member.dialogue().hold.why()) {
                                    case NEXT -> BoardText.NEXT_ANSWER_IS_READY.text();
                                    case PREREQUISITE -> BoardText.BLOCKED_BY_A_PREREQUISITE.text();
                                    case PEER -> BoardText.WAITS_FOR_ANOTHER_MEMBER.text();
                                    case DATE ->
                                        BoardText.WAITS_UNTIL.text(
                                                member.dialogue().hold.shown());
                                    case PERMANENT -> BoardText.PERMANENT_VALUE_TO_CONFIRM.text();
                                    case CONSENT -> BoardText.CONSENT_TO_GIVE.text();
                                    case USED, DESTROYS -> BoardText.WAS_SET_UP_BEFORE.text();
                                    case WRONG_MACHINE -> BoardText.WRONG_MACHINE_ON_THIS_LINE.text();
                                    case REFUSED -> BoardText.ANSWER_WAS_REFUSED.text();
                                    case PAGE -> BoardText.PAGE_DIFFERS_FROM_THE_PLAN.text();
                                    case UNREACHED -> BoardText.NOT_REACHABLE_OVER_THE_NETWORK.text();
                                    case UNFORESEEN -> BoardText.UNEXPECTED_QUESTION.text();
                                    case DIFFERS -> BoardText.DIFFERS_FROM_THE_PLAN.text();
                                    case OVERDUE -> BoardText.TAKES_LONGER_THAN_USUAL.text();
                                    default -> BoardText.NEEDS_YOUR_DECISION.text();
                                };
                };
        return member.label().isEmpty() ? what : member.label() + ": " + what;
    }

    static String text(long seconds) {
        return seconds % 60 == 0 && seconds > 0 ? seconds / 60 + " min" : seconds + " s";
    }

    static Board.BoardCell configure(Run run) {
        return switch (run.state) {
            case WAITING -> Board.BoardCell.of(Mark.SET, "waiting");
            case RUNNING ->
                run.step == SetupStep.FOLLOW
                        ? new Board.BoardCell(Mark.WAIT, "restarts", run.stepAt)
                        : Board.BoardCell.of(
                                Mark.WORK,
                                run.step == null
                                        ? "starting"
                                        : run.step.doing() + ", " + run.step.number(SetupStep.SETUP) + " of "
                                                + SetupStep.SETUP.size());
            case DONE -> new Board.BoardCell(Mark.DONE, "set up", run.endedAt);
            case STOPPED ->
                Board.BoardCell.of(Mark.FAULT, run.step == SetupStep.PROVE ? "set up, not proven" : run.note);
            case CANCELLED -> Board.BoardCell.of(Mark.DARK, "cancelled");
            case SET_ASIDE -> Board.BoardCell.of(Mark.FAULT, "set aside: " + run.note);
        };
    }

    static Board.BoardCell prove(Proof proof, boolean settingUp) {
        if (proof == null || settingUp) {
            return Board.BoardCell.of(Mark.DARK, "—");
        }
        return proof.proven
                ? new Board.BoardCell(Mark.LIT, notMeasured(proof), proof.at)
                : Board.BoardCell.of(Mark.FAULT, proof.sentence);
    }

    /** The rungs that were not measured although the unit counts as proven; empty where all were. */
    static String notMeasured(Proof proof) {
        String titles = proof.outcomes.stream()
                .filter(outcome -> outcome.standing() == Outcome.Standing.NOT_MEASURED)
                .map(outcome -> outcome.rung().title())
                .collect(Collectors.joining(", "));
        return titles.isEmpty() ? "" : BoardText.NOT_MEASURED.text(titles);
    }

    /** @param blocks what stands between a proven unit and its signature; empty where nothing does */
    static Board.BoardCell handover(Proof proof, boolean signed, String blocks) {
        if (signed) {
            return Board.BoardCell.of(Mark.DONE, "signed");
        }
        if (proof == null || !proof.proven) {
            return Board.BoardCell.of(Mark.DARK, "—");
        }
        return blocks.isEmpty()
                ? Board.BoardCell.of(Mark.SET, BoardText.READY_TO_SIGN.text())
                : Board.BoardCell.of(Mark.DARK, blocks);
    }
}
