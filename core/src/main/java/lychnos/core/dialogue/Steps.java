package lychnos.core.dialogue;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.IntStream;
import lychnos.core.dialogue.Conversation.Progress;
import lychnos.core.dialogue.DialogueStep.Asked;
import lychnos.core.dialogue.DialogueStep.Mark;
import lychnos.core.dialogue.DialogueStep.Summary;
import lychnos.core.dialogue.DialogueStep.Waits;

/** The steps of one member, and how far each of them is. */
final class Steps {

    private final Dialogue dialogue;
    private final String member;
    private final Function<String, Optional<String>> values;
    private final Set<String> shownLater;
    private List<DialogueStep> steps;
    private Progress[] progress;

    Steps(Dialogue dialogue, String member, Function<String, Optional<String>> values) {
        this.dialogue = dialogue;
        this.member = member;
        this.values = values;
        shownLater = dialogue.shownLater();
        plan(false);
    }

    /** With or without a wipe before the setup; what is done stays done. */
    void plan(boolean wiped) {
        List<DialogueStep> before = steps == null ? List.of() : steps;
        Progress[] earlier = progress;
        steps = dialogue.steps(member, wiped);
        progress = new Progress[steps.size()];
        for (int i = 0; i < progress.length; i++) {
            int at = before.indexOf(steps.get(i));
            progress[i] = at < 0 ? Progress.OPEN : earlier[at];
        }
    }

    void resume(List<Progress> earlier) {
        for (int i = 0; i < progress.length && i < earlier.size(); i++) {
            // whether a step applies may have changed
            boolean reopened =
                    earlier.get(i) == Progress.LEFT_OUT && !steps.get(i).only().equals(Condition.ALWAYS);
            progress[i] = reopened ? Progress.OPEN : earlier.get(i);
        }
    }

    List<DialogueStep> all() {
        return steps;
    }

    DialogueStep get(int step) {
        return steps.get(step);
    }

    Asked asked(int step) {
        return (Asked) steps.get(step);
    }

    Progress progress(int step) {
        return progress[step] == Progress.OPEN && !mayApply(step) ? Progress.LEFT_OUT : progress[step];
    }

    /** Whether a step is to be done still; one whose condition is not met is not. */
    private boolean open(int step) {
        return progress(step) == Progress.OPEN;
    }

    /** Whether the condition of a step is met, or depends on what the machine has not shown yet. */
    private boolean mayApply(int step) {
        return steps.get(step).only().holds(values, shownLater).orElse(true);
    }

    /** The names of what the machine must show before it is known whether a step applies; empty where it is known. */
    List<String> decidedBy(int step) {
        Condition only = steps.get(step).only();
        return only.holds(values, shownLater).isPresent()
                ? List.of()
                : only.names().stream()
                        .filter(name -> values.apply(name).isEmpty())
                        .sorted()
                        .toList();
    }

    void set(int step, Progress to) {
        progress[step] = to;
    }

    boolean logsIn(int step) {
        return dialogue.logIn().contains(steps.get(step));
    }

    /** The step whose answer was sent and that the machine has not said anything to yet; or -1. */
    int sent() {
        return List.of(progress).indexOf(Progress.SENT);
    }

    /** What does not apply to this machine is left out for good. */
    void leaveOutWhatDoesNotApply() {
        for (int i = 0; i < progress.length; i++) {
            progress[i] = progress(i);
        }
    }

    /** A log-in that was never asked for is not missed. */
    boolean allDone() {
        return IntStream.range(0, progress.length).noneMatch(i -> open(i) && !logsIn(i));
    }

    /** A person who works a page with the cursor keys may come to a row by another way. */
    private static boolean mustBeAsked(Asked asked) {
        return !asked.is(Mark.OPTIONAL) && !asked.opensPage();
    }

    /** Nothing of it is done on this member. */
    void leaveAllOut() {
        Arrays.fill(progress, Progress.LEFT_OUT);
    }

    void leaveOutLogIn() {
        IntStream.range(0, progress.length)
                .filter(i -> open(i) && logsIn(i))
                .forEach(i -> progress[i] = Progress.LEFT_OUT);
    }

    /** Whether a step is a row of a page that is gone to with the cursor keys. */
    boolean isRow(int step) {
        return steps.get(step) instanceof Asked asked && asked.row() != null;
    }

