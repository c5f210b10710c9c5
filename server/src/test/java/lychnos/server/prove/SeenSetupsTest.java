package lychnos.server.prove;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.util.List;
import lychnos.core.dialogue.Conversation.Progress;
import lychnos.core.dialogue.DialogueStep;
import lychnos.core.dialogue.DialogueStep.Mark;
import lychnos.core.kind.KindReader;
import lychnos.server.prove.SeenSetups.KeptStep;
import lychnos.wire.ladder.Target.LineLogin;
import org.junit.jupiter.api.Test;

/** What a setup says of the factory login on a machine's line. */
class SeenSetupsTest {

    private static LineLogin login(Progress progress, boolean sent) {
        List<DialogueStep> steps =
                KindReader.shipped("blade-chassis").dialogue().orElseThrow().setup();
        return SeenSetups.lineLogin(steps.stream()
                .map(step -> step instanceof DialogueStep.Asked asked && asked.is(Mark.MUST_BE_REFUSED)
                        ? new KeptStep(step, progress, sent)
                        : new KeptStep(step, Progress.DONE, true))
                .toList());
    }

    @Test
    void aStepThatIsDoneWasRefused() {
        assertEquals(LineLogin.REFUSED, login(Progress.DONE, true));
    }

    @Test
    void oneThatWasSentAndLeftOutWasNotRefused() {
        assertEquals(LineLogin.NOT_REFUSED, login(Progress.LEFT_OUT, true));
    }

    @Test
    void aMemberThatStandsByWasNeverAsked() {
        assertEquals(LineLogin.NOT_TRIED, login(Progress.LEFT_OUT, false));
        assertEquals(LineLogin.NOT_TRIED, login(Progress.OPEN, false));
    }

    @Test
    void aKindWithoutTheStepHasNotTriedIt() {
        assertEquals(LineLogin.NOT_TRIED, SeenSetups.lineLogin(List.of()));
    }
}
