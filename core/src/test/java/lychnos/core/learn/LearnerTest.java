package lychnos.core.learn;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import lychnos.core.Rounds;
import lychnos.core.dialogue.DialogueStep.Mark;
import lychnos.core.dialogue.DryRun;
import lychnos.core.fact.Secret;
import org.junit.jupiter.api.Test;

/** What is learnt from one machine sets up the next one of its sort. */
class LearnerTest {

    private static final int MACHINES = Rounds.of(20);
    private static final int MOST_QUESTIONS = 6;

    @Test
    void machinesThatNobodyHasSeenAreSetUpAfterTheFirstOne() {
        List<String> failures = new ArrayList<>();
        List<String> wrong = new ArrayList<>();
        for (long seed = 1; seed <= MACHINES; seed++) {
            Learnt learnt = new Learnt(seed).learn();
            if (learnt.yaml == null) {
                failures.add(seed + " is left with " + learnt.draft.questions());
                continue;
            }
            if (learnt.asked > MOST_QUESTIONS) {
                failures.add(seed + " asked " + learnt.asked + " questions: " + learnt.sorts);
            }
            DryRun.Report dry = learnt.dryRun();
            if (!dry.agrees()) {
                failures.add(seed + " open " + dry.open() + " differs " + dry.differences() + "\n" + learnt.yaml);
            }
            Learnt.Run run;
            try {
                run = learnt.run(2);
            } catch (RuntimeException e) {
                failures.add(seed + " " + e + "\n" + learnt.yaml);
                continue;
            }
            wrong.addAll(run.machine().wrong);
            wrong.addAll(run.machine().leaked);
            if (!run.unattended()) {
                failures.add(seed + " " + run.state() + " " + run.held() + " open " + run.open() + "\n" + learnt.yaml);
            }
        }
        assertEquals(List.of(), wrong, "answers to the wrong question, and passwords that were shown");
        assertTrue(
                failures.isEmpty(),
                () -> failures.size() + " failures, the first ones:\n"
                        + String.join("\n", failures.subList(0, Math.min(2, failures.size()))));
    }

    @Test
    void nothingThatWasTypedIsWrittenBeforeAPersonHasReleasedIt() {
        for (long seed = 1; seed <= MACHINES; seed++) {
            Learnt learnt = new Learnt(seed);
            String before = learnt.learner(Decisions.NONE).draft().toString();
            learnt.learn();
            String after = learnt.draft + learnt.yaml + learnt.learner.recording();
            for (String secret : List.of("blencathra", "Rq7tLm2xVz1", "mistyped")) {
                assertFalse(before.contains(secret), before);
                assertFalse(after.contains(secret), after);
            }
            for (String text : List.of("aisle two", "hall duty", "keeper")) {
                assertFalse(before.contains(text), before);
            }
        }
    }

    @Test
    void aMachineThatNeverSaysWhichOneItIsGivesNoDescription() {
        SetupLog log =
                SetupLog.of(List.of(shown(0, "\r\nname: "), typed(1, "ard-made-1\r"), shown(2, "ard-made-1\r\n")));
        Draft draft = new Learner(log, planned(), "MM-7001", Set.of(), Decisions.NONE).draft();
        assertEquals(
                LearnQuestion.QuestionSort.IDENTITY, draft.questions().get(0).sort());
        assertThrows(IllegalStateException.class, () -> DraftYaml.into(Learnt.KIND, draft, "9600 8N1"));
    }

    @Test
    void passwordsThatWereNotEqualAreLeftOutTogether() {
        SetupLog log = SetupLog.of(List.of(
                shown(0, "node MM-7001\r\npassword: "),
                typed(1, "one-of-two\r"),
                shown(2, "\r\nagain: "),
                typed(3, "two-of-two\r"),
                shown(4, "\r\nnot equal\r\npassword: "),
                typed(5, "both-the-same\r"),
                shown(6, "\r\nagain: "),
                typed(7, "both-the-same\r"),
                shown(8, "\r\nname: "),
                typed(9, "ard-made-1\r"),
                shown(10, "ard-made-1\r\nthank you\r\n")));
        Draft draft = new Learner(log, planned(), "MM-7001", Set.of(), Decisions.NONE).draft();
        assertEquals(
                List.of("{password}", "{password}", "{name}"),
                draft.steps().stream().map(LearntStep::answer).toList());
        assertEquals(Optional.of("/^ *(?<why>not +equal)/"), draft.refused());
    }

