package lychnos.server.configure.line;

import java.util.List;
import java.util.stream.IntStream;
import lychnos.core.dialogue.Conversation;
import lychnos.core.dialogue.Mode;
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

    static LineStanding of(Conversation conversation, Mode mode, LineChanges changes, String hand, boolean lineUp) {
        List<String> progress = IntStream.range(0, conversation.steps().size())
                .mapToObj(step -> conversation.progress(step).name())
                .toList();
        return new LineStanding(
                conversation.state().name(),
                mode.name(),
                HoldView.of(conversation.hold().orElse(null)),
                changes.note(),
                hand,
                lineUp,
                changes.identified(),
                progress,
                conversation.asking());
    }

    /** Without what the line asks now, which needs not be kept. */
    LineStanding kept() {
        return new LineStanding(state, mode, hold, note, hand, lineUp, identified, progress, -1);
    }
}
