package lychnos.core.dialogue;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNull;

import java.util.List;
import lychnos.core.dialogue.Conversation.Progress;
import lychnos.core.dialogue.Conversation.State;
import lychnos.core.dialogue.Hold.Why;
import org.junit.jupiter.api.Test;

/** What a conversation does where a line breaks, falls silent, or has another machine on it. */
class ConversationBreaksTest {

    @Test
    void theStandbyOneIsLeftAlone() {
        Stage stage = new Stage(Mode.RUN)
                .says("TARN interconnect, serial TN-7, standing by\r\nname: ")
                .after(5);
        assertEquals(Why.STANDBY, stage.why());
        assertEquals("", stage.goOn("").sent());
    }

    @Test
    void aUsedMachineIsWipedOnlyUnderItsName() {
        Stage stage = new Stage(Mode.RUN)
                .says("TARN interconnect, serial TN-7, settings kept\r\nname: ")
                .after(1);
        assertEquals(Why.USED, stage.why());
        assertEquals("", stage.goOn("").sent());
        assertEquals("", stage.goOn("ard-fic-2").sent());
        assertEquals(Why.USED, stage.why());
        stage.goOn("ard-fic-1").after(1);
        assertEquals("keeper\r", stage.sent());
        stage.says("keeper\r\n")
                .asks("word: ", "<8>\r")
                .says("Forget everything? ")
                .after(1);
        assertEquals(Why.DESTROYS, stage.why());
        assertEquals("", stage.goOn("yes").sent());
        assertEquals("forget\r", stage.goOn("ard-fic-1").sent());
    }

    @Test
    void aWaitThatNeverEndsIsTold() {
        Stage stage = Stage.atSummary()
                .says("  oob   10.40.8.41/24\r\n  hop   10.40.8.1\r\nStore? ")
                .after(1)
                .goOn("")
                .says("store\r\n")
                .after(599);
        assertEquals(State.WAITING, stage.conversation.state());
        assertEquals(Why.OVERDUE, stage.after(3).why());
        stage.goOn("");
        assertEquals(State.WAITING, stage.conversation.state());
        assertNull(stage.after(100).why());
    }

    @Test
    void aLineThatWasCutIsNotTrusted() {
        Stage stage = Stage.atAddress();
        stage.conversation.lineDown();
        stage.says("Address [none]: ").after(2);
        assertEquals("", stage.sent());
        stage.conversation.lineUp(stage.now);
        stage.says("Address [none]: ").after(2);
        assertEquals("", stage.sent(), "it may be another machine that asks the same");
        assertEquals(Why.CUT, stage.after(4).why());
        stage.goOn("").after(1);
        assertEquals("10.40.8.41/24\r", stage.sent());
    }

    @Test
    void anotherMachineBehindTheCutIsSeen() {
        Stage stage = Stage.atAddress();
        stage.conversation.lineDown();
        stage.conversation.lineUp(stage.now);
        stage.says("TARN interconnect, serial TN-9, blank\r\nname: ").after(1);
        assertEquals(Why.WRONG_MACHINE, stage.why());
        assertEquals("", stage.sent());
    }

    @Test
    void theSameMachineBehindTheCutIsKnownByItsGreeting() {
        Stage stage = Stage.atAddress();
        stage.conversation.lineDown();
        stage.conversation.lineUp(stage.now);
        stage.says("TARN interconnect, serial TN-7, blank\r\nAddress [none]: ").after(2);
        assertEquals("10.40.8.41/24\r", stage.sent());
    }

    @Test
    void whatWasShownWhileTheWorkWasBrokenOffIsComparedByAPerson() {
        Stage before = Stage.atAddress()
                .asks("Address [none]: ", "10.40.8.41/24\r")
                .asks("Next hop [none]: ", "10.40.8.1\r")
                .says("Strong words? [yes]: ")
                .after(1);
        assertEquals("\r", before.sent());
        before.conversation.lineDown();
        before.conversation.lineUp(before.now);
        before.says("TARN interconnect, serial TN-7, blank\r\nStore? ").after(2);
        assertEquals(Why.NOT_SEEN, before.why());
        assertEquals(Why.RESTARTS, before.goOn("").after(1).why());
    }

