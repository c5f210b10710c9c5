package lychnos.core.dialogue;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.util.List;
import java.util.Map;
import lychnos.core.dialogue.Hold.Why;
import org.junit.jupiter.api.Test;

/** A line that is looked at later than it should have been, as after a database that did not answer for a while. */
class LateLookTest {

    private static final String NUDGE = "\f";

    private static Dialogue withNudge() {
        Dialogue as = Stage.dialogue();
        return new Dialogue(
                as.line(),
                NUDGE,
                as.chatter(),
                Map.of(),
                as.refused(),
                as.identify(),
                as.logIn(),
                List.of(),
                as.setup(),
                false);
    }

    @Test
    void aMomentThatWentByUnseenIsStillToldAndActedOn() {
        Stage stage = new Stage(withNudge(), Mode.RUN).after(3.5);
        assertEquals("", stage.sent());
        stage.now = stage.now.plusSeconds(5);
        assertEquals(
                stage.now.minusMillis(4500),
                stage.conversation.wakeAt().orElseThrow(),
                "the end of the silence, which has gone by");
        assertEquals(NUDGE, stage.after(0).sent());
        stage.now = stage.now.plusSeconds(60);
        assertEquals(
                stage.now.minusSeconds(60).plus(Conversation.SETTLE),
                stage.conversation.wakeAt().orElseThrow(),
                "and every moment after that");
        assertEquals(Why.SILENT, stage.after(0).why());
    }

    @Test
    void aLineThatComesUpLateIsGivenTimeToSpeakAndThenWoken() {
        Stage stage = new Stage(withNudge(), Mode.RUN);
        stage.now = stage.now.plusSeconds(300);
        stage.effects.addAll(stage.conversation.lineUp(stage.now));
        assertEquals("", stage.after(3.5).sent(), "it may still greet");
        assertEquals(NUDGE, stage.after(1).sent());
    }
}
