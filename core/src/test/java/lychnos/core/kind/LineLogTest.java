package lychnos.core.kind;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTimeoutPreemptively;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.DryRun;
import lychnos.core.text.Texts;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What other programs have kept of a console serves as well as a recording of our own. */
class LineLogTest {

    private static Recording imported(Recording own, String text, String timing) {
        Dialogue dialogue = KindReader.shipped(own.kind()).dialogue().orElseThrow();
        return Recording.imported(text, timing, dialogue, own.member(), own.values(), own.secrets());
    }

    private static String shown(Recording recording) {
        return recording.heard().stream()
                .filter(DryRun.Heard::fromMachine)
                .map(DryRun.Heard::text)
                .collect(Collectors.joining());
    }

    /** Kinds whose consoles ask line by line: cursor keys and silent keys leave no trace in a plain log. */
    @ParameterizedTest
    @ValueSource(strings = {"console-manager", "interconnect-pair", "fabric-controller"})
    void aPlainLogAgreesAsTheRecordingDoes(String kind) {
        Recording own = Recording.shipped(kind).orElseThrow();
        DryRun.Report report = imported(own, shown(own).replace("\r\n", "\n"), "")
                .tryOn(KindReader.shipped(kind).dialogue().orElseThrow());
        assertEquals(List.of(), report.differences());
        assertEquals(List.of(), report.open());
    }

    @Test
    void aLogWithItsTimingIsPlayedAsItWas() {
        Recording own = Recording.shipped("console-manager").orElseThrow();
        StringBuilder timing = new StringBuilder();
        StringBuilder text = new StringBuilder("Script started on 2026-11-30\n");
        Duration before = Duration.ZERO;
        for (DryRun.Heard heard : own.heard()) {
            if (heard.fromMachine()) {
                timing.append(heard.at().minus(before).toMillis() / 1000.0)
                        .append(' ')
                        .append(heard.text().length())
                        .append('\n');
                before = heard.at();
                text.append(heard.text());
            }
        }
        Recording read = imported(own, text.toString(), timing.toString());
        assertEquals(shown(own), shown(read));
        assertTrue(read.tryOn(KindReader.shipped("console-manager").dialogue().orElseThrow())
                .agrees());
        String wrong = assertThrows(IllegalArgumentException.class, () -> imported(own, text.toString(), "0.1 5\nx"))
                .getMessage();
        assertTrue(wrong.equals(KindFileText.TIMING_LINE.text(2)), wrong);
    }

    @Test
    void aCastOfAnotherProgramHasNoValuesOfItsOwn() {
        Recording own = Recording.shipped("console-manager").orElseThrow();
        List<String> lines = new ArrayList<>(
                Recording.shippedText("console-manager").orElseThrow().lines().toList());
        lines.set(0, "{\"version\": 2, \"width\": 80, \"height\": 25}");
        Recording read = imported(own, String.join("\n", lines), "");
        assertTrue(read.tryOn(KindReader.shipped("console-manager").dialogue().orElseThrow())
                .agrees());
        Map<String, String> others = new HashMap<>(own.values());
        others.put("serial", "XX-1");
        DryRun.Report report = Recording.imported(
                        String.join("\n", lines),
                        "",
                        KindReader.shipped("console-manager").dialogue().orElseThrow(),
                        "",
                        others,
                        Set.of())
                .tryOn(KindReader.shipped("console-manager").dialogue().orElseThrow());
        assertTrue(
                Texts.says(
                        "core.dialogue.DialogueText.OTHER_MACHINE",
                        report.differences().get(0).sentence()),
                report.differences()::toString);
    }

    /** A file from anywhere: the longest that is taken is read within seconds, whatever is in it. */
    @Test
    void aHostileLogIsReadInTime() {
        Recording own = Recording.shipped("console-manager").orElseThrow();
        assertTimeoutPreemptively(Duration.ofSeconds(20), () -> {
            assertEquals(1, imported(own, "x: ".repeat(600_000), "").heard().size());
            assertTrue(imported(own, ("dunmail> ".repeat(20) + "\n").repeat(10_000), "")
                            .heard()
                            .size()
                    <= 20_001);
            assertEquals(3, imported(own, "\0\0\n\u001b[2J\n", "").heard().size());
        });
    }

    @Test
    void anEmptyFileIsNone() {
        Recording own = Recording.shipped("console-manager").orElseThrow();
        assertThrows(IllegalArgumentException.class, () -> imported(own, " \n", ""));
    }
}
