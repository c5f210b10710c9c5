package lychnos.server.prove;

import jakarta.enterprise.context.ApplicationScoped;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import lychnos.core.dialogue.Conversation;
import lychnos.core.dialogue.DialogueStep;
import lychnos.core.kind.Kind;
import lychnos.server.configure.model.MemberDialogue;
import lychnos.server.configure.plan.Comparisons;
import lychnos.wire.ladder.Target;
import org.hibernate.Session;

/** What checks know of a machine from its setup. */
@ApplicationScoped
class SeenSetups {

    private final Session db;

    SeenSetups(Session db) {
        this.db = db;
    }

    /**
     * What a setup has shown of its machine.
     *
     * @param serial what the machine told in it
     */
    Target.SetUp of(Kind kind, MemberDialogue row, String serial) {
        Map<Conversation.Progress, List<DialogueStep>> steps = steps(kind, row);
        boolean readBack = steps.getOrDefault(Conversation.Progress.DONE, List.of()).stream()
                .anyMatch(DialogueStep.Summary.class::isInstance);
        return new Target.SetUp(row.endedAt, serial, readBack, identifiedBy(kind, row), lineLogin(steps));
    }

    private static Target.IdentifiedBy identifiedBy(Kind kind, MemberDialogue row) {
        if (!Comparisons.needed(kind, row)) {
            return new Target.Machine();
        }
        return row.comparedAt == null
                ? new Target.NotYet()
                : new Target.Person(row.comparedBy, row.comparedText, row.comparedAt);
    }

    /**
     * By how far they are, the steps of a setup that the kind still has at the same place: a unit may have been moved
     * to another version of its kind since.
     */
    private Map<Conversation.Progress, List<DialogueStep>> steps(Kind kind, MemberDialogue row) {
        List<DialogueStep> steps = kind.dialogue()
                .map(dialogue -> dialogue.withPages(row.member, row.wiped))
                .orElse(List.of());
        Map<Conversation.Progress, List<DialogueStep>> by = new EnumMap<>(Conversation.Progress.class);
        db.createNativeQuery("select place, title, progress from dialogue_step where dialogue_id = :id", Object[].class)
                .setParameter("id", row.id)
                .getResultStream()
                .filter(step -> (int) step[0] < steps.size()
                        && steps.get((int) step[0]).title().equals(step[1]))
                .forEach(step -> by.computeIfAbsent(
                                Conversation.Progress.valueOf((String) step[2]), progress -> new ArrayList<>())
                        .add(steps.get((int) step[0])));
        return by;
    }

    private static Target.LineLogin lineLogin(Map<Conversation.Progress, List<DialogueStep>> steps) {
        if (steps.getOrDefault(Conversation.Progress.DONE, List.of()).stream().anyMatch(SeenSetups::mustBeRefused)) {
            return Target.LineLogin.REFUSED;
        }
        return steps.getOrDefault(Conversation.Progress.LEFT_OUT, List.of()).stream()
                        .anyMatch(SeenSetups::mustBeRefused)
                ? Target.LineLogin.NOT_REFUSED
                : Target.LineLogin.NOT_TRIED;
    }

    private static boolean mustBeRefused(DialogueStep step) {
        return step instanceof DialogueStep.Asked asked && asked.is(DialogueStep.Mark.MUST_BE_REFUSED);
    }
}
