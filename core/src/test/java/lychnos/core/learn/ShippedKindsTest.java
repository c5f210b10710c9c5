package lychnos.core.learn;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.DialogueStep;
import lychnos.core.dialogue.DialogueStep.Asked;
import lychnos.core.dialogue.DialogueStep.Mark;
import lychnos.core.dialogue.DryRun;
import lychnos.core.fact.Secret;
import lychnos.core.kind.Kind;
import lychnos.core.kind.KindReader;
import lychnos.core.kind.Recording;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * The recordings that are shipped, with the keys that a person would have typed, teach a dialogue that does the same
 * again: for every kind that asks on a console, apart from those with pages that are worked with cursor keys.
 */
class ShippedKindsTest {

    private static final Path GUIDE = Path.of("../docs/learning.md");
    private static final String PASSWORD = "Vb6nKw3sXd";
    private static final int MOST_QUESTIONS = 6;

    static Stream<Kind> askingLineByLine() {
        return KindReader.allShipped().stream()
                .filter(kind -> Recording.shipped(kind.id()).isPresent())
                .filter(kind -> kind.dialogue().orElseThrow().setup().stream()
                        .noneMatch(step -> step instanceof Asked asked && asked.row() != null));
    }

    @ParameterizedTest
    @MethodSource("askingLineByLine")
    void aRecordingTeachesADialogueThatPassesIt(Kind kind) throws IOException {
        Recording recording = Recording.shipped(kind.id()).orElseThrow();
        SetupLog log = typed(kind.dialogue().orElseThrow(), recording);
        Planned planned = new Planned(recording.values(), Map.of());
        String serial = recording.values().get("serial");
        List<LearnQuestion> asked = new Learner(log, planned, serial, Set.of(), Decisions.NONE)
                .draft()
                .questions();
        Learner learner = new Learner(log, planned, serial, Set.of(), answered(asked));
        Draft draft = learner.draft();
        String yaml = DraftYaml.into(KindReader.asWritten(kind.id()), draft, "9600 8N1");
        DryRun.Report report = learner.tryOn(KindReader.read(yaml).dialogue().orElseThrow(), recording.answers());
        assertTrue(report.agrees(), () -> report.open() + " " + report.differences() + "\n" + yaml);
        assertFalse(yaml.contains(PASSWORD) || draft.toString().contains(PASSWORD));
        assertTrue(asked.size() <= MOST_QUESTIONS, asked::toString);
        int steps = draft.logIn().size() + draft.steps().size();
        String row = "| %s | %d | %d |".formatted(kind.id(), asked.size(), steps);
        assertEquals(List.of(row), rows(kind.id()), "the table of the guide");
    }

    private static List<String> rows(String kind) throws IOException {
        return Files.readAllLines(GUIDE).stream()
                .filter(line -> line.startsWith("| " + kind + " |"))
                .toList();
    }

    /** Everything is always so, and nothing is permanent: what else a person would say changes no answer here. */
    private static Decisions answered(List<LearnQuestion> questions) {
        Map<Integer, Decisions.Meaning> texts = new HashMap<>();
        Map<Integer, String> values = new HashMap<>();
        Map<Integer, Set<Mark>> marks = new HashMap<>();
        for (LearnQuestion question : questions) {
            switch (question.sort()) {
                case TEXT -> texts.put(question.entries().get(0), Decisions.Meaning.ALWAYS);
                case VALUE ->
                    values.put(question.entries().get(0), question.options().get(0));
                case MARKS -> question.entries().forEach(entry -> marks.put(entry, EnumSet.noneOf(Mark.class)));
                default -> {
                    // commands hold no password here
                }
            }
        }
        return new Decisions(texts, true, Map.of(), values, Optional.of(marks), Map.of());
    }

    /** The recording with its keys: what the shipped dialogue sends, and a space where a page is turned. */
    private static SetupLog typed(Dialogue dialogue, Recording recording) {
        List<String> sent = new ArrayList<>();
        List<DialogueStep> steps = dialogue.steps(recording.member(), false);
        recording.tryOn(dialogue).moments().stream()
                .filter(moment -> moment.event() == DryRun.Event.SENT)
                .forEach(moment -> sent.add(keys(steps.get(moment.step()), moment.text())));
        List<SetupLog.Piece> pieces = new ArrayList<>();
        int next = 0;
        String before = "";
        for (DryRun.Heard heard : recording.heard()) {
            String shown = before;
            if (heard.fromMachine()) {
                pieces.add(new SetupLog.Shown(heard.at(), heard.text()));
                before = heard.text();
            } else if (dialogue.paging().keySet().stream().anyMatch(page -> page.in(shown))) {
                pieces.add(new SetupLog.Typed(heard.at(), Secret.of(" ")));
            } else if (next < sent.size()) {
                pieces.add(new SetupLog.Typed(heard.at(), Secret.of(sent.get(next++) + "\r")));
            }
        }
        return SetupLog.of(pieces);
    }

    /** No recording has a password: what was typed there is another one for each that is meant. */
    private static String keys(DialogueStep step, String sent) {
        return step instanceof Asked asked && asked.is(Mark.SECRET)
                ? PASSWORD + Math.abs(asked.answer().text().hashCode())
                : sent;
    }
}
