package lychnos.core.dialogue;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Set;
import lychnos.core.dialogue.Conversation.Progress;
import lychnos.core.dialogue.Conversation.State;
import lychnos.core.dialogue.DialogueStep.Asked;
import lychnos.core.dialogue.DialogueStep.Mark;
import lychnos.core.dialogue.DialogueStep.Waits;
import lychnos.core.dialogue.Hold.Why;
import org.junit.jupiter.api.Test;

/** The factory login, typed once more after the setup: refused, let in, or lost in a break. */
class RefusedLoginTest {

    private static final int FACTORY_AGAIN = 6;

    private static Asked asked(String title, String look, String answer, Mark... marks) {
        return Stage.asked(title, look, answer, marks);
    }

    private static Dialogue dialogue() {
        Dialogue whole = Stage.dialogue();
        return new Dialogue(
                whole.line(),
                "",
                List.of(),
                Map.of(),
                whole.refused(),
                whole.identify(),
                whole.logIn(),
                List.of(),
                List.of(
                        asked("new password", "New word:", "{ours}", Mark.SECRET),
                        asked("store it", "Store?", "store"),
                        new Waits("restarts", "", Duration.ofMinutes(3), Duration.ofMinutes(9), Look.parse("link up")),
                        asked("log in again", "name:", "{keeper}"),
                        asked("factory password again", "word:", "{factory}", Mark.SECRET, Mark.MUST_BE_REFUSED),
                        asked("log in once more", "name:", "{keeper}"),
                        asked("password works", "word:", "{ours}", Mark.SECRET, Mark.PROVES),
                        new Asked(
                                "shows what it keeps",
                                "",
                                Look.parse("tarn#"),
                                Template.parse("show"),
                                true,
                                false,
                                null,
                                "",
                                Set.of())),
                false);
    }

    /** Behind its restart, where the factory login has just been typed again. */
    private static Stage tried() {
        return new Stage(dialogue(), Mode.RUN)
                .asks(Stage.GREETING, "keeper\r")
                .asks("word: ", "<8>\r")
                .asks("New word: ", "<12>\r")
                .asks("Store? ", "store\r")
                .says("... link up\r\n")
                .asks("name: ", "keeper\r")
                .asks("word: ", "<8>\r");
    }

    private static Stage ownLogin(Stage stage) {
        return stage.asks("name: ", "keeper\r")
                .asks("word: ", "<12>\r")
                .asks("tarn# ", "show\r")
                .says("kept\r\ntarn# ")
                .after(1);
    }

    private static void ends(Stage stage, Progress login) {
        assertEquals(State.DONE, stage.conversation.state(), () -> String.valueOf(stage.conversation.hold()));
        assertEquals(login, stage.conversation.progress(FACTORY_AGAIN));
    }

    @Test
    void aRefusalIsWhatWasWanted() {
        Stage stage = tried().says("not taken: wrong word\r\n");
        List<Effect> told = List.copyOf(stage.after(5).effects);
        assertTrue(told.isEmpty() && stage.conversation.hold().isEmpty(), told::toString);
        stage.says("name: ").after(1);
        assertTrue(
                stage.effects.contains(new Effect.Done(FACTORY_AGAIN, "wrong word")), () -> stage.effects.toString());
        assertEquals("keeper\r", stage.sent());
        stage.says("keeper\r\n")
                .asks("word: ", "<12>\r")
                .asks("tarn# ", "show\r")
                .says("kept\r\ntarn# ")
                .after(1);
        ends(stage, Progress.DONE);
    }

    @Test
    void aMachineThatOnlyAsksAgainHasRefusedItToo() {
        ends(ownLogin(tried()), Progress.DONE);
    }

    @Test
    void letInAPersonIsCalledAndTheSetupGoesOnAfterALogout() {
        Stage stage = tried().says("tarn# ").after(1);
        assertEquals(Why.LET_IN, stage.why());
        assertEquals("", stage.goOn("").sent(), "saying so is not enough");
        stage.effects.addAll(stage.conversation.typed("logout\r", stage.now));
        assertEquals("logout\r", stage.sent());
        ends(ownLogin(stage.says("logout\r\n")), Progress.LEFT_OUT);
    }

    @Test
    void whatNobodyDescribedIsNotTakenForARefusal() {
        Stage stage = tried().says("Welcome, keeper. Choose a colour: ").after(2);
        assertEquals(null, stage.why());
        assertEquals(Why.LET_IN, stage.after(2).why());
        assertEquals(Progress.LEFT_OUT, stage.conversation.progress(FACTORY_AGAIN));
    }

    @Test
    void aPersonWhoTypesOnDoesNotMakeItARefusal() {
        Stage stage = tried().says("tarn# ");
        stage.effects.addAll(stage.conversation.typed("show\r", stage.now));
        assertEquals(Progress.LEFT_OUT, stage.conversation.progress(FACTORY_AGAIN));
    }

    @Test
    void lostInABreakItIsTriedAgain() {
        Stage stage = tried();
        stage.effects.addAll(stage.conversation.lineDown());
        stage.effects.addAll(stage.conversation.lineUp(stage.now));
        stage.says("\r\nTARN interconnect, serial TN-7, blank\r\n");
        stage.asks("name: ", "keeper\r").asks("word: ", "<8>\r").says("not taken: wrong word\r\n");
        ends(ownLogin(stage), Progress.DONE);
    }

    @Test
    void itsRefusalOnAPageThatIsDrawnAgainIsNotThatOfTheNextAnswer() {
        Stage stage = tried().says("not taken: wrong word\r\n").asks("name: ", "keeper\r");
        stage.says("\033[2J\033[1;1Hnot taken: wrong word\r\n").asks("word: ", "<12>\r");
        assertEquals(null, stage.why());
    }
}
