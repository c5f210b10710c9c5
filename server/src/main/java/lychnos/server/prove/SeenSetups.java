package lychnos.server.prove;

import jakarta.enterprise.context.ApplicationScoped;
import java.util.List;
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

    /** How far a step came, and whether anything was sent for it: a member that stands by leaves out steps unsent. */
    record KeptStep(DialogueStep step, Conversation.Progress progress, boolean sent) {

        boolean mustBeRefused() {
            return step instanceof DialogueStep.Asked asked && asked.is(DialogueStep.Mark.MUST_BE_REFUSED);
        }
    }

    /**
     * What a setup has shown of its machine.
     *
     * @param serial what the machine told in it
     */
    Target.SetUp of(Kind kind, MemberDialogue row, String serial) {
        List<KeptStep> steps = steps(kind, row);
        boolean readBack = steps.stream()
                .anyMatch(kept ->
                        kept.progress == Conversation.Progress.DONE && kept.step instanceof DialogueStep.Summary);
        return new Target.SetUp(row.endedAt, serial, readBack, identifiedBy(kind, row), lineLogin(steps));
    }

    /**
     * The steps of a setup that the kind still has at the same place: a unit may have been moved to another version of
     * its kind since.
     */
    private List<KeptStep> steps(Kind kind, MemberDialogue row) {
        List<DialogueStep> steps = kind.dialogue()
                .map(dialogue -> dialogue.withPages(row.member, row.wiped))
                .orElse(List.of());
        return db.createNativeQuery(
                        "select place, title, progress, times_sent from dialogue_step where dialogue_id = :id",
                        Object[].class)
                .setParameter("id", row.id)
                .getResultStream()
                .filter(step -> (int) step[0] < steps.size()
                        && steps.get((int) step[0]).title().equals(step[1]))
                .map(step -> new KeptStep(
                        steps.get((int) step[0]), Conversation.Progress.valueOf((String) step[2]), (int) step[3] > 0))
                .toList();
    }

    static Target.LineLogin lineLogin(List<KeptStep> steps) {
        List<KeptStep> tried = steps.stream()
                .filter(KeptStep::mustBeRefused)
                .filter(KeptStep::sent)
                .toList();
        if (tried.stream().anyMatch(kept -> kept.progress == Conversation.Progress.DONE)) {
            return Target.LineLogin.REFUSED;
        }
        return tried.stream().anyMatch(kept -> kept.progress == Conversation.Progress.LEFT_OUT)
                ? Target.LineLogin.NOT_REFUSED
                : Target.LineLogin.NOT_TRIED;
    }

    private static Target.IdentifiedBy identifiedBy(Kind kind, MemberDialogue row) {
        if (!Comparisons.needed(kind, row)) {
            return new Target.Machine();
        }
        return row.comparedAt == null
                ? new Target.NotYet()
                : new Target.Person(row.comparedBy, row.comparedText, row.comparedAt);
    }
}