    @Test
    void anAnswerTypedBeforeTheQuestionWasDrawnAgainIsNoPassword() {
        SetupLog log = SetupLog.of(List.of(
                shown(0, "node MM-7001\r\nname: "),
                typed(1, "\f"),
                typed(1, "ard-made-1\r"),
                shown(2, "\r\nname: ard-made-1\r\nphase order: "),
                typed(3, "acb\r"),
                shown(4, "acb\r\nthank you\r\n")));
        Learner learner = new Learner(log, planned(), "MM-7001", Set.of(), Decisions.NONE);
        assertEquals("{name}", learner.draft().steps().get(0).answer());
        assertEquals(
                Optional.of("ard-made-1"), learner.lines().get(0).typed(), "it was shown behind the second question");
        assertEquals(List.of(), learner.lines().get(1).shown());
    }

    /** A refused name, and the right one typed before the machine has answered, in one piece or in several. */
    @Test
    void anAnswerTypedAheadAnswersTheQuestionThatComesAfterIt() {
        for (List<String> pieces : List.of(
                List.of("5\r\nnot taken: no such name\r\nname: ard-made-1\r\nphase order: "),
                List.of("5\r\nnot taken: no such name\r\n", "name: ", "ard-made-1\r\nphase order: "),
                List.of("5\r", "\nnot taken: no such name\r\nname: ", "ard-ma", "de-1\r\nphase order: "))) {
            List<SetupLog.Piece> log = new ArrayList<>(List.of(
                    shown(0, "node MM-7001\r\nname: "), typed(1, "5\r"), typed(1, "ard-"), typed(1, "made-1\r")));
            pieces.forEach(text -> log.add(shown(2, text)));
            log.addAll(List.of(typed(4, "acb\r"), shown(5, "acb\r\nthank you\r\n")));
            Learner learner = new Learner(SetupLog.of(log), planned(), "MM-7001", Set.of(), Decisions.NONE);
            assertEquals(
                    List.of("name:", "name:", "phase order:"),
                    learner.lines().stream()
                            .limit(3)
                            .map(line -> line.question().strip())
                            .toList(),
                    pieces::toString);
            List<LearntStep> steps = learner.draft().steps();
            assertEquals("{name}", steps.get(0).answer(), pieces::toString);
            assertEquals(2, steps.size(), () -> steps + " " + pieces);
        }
    }

    @Test
    void twoAnswersTypedAheadEachAnswerTheirQuestion() {
        SetupLog log = SetupLog.of(List.of(
                shown(0, "node MM-7001\r\nname: "),
                typed(1, "ard-made-1\racb\rhidden-7\r"),
                shown(2, "ard-made-1\r\nphase order, acb or abc: acb\r\nnew word: "),
                shown(3, "\r\nthank you\r\n")));
        Learner learner = new Learner(log, planned(), "MM-7001", Set.of(), Decisions.NONE);
        assertEquals(
                List.of("name:", "phase order, acb or abc:", "new word:"),
                learner.lines().stream()
                        .limit(3)
                        .map(line -> line.question().strip())
                        .toList());
        assertEquals(Optional.empty(), learner.lines().get(2).typed(), "a password");
    }

    @Test
    void whatIsTypedWhileTheMachineIsSilentIsNotLost() {
        SetupLog log =
                SetupLog.of(List.of(shown(0, "node MM-7001\r\nname: "), typed(1, "ard-made-1\r"), typed(2, "acb\r")));
        assertEquals(
                3,
                new Learner(log, planned(), "MM-7001", Set.of(), Decisions.NONE)
                        .lines()
                        .size());
    }