    /**
     * Of questions that look alike the first that is open; one that was answered only where no open one looks so; or
     * -1. Where others must still be asked between one whose answer was sent and the first open one, the machine asks
     * for that answer again.
     */
    int asking(String line) {
        int answered = -1;
        for (int i = 0; i < steps.size(); i++) {
            if (steps.get(i) instanceof Asked asked
                    && mayApply(i)
                    && asked.look().in(line)) {
                if (open(i)) {
                    int sent = answered;
                    return sent >= 0
                                    && progress[sent] == Progress.SENT
                                    && !asked(sent).command()
                                    && openBetween(sent, i) > 0
                            ? sent
                            : i;
                }
                answered = i;
            }
        }
        return answered;
    }

    /** How many steps between two are open that the machine must ask. */
    private long openBetween(int from, int to) {
        return IntStream.range(from + 1, to)
                .filter(i -> open(i) && steps.get(i) instanceof Asked asked && mustBeAsked(asked))
                .count();
    }

    /** The first wait that is not over. */
    int waitingFor() {
        for (int i = 0; i < steps.size(); i++) {
            if (open(i) && steps.get(i) instanceof Waits) {
                return i;
            }
        }
        throw new IllegalStateException("nothing is waited for");
    }

    Waits waits() {
        return (Waits) steps.get(waitingFor());
    }

    /** The wait that begins now, if the next thing is one. */
    Optional<Waits> beginning() {
        for (int i = 0; i < steps.size(); i++) {
            boolean mayStayOut = steps.get(i) instanceof Asked asked && (asked.is(Mark.OPTIONAL) || logsIn(i));
            if (open(i) && !mayStayOut) {
                return steps.get(i) instanceof Waits waits ? Optional.of(waits) : Optional.empty();
            }
        }
        return Optional.empty();
    }

    /** The next thing, if it is a row to be gone to on a page. */
    Optional<Integer> nextRow() {
        for (int i = 0; i < steps.size(); i++) {
            if (open(i) && !logsIn(i)) {
                if (steps.get(i) instanceof Asked asked && asked.row() != null) {
                    return Optional.of(i);
                }
                if (!(steps.get(i) instanceof Summary)) {
                    return Optional.empty();
                }
            }
        }
        return Optional.empty();
    }

    /** Whether a row was entered that opens another page, which has not been seen yet. */
    boolean pageOpens() {
        int sent = sent();
        return sent >= 0 && asked(sent).opensPage();
    }

    /** The question that comes after a step: the first open one that is no log-in at any time; or -1. */
    int nextAsked(int step) {
        return IntStream.range(step + 1, steps.size())
                .filter(i -> open(i) && !logsIn(i) && steps.get(i) instanceof Asked)
                .findFirst()
                .orElse(-1);
    }

    /** Open summaries right behind a step. */
    List<Integer> summariesAfter(int step) {
        List<Integer> found = new ArrayList<>();
        for (int i = step + 1; i < steps.size() && steps.get(i) instanceof Summary; i++) {
            if (open(i)) {
                found.add(i);
            }
        }
        return found;
    }

    /** Summaries before a step that were not compared yet. */
    List<Integer> summariesBefore(int step) {
        List<Integer> found = new ArrayList<>();
        for (int i = 0; i < step; i++) {
            if (open(i) && steps.get(i) instanceof Summary) {
                found.add(i);
            }
        }
        return found;
    }

    /**
     * Questions that the machine has passed over for good, now that it asks this one: those before a summary or a
     * restart, and commands. Others may still come in another order.
     */
    List<String> passedOver(int step) {
        List<Integer> summaries = summariesBefore(step);
        int barrier = summaries.isEmpty() ? -1 : summaries.get(summaries.size() - 1);
        List<String> passed = new ArrayList<>();
        for (int i = 0; i < step; i++) {
            if (open(i) && !logsIn(i) && steps.get(i) instanceof Asked asked && mustBeAsked(asked)) {
                boolean worked = steps.subList(i, step).stream().anyMatch(each -> each instanceof Waits);
                if (i < barrier || asked.command() || worked) {
                    passed.add(asked.title());
                }
            }
        }
        return passed;
    }

    /**
     * Closes what lies before a step and needs nobody: what the machine need not ask, and waits that are over by that.
     */
    void closeBefore(int step) {
        for (int i = 0; i < step; i++) {
            if (open(i) && !logsIn(i)) {
                if (steps.get(i) instanceof Asked asked && !mustBeAsked(asked)) {
                    progress[i] = Progress.LEFT_OUT;
                } else if (steps.get(i) instanceof Waits) {
                    progress[i] = Progress.DONE;
                }
            }
        }
    }
}
