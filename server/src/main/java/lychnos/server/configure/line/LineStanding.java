package lychnos.server.configure.line;

import java.util.List;
import lychnos.server.configure.model.HoldView;
import org.jspecify.annotations.Nullable;

/** What is told to screens at each change; {@code asks} is the step whose question stands on the line, or -1. */
public record LineStanding(
        String state,
        String mode,
        @Nullable HoldView hold,
        String note,
        String hand,
        boolean lineUp,
        boolean identified,
        List<String> progress,
        int asks) {

    /** Without what the line asks now, which needs not be kept. */
    LineStanding kept() {
        return new LineStanding(state, mode, hold, note, hand, lineUp, identified, progress, -1);
    }
}
