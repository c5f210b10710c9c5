package lychnos.core.dialogue;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.Optional;
import lychnos.core.dialogue.Conversation.State;
import lychnos.core.kind.Kind;
import lychnos.core.kind.KindFaults;
import lychnos.core.kind.KindReader;
import org.junit.jupiter.api.Test;

/** A machine that is not described: a person has its line, and the program only listens. */
class ByHandTest {

    private final Stage stage = new Stage(Dialogue.byHand(LineSettings.USUAL), Mode.ASK);

    @Test
    void nothingIsSentAndNoPersonIsCalledHoweverLongItTakes() {
        stage.says("\r\nTARN interconnect, serial TN-7, blank\r\nname: ").after(400);
        assertEquals("", stage.sent());
        assertEquals(State.MANUAL, stage.conversation.state());
        assertEquals(Optional.empty(), stage.conversation.hold());
        assertEquals(Optional.empty(), stage.conversation.wakeAt());
    }

    @Test
    void whatThePersonTypesGoesToTheMachineAsItIs() {
        stage.says("name: ");
        stage.effects.addAll(stage.conversation.typed("keepr\beeper\r", stage.now));
        assertEquals("keepr\beeper\r", stage.sent());
    }

    @Test
    void aLineThatIsCutTakesNothingAndIsThePersonsAgainOnceItIsBack() {
        stage.effects.addAll(stage.conversation.lineDown());
        assertEquals(State.CUT, stage.conversation.state());
        stage.effects.addAll(stage.conversation.typed("lost", stage.now));
        assertEquals("", stage.sent());
        stage.effects.addAll(stage.conversation.lineUp(stage.now));
        stage.after(30);
        assertEquals(State.MANUAL, stage.conversation.state());
    }

    @Test
    void itIsStoppedAndTakenUpAgainAndEndsWhenThePersonSaysSo() {
        stage.conversation.halt();
        assertEquals(State.STOPPED, stage.conversation.state());
        stage.conversation.again(stage.now);
        assertEquals(State.MANUAL, stage.conversation.state());
        stage.conversation.finish();
        assertEquals(State.DONE, stage.conversation.state());
    }

    @Test
    void aSetupThatIsDescribedEndsByItselfAlone() {
        Stage described = new Stage(Mode.RUN);
        described.conversation.finish();
        assertEquals(State.UNSURE, described.conversation.state());
    }

    @Test
    void aConsoleWithoutADescriptionIsWorkedByAPerson() {
        assertEquals(
                LineSettings.USUAL, kind("console", "").dialogue().orElseThrow().line());
        Dialogue with =
                kind("console", "dialogue: { line: 115200 8N1 }\n").dialogue().orElseThrow();
        assertEquals("115200 8N1", with.line().toString());
        assertTrue(with.byHand());
        assertThrows(KindFaults.class, () -> kind("console", "dialogue: { line: 115200 8N1, nudge: enter }\n"));
        assertEquals(Optional.empty(), kind("pages", "").dialogue());
    }

    private static Kind kind(String by, String more) {
        return KindReader.read(
                """
                kind: tarn-node
                title: Tarn node
                short: tn
                about: A node that is not described yet.
                facts:
                  serial: { of: member, is: serial, find: on its label }
                  location: { of: member, is: rack-position, find: where it is mounted }
                  console: { of: member, is: console-line, find: at the console server }
                addresses:
                  - { run: [management], in: management }
                setup: { by: %s }
                names: { unit: "{site}-{kind}-{n:2}", roles: { "management": "{unit}" } }
                factory:
                  - { way: console, user: none, phrase: none }
                checks: { port: 22 }
                waits:
                  restart: { about: 3 min, at-most: 15 min }
                """
                                .formatted(by)
                        + more);
    }
}
