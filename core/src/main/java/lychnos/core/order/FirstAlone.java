package lychnos.core.order;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import lychnos.core.order.RoundOrder.Hold;

/**
 * Whether a person may begin another unit of a kind: the same rule as for a round ({@link RoundOrder}), for units that
 * are begun one by one and are proven some time after their setup.
 */
public final class FirstAlone {

    private FirstAlone() {}

    /** How far a unit of the kind is that was begun. */
    public enum Stage {
        UNDER_WAY,
        /** What it shows is not what was planned or described; a person must look. */
        SURPRISE,
        /** Set up, and no check has passed yet. */
        SET_UP,
        PROVEN
    }

    /** Why another one must wait; NONE if it may begin. */
    public static Hold decide(Collection<Stage> others) {
        List<RunState> states = new ArrayList<>(others.stream()
                .map(stage -> switch (stage) {
                    case UNDER_WAY, SET_UP -> RunState.RUNNING;
                    case SURPRISE -> RunState.STOPPED;
                    case PROVEN -> RunState.DONE;
                })
                .toList());
        states.add(RunState.WAITING);
        return RoundOrder.decide(states, Integer.MAX_VALUE).hold();
    }
}
