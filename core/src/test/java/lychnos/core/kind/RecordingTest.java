package lychnos.core.kind;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import lychnos.core.dialogue.Conversation;
import lychnos.core.dialogue.DryRun;
import lychnos.core.dialogue.Screen;
import lychnos.core.text.Texts;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Every shipped description of a console, tried on the recording that is shipped with it. */
class RecordingTest {

    static Stream<Kind> withConsole() {
        List<Kind> kinds = KindReader.allShipped().stream()
                .filter(kind -> kind.dialogue()
                        .filter(dialogue -> !dialogue.setup().isEmpty())
                        .isPresent())
                .toList();
        assertTrue(kinds.size() >= 9, () -> "only " + kinds.size());
        return kinds.stream();
    }

    @ParameterizedTest
    @MethodSource("withConsole")
    void aShippedDescriptionAgreesWithItsRecording(Kind kind) {
        Recording recording = Recording.shipped(kind.id())
                .orElseThrow(() -> new AssertionError("no recording is shipped with " + kind.id()));
        assertEquals(kind.id(), recording.kind());
        DryRun.Report report = recording.tryOn(kind.dialogue().orElseThrow());
        assertEquals(List.of(), report.differences());
        assertEquals(List.of(), report.open());
        assertTrue(report.done().size() > 5, () -> report.done().toString());
        List<DryRun.Moment> moments = report.moments();
        for (int i = 0; i < report.steps().size(); i++) {
            int step = i;
            assertEquals(
                    report.steps().get(i).progress() == Conversation.Progress.DONE,
                    moments.stream().anyMatch(each -> each.step() == step && each.event() == DryRun.Event.DONE),
                    report.steps().get(i).title());
        }
        assertEquals(
                moments.stream().map(DryRun.Moment::at).sorted().toList(),
                moments.stream().map(DryRun.Moment::at).toList(),
                "in the order of time");
        assertTrue(moments.stream().allMatch(each -> each.screen().size() <= 2 * Screen.ROWS));
        assertTrue(moments.stream().noneMatch(each -> each.text().contains("blanked-in-recordings")), "no password");
    }

    @ParameterizedTest
    @MethodSource("withConsole")
    void anotherSerialIsAnotherMachine(Kind kind) {
        Recording recording = Recording.shipped(kind.id()).orElseThrow();
        Map<String, String> other = new HashMap<>(recording.values());
        other.put("serial", "XX-1");
        DryRun.Report report = new Recording(
                        recording.kind(), recording.member(), other, recording.secrets(), recording.heard())
                .tryOn(kind.dialogue().orElseThrow());
        assertFalse(report.agrees());
        assertTrue(
                Texts.says(
                        "core.dialogue.DialogueText.OTHER_MACHINE",
                        report.differences().get(0).sentence()),
                () -> report.differences().toString());
    }

    @Tag("wording")
    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "{}",
                "{\"version\": 1}",
                "[1]",
                "{\"version\": 2}",
                "{\"version\": 2, \"lychnos\": {}}\n[\"a\", \"o\", \"b\"]",
                "{\"version\": 2, \"lychnos\": {}}\n[1.0, \"o\"]",
                "{\"version\": 2, \"lychnos\": {}}\n[50000, \"o\", \"a\"]",
                "{\"version\": 2, \"lychnos\": {}}\n[-1, \"o\", \"a\"]",
                "{\"version\": 2, \"lychnos\": {}}\n!!java.net.URL [\"http://10.40.8.1\"]"
            })
    void saysWhatIsNoRecording(String text) {
        assertTrue(assertThrows(IllegalArgumentException.class, () -> Recording.read(text))
                .getMessage()
                .startsWith("Line "));
    }

    @Test
    void aMarkStandsWhereSomethingWasSent() {
        Recording recording = Recording.read(
                "{\"version\": 2, \"lychnos\": {\"kind\": \"brook\", \"values\": {\"n\": 5}}}\n[0.25, \"o\", "
                        + "\"a\\u001b[2J\"]\n[0.5, \"m\", \"name\"]\n[1, \"i\", \"x\\r\"]\n");
        assertEquals(Map.of("n", "5"), recording.values());
        assertEquals(
                List.of("a\u001b[2J", "", "x\r"),
                recording.heard().stream().map(DryRun.Heard::text).toList());
        assertEquals(250, recording.heard().get(0).at().toMillis());
    }
}
