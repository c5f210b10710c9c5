package lychnos.core.order;

import java.util.ArrayList;
import java.util.List;

/**
 * The order in which a round of like units is set up: the first goes alone until it is proven, then a few at once, and
 * the first surprise stops the starting of more. What already runs is left to end.
 */
public final class RoundOrder {

    private RoundOrder() {}

    /** Why units wait. */
    public enum Hold {
        /** Nothing waits, or all that waits may start. */
        NONE,
        /** The first of the kind is under way and goes alone. */
        FIRST_GOES_ALONE,
        /** As many run as may run at once. */
        ENOUGH_AT_ONCE,
        /** One stopped; a person must look before another starts. */
        SURPRISE
    }

    /**
     * What may start now.
     *
     * @param start indices into the list that was given
     * @param hold why the others wait
     */
    public record Decision(List<Integer> start, Hold hold) {}

    /**
     * Decides from the states of a round's runs, in their order.
     *
     * @param width how many may run at once after the first is proven, at least 1
     */
    public static Decision decide(List<RunState> states, int width) {
        if (width < 1) {
            throw new IllegalArgumentException("at least one at once");
        }
        List<Integer> waiting = new ArrayList<>();
        for (int i = 0; i < states.size(); i++) {
            if (states.get(i) == RunState.WAITING) {
                waiting.add(i);
            }
        }
        if (waiting.isEmpty()) {
            return new Decision(List.of(), Hold.NONE);
        }
        if (states.contains(RunState.STOPPED)) {
            return new Decision(List.of(), Hold.SURPRISE);
        }
        boolean firstProven = states.contains(RunState.DONE);
        int running =
                (int) states.stream().filter(state -> state == RunState.RUNNING).count();
        int room = Math.max(0, (firstProven ? width : 1) - running);
        List<Integer> start = waiting.subList(0, Math.min(room, waiting.size()));
        if (start.size() == waiting.size()) {
            return new Decision(List.copyOf(start), Hold.NONE);
        }
        return new Decision(List.copyOf(start), firstProven ? Hold.ENOUGH_AT_ONCE : Hold.FIRST_GOES_ALONE);
    }
}
