package lychnos.server.kinds;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.List;
import java.util.regex.Matcher;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.kind.KindReader;
import lychnos.core.kind.Recording;
import lychnos.core.text.Texts;
import lychnos.server.kinds.KindRecordings.RecordingTrial;
import lychnos.server.kinds.KindRecordings.ToTry;
import lychnos.server.text.KindText;
import org.junit.jupiter.api.Test;

class KindRecordingsTest {

    private static final String KIND = "console-manager";
    private static final Dialogue DIALOGUE = KindReader.shipped(KIND).dialogue().orElseThrow();
    private static final String SHIPPED = Recording.shippedText(KIND).orElseThrow();

    private static List<RecordingTrial> tried(int most, String... texts) {
        return KindRecordings.tried(
                List.of(texts).stream()
                        .map(text -> new ToTry(null, "one", text))
                        .toList(),
                DIALOGUE,
                most);
    }

    @Test
    void saysOfEachWhetherItAgrees() {
        List<RecordingTrial> trials = tried(10_000, SHIPPED, "no recording", SHIPPED.replace("router=", "gate="));
        assertTrue(trials.get(0).agrees());
        assertTrue(
                Texts.says(
                        "core.kind.KindFileText.NO_HEADER",
                        trials.get(1).faults().get(0)),
                trials.get(1).toString());
        assertFalse(trials.get(2).agrees());
        assertEquals(1, trials.get(2).faults().size());
    }

    @Test
    void aPatternThatNeverEndsIsGivenUp() {
        String hostile = KindReader.asWritten(KIND)
                .replaceFirst("(?m)^  setup:$", "  setup:\n    - { asked: '/a*a*a*a*a*c/', answer: x }");
        String letters = "[0.1,\"o\",\"" + "a".repeat(400) + "\"]\n";
        RecordingTrial trial = KindRecordings.tried(
                        List.of(new ToTry(
                                null, "one", SHIPPED.replaceFirst("\n", "\n" + Matcher.quoteReplacement(letters)))),
                        KindReader.read(hostile).dialogue().orElseThrow())
                .get(0);
        assertTrue(
                trial.faults().stream().anyMatch(fault -> Texts.says("core.dialogue.DialogueText.PATTERN_SLOW", fault)),
                trial.toString());
    }

    @Test
    void whatIsTooLongTogetherIsNotPlayed() {
        int pieces = Recording.read(SHIPPED).heard().size();
        List<RecordingTrial> trials = tried(pieces * 2 - 1, SHIPPED, SHIPPED);
        assertTrue(trials.get(0).agrees());
        assertFalse(trials.get(1).agrees());
        assertEquals(List.of(KindText.WAS_NOT_PLAYED.text()), trials.get(1).faults());
    }
}