    @Test
    void goesOnWhereItWasWithoutSendingTwice() {
        Stage before = Stage.atAddress()
                .asks("Address [none]: ", "10.40.8.41/24\r")
                .says("Next hop [none]: ")
                .after(1);
        assertEquals("10.40.8.1\r", before.sent());
        List<Progress> kept = java.util.stream.IntStream.range(
                        0, before.conversation.steps().size())
                .mapToObj(before.conversation::progress)
                .toList();
        Stage after = new Stage(Mode.RUN);
        after.conversation.resume(new Conversation.Left(false, true, kept, java.util.Map.of(), ""), after.now);
        // the machine still shows the question whose answer may or may not have reached it
        after.says("\r\nTARN interconnect, serial TN-7, blank\r\n")
                .after(1)
                .says("Next hop [none]: ")
                .after(1);
        assertEquals("", after.sent(), "it may have been taken");
        assertEquals(Why.SENT_BEFORE, after.why());
        assertEquals("10.40.8.1\r", after.goOn("").after(1).sent(), "a person has looked");
        Stage next = new Stage(Mode.RUN);
        next.conversation.resume(new Conversation.Left(false, true, kept, java.util.Map.of(), ""), next.now);
        next.says("\r\nTARN interconnect, serial TN-7, blank\r\n").after(1).asks("Strong words? [yes]: ", "\r");
    }

    @Test
    void asksWhetherItIsTheSameMachineWhereALineThatMayNotBeWokenStaysSilent() {
        Stage before = Stage.atAddress()
                .asks("Address [none]: ", "10.40.8.41/24\r")
                .says("Next hop [none]: ")
                .after(1);
        before.sent();
        List<Progress> kept = java.util.stream.IntStream.range(
                        0, before.conversation.steps().size())
                .mapToObj(before.conversation::progress)
                .toList();
        Stage after = new Stage(Mode.RUN);
        after.conversation.resume(
                new Conversation.Left(false, true, kept, java.util.Map.of(), "10.40.8.1\r\nStrong words? [yes]: "),
                after.now);
        assertEquals("", after.after(6).sent());
        assertEquals(Why.CUT, after.why());
        assertEquals("\r", after.goOn("").after(2).sent(), "the question that was shown last is answered, once");
        assertEquals("", after.after(6).sent());
    }

    @Test
    void callsAPersonWhereTheQuestionWasLostInTheBreak() {
        Stage before = Stage.atAddress()
                .asks("Address [none]: ", "10.40.8.41/24\r")
                .says("Next hop [none]: ")
                .after(1);
        before.sent();
        List<Progress> kept = java.util.stream.IntStream.range(
                        0, before.conversation.steps().size())
                .mapToObj(before.conversation::progress)
                .toList();
        Stage after = new Stage(Mode.RUN);
        after.conversation.resume(
                new Conversation.Left(false, true, kept, java.util.Map.of(), "10.40.8.1\r\n"), after.now);
        assertEquals(Why.CUT, after.after(6).why());
        assertEquals("", after.goOn("").after(2).sent());
        assertEquals(Why.SILENT, after.after(4).why(), "nothing that was shown can be answered");
        assertEquals(
                "\r",
                after.says("\r\nStrong words? [yes]: ").after(2).sent(),
                "it continues once the line shows something");
    }

    @Test
    void aMachineThatWasSetUpHalfWayIsNotTakenForAUsedOneAfterABreak() {
        Stage before = Stage.atAddress();
        List<Progress> kept = java.util.stream.IntStream.range(
                        0, before.conversation.steps().size())
                .mapToObj(before.conversation::progress)
                .toList();
        Stage after = new Stage(Mode.RUN);
        after.conversation.resume(new Conversation.Left(false, true, kept, java.util.Map.of(), ""), after.now);
        after.says("TARN interconnect, serial TN-7, settings kept\r\n")
                .after(1)
                .asks("Address [none]: ", "10.40.8.41/24\r");
    }

    @Test
    void aGreetingFromBeforeTheBreakTellsNothing() {
        Stage before = Stage.atAddress();
        List<Progress> kept = java.util.stream.IntStream.range(
                        0, before.conversation.steps().size())
                .mapToObj(before.conversation::progress)
                .toList();
        Stage after = new Stage(Mode.RUN);
        after.conversation.resume(
                new Conversation.Left(
                        false,
                        true,
                        kept,
                        java.util.Map.of(),
                        "TARN interconnect, serial TN-7, blank\r\nAddress [none]: "),
                after.now);
        assertEquals("", after.after(2).sent());
        after.says("\r\nTARN interconnect, serial TN-7, blank\r\n")
                .after(0.3)
                .asks("Address [none]: ", "10.40.8.41/24\r");
    }

    @Test
    void goesOnByItselfOnceTheLineTellsWhatWasMissing() {
        Stage silent = new Stage(Mode.RUN).after(6);
        assertEquals(Why.SILENT, silent.why());
        assertEquals("keeper\r", silent.says(Stage.GREETING).after(1).sent());
        Stage strange = new Stage(Mode.RUN).says("boot: ").after(6);
        assertEquals(Why.UNFORESEEN, strange.why());
        assertEquals("keeper\r", strange.says(Stage.GREETING).after(1).sent());
    }

    @Test
    void showsThatItCannotTellTheMachine() {
        Stage stage = new Stage(Mode.RUN).says("some other prompt> ").after(6);
        assertEquals("", stage.sent());
        assertEquals(Why.UNFORESEEN, stage.why());
    }
}
