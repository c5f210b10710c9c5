package lychnos.core.dialogue;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.IntStream;
import lychnos.core.dialogue.Conversation.Progress;
import lychnos.core.dialogue.Conversation.State;
import lychnos.core.dialogue.DialogueStep.Asked;
import lychnos.core.dialogue.DialogueStep.Expected;
import lychnos.core.dialogue.DialogueStep.Waits;
import lychnos.core.dialogue.Hold.Why;
import org.junit.jupiter.api.Test;

/** A wait whose end was shown while nobody looked at the line. */
class MissedEndTest {

    private static final String BACK = "\r\nTARN interconnect, serial TN-7, settings kept\r\ntarn# ";

    private static Dialogue dialogue() {
        return dialogue("");
    }

    private static Dialogue dialogue(String nudge) {
        Dialogue as = Stage.dialogue();
        Asked take = new Asked(
                "takes the code",
                "",
                Look.parse("/tarn# *$/"),
                Template.parse("pair take"),
                true,
                false,
                null,
                "",
                Set.of());
        Asked show = new Asked(
                "both stand",
                "",
                Look.parse("/tarn# *$/"),
                Template.parse("pair show"),
                true,
                false,
                null,
                "",
                Set.of(),
                null,
                List.of(new Expected(Look.parse("leads"), true)));
        Waits pairs = new Waits(
                "both pair",
                "",
                Duration.ofMinutes(2),
                Duration.ofMinutes(10),
                Look.parse("paired"),
                "pair show",
                Condition.ALWAYS);
        return new Dialogue(
                as.line(),
                nudge,
                as.chatter(),
                Map.of(),
                as.refused(),
                as.identify(),
                as.logIn(),
                List.of(),
                List.of(take, pairs, show),
                false);
    }

    private static Stage begun(Mode mode) {
        return new Stage(dialogue(), mode)
                .says("\r\nTARN interconnect, serial TN-7, blank\r\ntarn# ")
                .after(1);
    }

    private static Stage resumed(Stage before, Mode mode) {
        return resumed(before, mode, "");
    }

    private static Stage resumed(Stage before, Mode mode, String nudge) {
        List<Progress> kept = IntStream.range(0, before.conversation.steps().size())
                .mapToObj(before.conversation::progress)
                .toList();
        Stage after = new Stage(dialogue(nudge), mode);
        after.conversation.resume(new Conversation.Left(false, true, kept, Map.of(), ""), after.now);
        return after;
    }

    /** The code was taken, and the machine works. */
    private static Stage pairs() {
        Stage stage = begun(Mode.RUN);
        assertEquals("pair take\r", stage.sent());
        return stage.says("pair take\r\ntaken, pairs now\r\n").after(1);
    }

    @Test
    void isAskedForOnceAtAPrompt() {
        Stage after = resumed(pairs(), Mode.RUN).says(BACK).after(3);
        assertEquals("", after.sent(), "it may still come");
        assertEquals("pair show\r", after.after(2).sent());
        after.says("pair show\r\nleft: leads\r\npaired, no downlinks\r\ntarn# ").after(1);
        assertEquals("pair show\r", after.sent(), "the wait is over, and the next step has its turn");
        after.says("pair show\r\nleft: leads\r\npaired, no downlinks\r\ntarn# ").after(1);
        assertEquals(State.DONE, after.conversation.state(), () -> String.valueOf(after.conversation.hold()));
    }

    @Test
    void goesOnToBeWaitedForWhereItHasNotComeYet() {
        Stage after = resumed(pairs(), Mode.RUN).says(BACK).after(5);
        assertEquals("pair show\r", after.sent());
        after.says("pair show\r\nleft: alone\r\ntarn# ").after(30);
        assertEquals("", after.sent(), "asked once; from now on it is seen");
        assertEquals(State.WAITING, after.conversation.state());
        after.says("\r\npaired, leads\r\ntarn# ").after(1);
        assertEquals("pair show\r", after.sent());
    }

    @Test
    void isWaitedForAlsoWhereTheAnswerBeforeItWentOutRightBeforeTheBreak() {
        Stage before = begun(Mode.RUN);
        assertEquals("pair take\r", before.sent());
        Stage after = resumed(before, Mode.RUN).says(BACK).after(2);
        assertNull(after.why());
        assertEquals(State.WAITING, after.conversation.state());
        assertEquals("pair show\r", after.after(4).sent());
    }

    @Test
    void isAskedForAfterALineThatWasCutAsWell() {
        Stage stage = pairs();
        stage.conversation.lineDown();
        stage.conversation.lineUp(stage.now);
        assertEquals("pair show\r", stage.says(BACK).after(5).sent());
    }

