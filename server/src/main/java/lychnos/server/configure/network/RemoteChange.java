package lychnos.server.configure.network;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;
import lychnos.core.dialogue.Conversation.Progress;
import lychnos.core.dialogue.DialogueStep.Remote;
import lychnos.core.dialogue.Hold;
import lychnos.server.configure.model.Change;

/**
 * What is saved with a change, besides how the work stands.
 *
 * @param moved by place, how far steps are now
 * @param sends by place, what is written; no password
 * @param tries names of passwords that are tried
 * @param proven names of passwords that have logged in
 * @param told what the machine has told, by name
 * @param log the machine's own log, or empty
 */
record RemoteChange(
        Map<Integer, Change.StepMoved> moved,
        Map<Integer, String> sends,
        List<String> tries,
        List<String> proven,
        Map<String, String> told,
        String log) {

    private static final String TOOL = "Lychnos";

    static final RemoteChange NOTHING = new RemoteChange(Map.of(), Map.of(), List.of(), List.of(), Map.of(), "");

    static RemoteChange logged(String log) {
        return new RemoteChange(Map.of(), Map.of(), List.of(), List.of(), Map.of(), log);
    }

    static RemoteChange moved(int step, Progress to, String evidence) {
        return new RemoteChange(
                Map.of(step, new Change.StepMoved(to, evidence)), Map.of(), List.of(), List.of(), Map.of(), "");
    }

    static RemoteChange sent(int step, String text, List<String> tries) {
        return new RemoteChange(
                Map.of(step, new Change.StepMoved(Progress.SENT, "")),
                Map.of(step, text),
                tries,
                List.of(),
                Map.of(),
                "");
    }

    static RemoteChange done(int step, RemoteStep.Outcome.Done done) {
        return new RemoteChange(
                Map.of(step, new Change.StepMoved(Progress.DONE, done.evidence())),
                Map.of(),
                List.of(),
                done.proven(),
                done.told(),
                "");
    }

    /**
     * The change that the database is given.
     *
     * @param standing how far the work is
     * @param stretch what the time goes to from now on; null where that has not changed
     */
    Change of(RemoteKeeping.Owner work, Instant now, RemoteKeeping.Standing standing, Change.Stretch stretch) {
        RemoteState at = standing.at();
        return new Change(
                work.dialogueId(),
                now,
                new Change.DialogueStands(
                        at.state(), at.hold(), standing.mode(), work.wiped(), work.identified(), standing.note()),
                null,
                moved,
                new Change.Answered(sends, TOOL, "web", tries, proven, null),
                told,
                stretch,
                log,
                0);
    }

    /** @param next the step that is waited for, if one is */
    static Change.Stretch stretch(RemoteState at, Supplier<Remote> next) {
        return switch (at.state()) {
            case WAITING -> {
                Remote remote = next.get();
                yield new Change.Stretch(
                        "wait",
                        remote.title(),
                        remote.usually().toSeconds(),
                        remote.longest().toSeconds());
            }
            case HELD, STOPPED ->
                Change.Stretch.held(Optional.ofNullable(at.hold()).map(Hold::why), at.state());
            case DONE -> new Change.Stretch("", "", 0, 0);
            default -> new Change.Stretch("hands", "", 0, 0);
        };
    }
}