    @Test
    void whereAFactIsFoundAndWhatIsNotAlwaysAskedIsWrittenAsThePersonSays() {
        SetupLog log = SetupLog.of(List.of(
                shown(0, "node MM-7001\r\nname: "),
                typed(1, "ard-made-1\r"),
                shown(2, "ard-made-1\r\nphase order: "),
                typed(3, "acb\r"),
                shown(4, "acb\r\nthank you\r\n")));
        Decisions said = new Decisions(
                Map.of(1, Decisions.Meaning.FACT),
                true,
                Map.of(),
                Map.of(),
                Optional.of(Map.of(1, Set.of(Mark.OPTIONAL))),
                Map.of("phase-order", " order's sheet,\n page 2 "));
        Draft draft = new Learner(log, planned(), "MM-7001", Set.of(), said).draft();
        String yaml = DraftYaml.into(Learnt.KIND, draft, "9600 8N1");
        assertTrue(yaml.contains("find: 'order''s sheet, page 2'"), yaml);
        assertTrue(yaml.contains("answer: '{phase-order}', optional: yes"), yaml);
    }

    @Test
    void severalValuesThatAreEqualAreAsked() {
        Planned planned = new Planned(
                Map.of("name-server-1", "10.40.8.3", "time-server-1", "10.40.8.3", "name", "ard-made-1"), Map.of());
        SetupLog log = SetupLog.of(List.of(
                shown(0, "node MM-7001\r\nserver: "),
                typed(1, "10.40.8.3\r"),
                shown(2, "10.40.8.3\r\nclock: "),
                typed(3, "10.40.8.3\r"),
                shown(4, "10.40.8.3\r\nthank you\r\n")));
        Draft draft = new Learner(log, planned, "MM-7001", Set.of(), Decisions.NONE).draft();
        List<LearnQuestion> asked = draft.questions().stream()
                .filter(question -> question.sort() == LearnQuestion.QuestionSort.VALUE)
                .toList();
        assertEquals(
                List.of(List.of(0)), asked.stream().map(LearnQuestion::entries).toList());
        assertEquals("{time-server-1}", draft.steps().get(1).answer(), "its question says which one");
    }

    @Test
    void addressesOfEachRoleAreToldApart() {
        Planned planned = new Planned(
                Map.of(
                        "address",
                        "10.40.8.41",
                        "length",
                        "24",
                        "domain",
                        "ardal.example",
                        "manage.address",
                        "10.40.8.41",
                        "manage.length",
                        "24",
                        "files.address",
                        "10.40.16.20",
                        "files.length",
                        "24",
                        "files.name",
                        "ard-fil-1-files"),
                Map.of());
        assertEquals(
                "{address}/{length}",
                planned.whole("10.40.8.41/24", "address").orElseThrow().template());
        assertEquals(
                "{files.address}/{files.length}",
                planned.whole("10.40.16.20/24", "files").orElseThrow().template());
        assertEquals(
                "{files.name}.{domain}",
                planned.whole("ard-fil-1-files.ardal.example", "full name")
                        .orElseThrow()
                        .template());
    }

    @Test
    void aHostileLogIsCutOff() {
        String line = "\u001b[999999;1Hx".repeat(1000) + "y".repeat(9_000_000);
        SetupLog log = SetupLog.of(List.of(shown(0, "node MM-7001\r\nname: "), typed(1, "a\r"), shown(2, line)));
        assertFalse(log.complete());
        assertEquals(2, log.pieces().size());
        assertFalse(new Learner(log, planned(), "MM-7001", Set.of(), Decisions.NONE)
                .draft()
                .complete());
    }

    @Test
    void aSetupWithoutAnEndIsCutOff() {
        List<SetupLog.Piece> pieces = new ArrayList<>(List.of(shown(0, "node MM-7001\r\n")));
        for (int i = 1; i < 5_000; i++) {
            pieces.add(shown(i, "question " + i + ": "));
            pieces.add(typed(i, "answer " + i + "\r"));
            pieces.add(shown(i, "answer " + i + "\r\n"));
        }
        SetupLog log = SetupLog.of(pieces);
        assertFalse(log.complete());
        Draft draft = new Learner(log, planned(), "MM-7001", Set.of(), Decisions.NONE).draft();
        assertEquals(SetupLog.MOST_ENTERED, draft.steps().size());
    }

    private static Planned planned() {
        return new Planned(Map.of("name", "ard-made-1"), Map.of());
    }

    private static SetupLog.Piece shown(int second, String text) {
        return new SetupLog.Shown(Duration.ofSeconds(second), text);
    }

    private static SetupLog.Piece typed(int second, String keys) {
        return new SetupLog.Typed(Duration.ofSeconds(second), Secret.of(keys));
    }
}