    @Test
    void isNeitherAskedForWhileAPersonTypesNorWithoutABreak() {
        assertEquals("", resumed(pairs(), Mode.WATCH).says(BACK).after(8).sent());
        assertEquals("", pairs().says("tarn# ").after(8).sent());
    }

    @Test
    void isAskedForWhenAPersonGoesOnWaiting() {
        Stage stage = pairs().says("tarn# ").after(601);
        assertEquals(Why.OVERDUE, stage.why());
        assertEquals("pair show\r", stage.goOn("").after(5).sent());
    }

    @Test
    void aMachineThatDoesNotWakeUpIsWaitedForAsBefore() {
        Stage after = resumed(pairs(), Mode.RUN, "\r").after(9);
        assertEquals("\r", after.sent(), "it is nudged once");
        assertEquals(State.WAITING, after.conversation.state(), () -> String.valueOf(after.conversation.hold()));
        after.says("booting, 12 of 40\r\n").after(60);
        assertEquals(State.WAITING, after.conversation.state());
        after.says("\r\nTARN interconnect, serial TN-7, settings kept\r\npaired, leads\r\ntarn# ")
                .after(1);
        assertEquals("pair show\r", after.sent(), "the wait is over");
    }

    @Test
    void oneThatAnswersTheNudgeIsNotAtWork() {
        Stage after = resumed(pairs(), Mode.RUN, "\r").after(5);
        after.says("\r\ntarn# ").after(6);
        assertEquals(Why.CUT, after.why(), "it shows its prompt and does not say who it is");
    }

    @Test
    void whereItOwesAnAnswerItIsNotWaitedFor() {
        Dialogue plain = dialogue("\r");
        Asked code = new Asked(
                "tells its code",
                "",
                Look.parse("/tarn# *$/"),
                Template.parse("code show"),
                true,
                false,
                Look.parse("/code (?<code>[0-9]{6})/"),
                "",
                Set.of());
        Dialogue tells = new Dialogue(
                plain.line(),
                plain.nudge(),
                plain.chatter(),
                Map.of(),
                plain.refused(),
                plain.identify(),
                plain.logIn(),
                List.of(),
                List.of(code, plain.setup().get(1)),
                false);
        Stage before = new Stage(tells, Mode.RUN)
                .says("\r\nTARN interconnect, serial TN-7, blank\r\ntarn# ")
                .after(1);
        assertEquals("code show\r", before.sent());
        Stage after = new Stage(tells, Mode.RUN);
        after.conversation.resume(
                new Conversation.Left(
                        false,
                        true,
                        IntStream.range(0, before.conversation.steps().size())
                                .mapToObj(before.conversation::progress)
                                .toList(),
                        Map.of(),
                        ""),
                after.now);
        assertEquals(Why.CUT, after.after(9).why(), "the code that it told was lost");
    }

    @Test
    void anotherMachineIsFoundOutWhenItComesBack() {
        Stage after = resumed(pairs(), Mode.RUN, "\r").after(9);
        after.sent();
        after.says("\r\nTARN interconnect, serial TN-9, settings kept\r\npaired, leads\r\ntarn# ")
                .after(1);
        assertEquals(Why.WRONG_MACHINE, after.why());
        assertEquals("", after.sent());
    }

    @Test
    void aMachineThatComesBackWithoutSayingWhoItIsIsNotTakenForTheSame() {
        Stage after = resumed(pairs(), Mode.RUN, "\r").after(9);
        after.sent();
        after.says("\r\npaired, leads\r\ntarn# ").after(6);
        assertEquals(Why.CUT, after.why());
        assertEquals("pair show\r", after.goOn("").after(1).sent(), "a person has said so, and the wait is over");
    }

    @Test
    void whereItMayNotBeWokenAPersonIsCalledOnceItShouldBeBack() {
        Stage after = resumed(pairs(), Mode.RUN).after(110);
        assertEquals(State.WAITING, after.conversation.state());
        assertTrue(
                after.conversation.wakeAt().orElseThrow().isBefore(after.now.plusSeconds(11)),
                "two minutes after the break it looks again");
        assertEquals(Why.CUT, after.after(20).why());
        assertEquals(State.WAITING, after.goOn("").conversation.state());
        assertEquals("", after.sent());
    }

    @Test
    void itIsOverdueInTheEnd() {
        assertEquals(Why.OVERDUE, resumed(pairs(), Mode.RUN, "\r").after(620).why());
    }
}
