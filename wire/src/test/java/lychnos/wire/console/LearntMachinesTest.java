package lychnos.wire.console;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.time.Duration;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import lychnos.core.address.Address;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.DialogueStep.Mark;
import lychnos.core.dialogue.Hold;
import lychnos.core.dialogue.Values;
import lychnos.core.fact.Secret;
import lychnos.core.kind.KindReader;
import lychnos.core.learn.Decisions;
import lychnos.core.learn.Draft;
import lychnos.core.learn.DraftYaml;
import lychnos.core.learn.LearnQuestion;
import lychnos.core.learn.Learner;
import lychnos.core.learn.SetupLog;
import lychnos.lab.Plug;
import lychnos.lab.console.ConsoleHall;
import lychnos.lab.console.ConsoleSpec;
import org.junit.jupiter.api.Test;

/**
 * One stand-in of each model that asks line by line is set up while its line is recorded with the keys; what is learnt
 * from that sets up a second one with other values.
 */
class LearntMachinesTest extends LinesStage {

    private static final List<String> MODELS = List.of(
            "sallow",
            "brathay",
            "skeggle",
            "mungris",
            "dunmail",
            "rossett",
            "rosthwaite",
            "loweswater",
            "crummock",
            "buttermere",
            "ullscarf");

    private static final int PATIENCE_SECONDS = 120;
    private static final Duration RESTART = Duration.ofMillis(1700);
    /** In the log a restart lasts as long as that of a quick machine. */
    private static final int SLOWER = 5;

    @Test
    void theSecondMachineOfEachModelIsSetUpWithWhatTheFirstOneTaught() throws Exception {
        List<ConsoleSpec> all = new ArrayList<>();
        for (int i = 0; i < MODELS.size(); i++) {
            all.add(spec(MODELS.get(i), 1 + i, "1"));
            all.add(spec(MODELS.get(i), 31 + i, "1"));
        }
        power(all.toArray(new ConsoleSpec[0]));
        bootedBeforeAnybodyComes(all);
        Map<String, Tape> tapes = new HashMap<>();
        Map<String, Engineer> firsts = new HashMap<>();
        for (int i = 0; i < MODELS.size(); i++) {
            Tape tape = new Tape();
            tapes.put(MODELS.get(i), tape);
            firsts.put(
                    MODELS.get(i),
                    engineer(all.get(2 * i)).heardBy(tape::heard, tape::typed).begin());
        }
        List<String> failures = new ArrayList<>();
        Map<String, Engineer> seconds = new HashMap<>();
        for (int i = 0; i < MODELS.size(); i++) {
            assertEquals(null, firsts.get(MODELS.get(i)).end(PATIENCE_SECONDS));
            seconds.put(
                    MODELS.get(i),
                    second(all.get(2 * i), all.get(2 * i + 1), tapes.get(MODELS.get(i)))
                            .begin());
        }
        for (int i = 0; i < MODELS.size(); i++) {
            String model = MODELS.get(i);
            try {
                // all of them work at the same time: what is not done soon after the first of them is stuck
                Hold hold = seconds.get(model).end(i == 0 ? PATIENCE_SECONDS : 20);
                if (hold != null) {
                    failures.add(model + " " + hold.why() + " " + hold.sentence() + " | " + hold.shown());
                }
            } catch (AssertionError e) {
                failures.add(model + " " + e.getMessage());
            }
            String serial = all.get(2 * i + 1).serial();
            assertEquals(Planned.refusedLogins(model), hall.kept(serial, "seen.refusedLogins"), model);
        }
        assertTrue(failures.isEmpty(), () -> String.join("\n", failures));
    }

    @Override
    ConsoleHall power(ConsoleSpec... specs) {
        super.power();
        hall = new ConsoleHall(List.of(specs), SERVER, Plug.loopback(), 8443, RESTART, null);
        open.add(hall);
        return hall;
    }

    /** A machine asks before its cable is plugged in, so the log shows the key that makes it speak. */
    private void bootedBeforeAnybodyComes(List<ConsoleSpec> specs) {
        long until = System.nanoTime() + TimeUnit.SECONDS.toNanos(PATIENCE_SECONDS);
        for (ConsoleSpec spec : specs) {
            while (!hall.asks(spec.serial())) {
                assertTrue(System.nanoTime() < until, () -> spec.model() + " does not ask");
                LockSupport.parkNanos(5_000_000);
            }
        }
    }

    private Engineer second(ConsoleSpec first, ConsoleSpec other, Tape tape) {
        Map<String, String> known = Planned.answered(first);
        Values values = Planned.values(first);
        lychnos.core.learn.Planned planned = new lychnos.core.learn.Planned(
                known, Map.of("factory.phrase", values.secret("factory.phrase").orElseThrow()));
        List<LearnQuestion> asked = new Learner(tape.log(), planned, first.serial(), Set.of(), Decisions.NONE)
                .draft()
                .questions();
        Learner learner = new Learner(tape.log(), planned, first.serial(), Set.of(), answered(asked));
        Draft draft = learner.draft();
        String kind = Planned.kind(first.model());
        // a line of another rate shows other signs
        String settings =
                KindReader.shipped(kind).dialogue().orElseThrow().line().toString();
        String yaml = DraftYaml.into(KindReader.asWritten(kind), draft, settings);
        Dialogue dialogue = hurried(KindReader.read(yaml).dialogue().orElseThrow());
        Engineer engineer = new Engineer(
                lines,
                LineAddress.tcp(LineAddress.Protocol.RFC2217, Address.parse(SERVER), other.port()),
                dialogue,
                Planned.member(other),
                learner.withLearnt(Planned.values(other)),
                Set.of());
        open.add(0, engineer);
        return engineer;
    }

    /** Every text is always so: the values that differ between both machines are planned. */
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

    /** What a line shows and what is typed, with its time. */
    private static final class Tape {
        private final long began = System.nanoTime();
        private final List<SetupLog.Piece> pieces = new ArrayList<>();

        private Duration at() {
            return Duration.ofNanos((System.nanoTime() - began) * SLOWER);
        }

        synchronized void heard(String text) {
            pieces.add(new SetupLog.Shown(at(), text));
        }

        synchronized void typed(Secret keys) {
            pieces.add(new SetupLog.Typed(at(), keys));
        }

        synchronized SetupLog log() {
            return SetupLog.of(pieces);
        }
    }
}
