package lychnos.core.dialogue;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.List;
import java.util.Map;
import java.util.Set;
import lychnos.core.dialogue.Dialogue.MachineLog;
import lychnos.core.dialogue.DialogueStep.Asked;
import lychnos.core.dialogue.DialogueStep.Expected;
import lychnos.core.dialogue.Hold.Why;
import lychnos.core.text.Texts;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** The machine's own log, fetched when a step has failed. */
class LogCaptureTest {

    private Stage stage;

    /** A machine whose only command does not show what it must, so that a person is called at its prompt. */
    @BeforeEach
    void failAtAPrompt() {
        Dialogue plain = Stage.dialogue();
        Asked checks = new Asked(
                "checks itself",
                "",
                Look.parse("tarn#"),
                Template.parse("check"),
                true,
                false,
                null,
                "",
                Set.of(),
                null,
                List.of(new Expected(Look.parse("all well"), true)));
        stage = new Stage(
                new Dialogue(
                        plain.line(),
                        plain.nudge(),
                        List.of(),
                        Map.of(Look.parse("-- more --"), " "),
                        null,
                        plain.identify(),
                        List.of(),
                        List.of(),
                        List.of(checks),
                        false,
                        List.of(),
                        null,
                        new MachineLog(Look.parse("/tarn# *$/"), "log show", "")),
                Mode.RUN);
        stage.says("TARN interconnect, serial TN-7, blank\r\ntarn# ").after(1);
        assertEquals("check\r", stage.sent());
        stage.says("check\r\nfan 2 stands still\r\ntarn# ").after(1);
        assertEquals(Why.DIFFERS, stage.why());
        stage.effects.clear();
    }

    private void fetch() {
        assertTrue(stage.conversation.fetchLog(stage.now).isEmpty());
        stage.effects.addAll(stage.conversation.effects());
        assertEquals("log show\r", stage.sent());
    }

    private List<String> logs() {
        return stage.effects.stream()
                .filter(Effect.Logged.class::isInstance)
                .map(each -> ((Effect.Logged) each).text())
                .toList();
    }

    @Test
    void isWhatStandsBetweenTheCommandAndTheNextPrompt() {
        fetch();
        stage.after(1)
                .says("log show\r\n07:01 fan 2 stands still\r\n07:02 \u001b[31mhot\u001b[0m\r\n")
                .after(1);
        assertEquals(List.of(), logs(), "it is not over before the prompt");
        stage.says("tarn# ").after(1);
        assertEquals(List.of("07:01 fan 2 stands still\n07:02 hot\n"), logs());
        assertEquals(Why.DIFFERS, stage.why(), "the fault still stands");
        assertEquals("", stage.sent(), "nothing else was sent");
    }

    @Test
    void pagesAreTurned() {
        fetch();
        stage.says("log show\r\nfirst\r\n-- more --").after(2);
        assertEquals(" ", stage.sent(), "once");
        stage.says("\r          \rsecond\r\ntarn# ").after(1);
        assertTrue(logs().get(0).contains("first") && logs().get(0).contains("second"));
    }

    @Test
    void holdsNoPassword() {
        fetch();
        stage.says("log show\r\nset word " + Stage.OURS.<String>use(word -> word) + "\r\ntarn# ")
                .after(1);
        assertEquals(List.of("set word •••\n"), logs());
    }

    @Test
    void oneThatDoesNotEndIsGivenUpWithWhatHasCome() {
        fetch();
        stage.says("log show\r\n");
        for (int i = 0; i < 130; i++) {
            stage.says("again and again\r\n").after(1);
        }
        assertEquals(1, logs().size());
        assertTrue(logs().get(0).endsWith(DialogueText.LOG_CUT.text() + "\n"));
    }

    @Test
    void aFloodIsCutOff() {
        fetch();
        stage.says("log show\r\n");
        for (int i = 0; i < 30; i++) {
            stage.says("x".repeat(9_999) + "\n");
        }
        stage.after(1);
        assertTrue(logs().get(0).length() <= LogCapture.MOST + 100);
    }

    @Test
    void isNotAskedForElsewhere() {
        stage.says("\r\nReally? ").after(1);
        assertTrue(Texts.says(
                DialogueText.LOG_NO_PROMPT,
                stage.conversation.fetchLog(stage.now).orElseThrow()));
        stage.says("\r\ntarn# ").after(1);
        fetch();
        assertFalse(stage.conversation.fetchLog(stage.now).isEmpty(), "it is being fetched");
        Stage other = new Stage(Mode.RUN);
        other.says(Stage.GREETING).after(1);
        assertFalse(other.conversation.fetchLog(other.now).isEmpty(), "its kind does not say how");
    }

    @Test
    void aCutLineEndsIt() {
        fetch();
        stage.conversation.lineDown();
        stage.conversation.lineUp(stage.now);
        stage.says("\r\nTARN interconnect, serial TN-7, blank\r\ntarn# ").after(2);
        assertEquals(List.of(), logs());
    }
}
