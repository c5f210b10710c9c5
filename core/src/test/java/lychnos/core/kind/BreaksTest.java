package lychnos.core.kind;

import static org.junit.jupiter.api.Assertions.assertTrue;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import lychnos.core.Rounds;
import lychnos.core.dialogue.Conversation;
import lychnos.core.dialogue.Conversation.Progress;
import lychnos.core.dialogue.Conversation.State;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.DialogueStep.Asked;
import lychnos.core.dialogue.DialogueStep.Mark;
import lychnos.core.dialogue.DialogueStep.Waits;
import lychnos.core.dialogue.DryRun.Heard;
import lychnos.core.dialogue.Effect;
import lychnos.core.dialogue.Hold;
import lychnos.core.dialogue.Hold.Why;
import lychnos.core.dialogue.Mode;
import lychnos.core.dialogue.Screen;
import lychnos.core.dialogue.Values;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * Every shipped dialogue, broken off at every moment of its recording: by a server or vantage that dies, or by a line
 * that goes down.
 * Part of what the machine says then is lost. Afterwards the setup ends right, or asks a person something that can be
 * answered; no answer goes out that the machine did not get when nothing was broken off.
 */
class BreaksTest {

    private static final Duration STEP = Duration.ofMillis(50);
    private static final Duration PATIENCE = Duration.ofMinutes(40);

    /** About as many moments of a setup are tried in a usual run. */
    private static final int MOST_MOMENTS = 30;

    static Stream<Kind> withConsole() {
        return RecordingTest.withConsole();
    }

    /** Why a person first makes the machine show again what it asks. */
    private static final Set<Why> DRAWN_AGAIN = Set.of(Why.SILENT, Why.UNFORESEEN, Why.OVERDUE, Why.NOT_SEEN);

    /** What is lost of what the machine says to the last answer. */
    private enum Lost {
        NOTHING,
        SECOND_HALF,
        EVERYTHING,
        THE_ANSWER_ITSELF
    }

    @ParameterizedTest
    @MethodSource("withConsole")
    void aSetupThatWasBrokenOffAnywhereCanBeEnded(Kind kind) {
        Dialogue dialogue = kind.dialogue().orElseThrow();
        Recording recording = Recording.shipped(kind.id()).orElseThrow();
        Play unbroken = new Play(dialogue, recording, null).toTheEnd();
        List<String> whole = unbroken.sent;
        assertTrue(whole.size() > 5, whole::toString);
        List<String> failures = new ArrayList<>();
        int tried = 0;
        for (int after = 1; after < whole.size(); after += apart(whole.size())) {
            for (Lost lost : Lost.values()) {
                if (lost == Lost.THE_ANSWER_ITSELF && isCommand(dialogue, recording, whole.get(after - 1))) {
                    continue; // nobody can tell whether it came to the machine: what it should have done is waited for
                }
                for (boolean dies : List.of(true, false)) {
                    Play play = new Play(dialogue, recording, whole).until(after, lost);
                    play.breakOff(dies);
                    play.toTheEnd();
                    tried++;
                    if (play.failure == null && !play.read.keySet().containsAll(unbroken.read.keySet())) {
                        play.failure = "what other members wait for was never told: " + unbroken.read.keySet();
                    }
                    if (play.failure != null) {
                        failures.add("after " + after + " of " + whole.size() + " answers, " + lost
                                + (dies ? ", killed: " : ", line down: ") + play.failure);
                    }
                }
            }
        }
        assertTrue(
                failures.isEmpty(),
                () -> kind.id() + ", " + failures.size() + " failures, the first ones:\n"
                        + String.join("\n", failures.subList(0, Math.min(6, failures.size()))));
        assertTrue(tried > 40, () -> kind.id() + " has too few moments to be broken off at");
    }

    /**
     * How far moments lie apart: a setup with cursor keys has a hundred and more, most of them alike. The long run tries
     * more moments.
     */
    private static int apart(int answers) {
        return Math.max(1, answers / Rounds.of(MOST_MOMENTS));
    }

    private static boolean isCommand(Dialogue dialogue, Recording recording, String sent) {
        return dialogue.setup().stream()
                .anyMatch(step -> step instanceof Asked asked
                        && asked.command()
                        && !asked.is(Mark.AGAIN)
                        && asked.answer()
                                .fill(recording.answers()::text)
                                .filter(answer -> sent.equals(answer + "\r"))
                                .isPresent());
    }

    /** A machine that says what it said in its recording, one answer after the other, and the conversation with it. */
    private static final class Play {
        private final Dialogue dialogue;
        private final Recording recording;
        private final Values values;
        /** What the machine says to each answer: at its beginning, then to the first answer, and so on. */
        private final List<List<Heard>> says = new ArrayList<>();

        private final List<String> expected;
        private final List<String> sent = new ArrayList<>();
        /** What stands on the machine's screen, seen or not. */
        private final Screen truth = new Screen();

        private final Map<String, String> read = new HashMap<>();
        private final StringBuilder keys = new StringBuilder();
        private Conversation conversation;
        private Instant now = Instant.parse("2026-11-23T09:00:00Z");
        private int answered;
        private List<Heard> due = new ArrayList<>();
        private Instant said = now;
        private Duration saidAt = Duration.ZERO;
        private String sinceAnswer = "";
        private String failure;
        private int decisions;
        private Hold drawnFor;
        /** After how many answers a login came first that must be refused; negative before that. */
        private int refusedAt = -1;
        /** A person has just agreed that what was sent before is sent again. */
        private boolean agreed;

        private int stopAfter = Integer.MAX_VALUE;
        private Lost lost = Lost.NOTHING;
        private boolean identified;
        private List<Progress> kept;
        private String keptShown = "";

        Play(Dialogue dialogue, Recording recording, List<String> expected) {
            this.dialogue = dialogue;
            this.recording = recording;
            this.values = recording.answers();
            this.expected = expected;
            says.add(new ArrayList<>());
            for (Heard heard : recording.heard()) {
                if (heard.fromMachine()) {
                    says.get(says.size() - 1).add(heard);
                } else {
                    says.add(new ArrayList<>());
                }
            }
            conversation = new Conversation(dialogue, recording.member(), values, Mode.RUN, now);
            due.addAll(says.get(0));
        }

        /** Plays until so many answers went out, and a part of what the machine said to the last one was seen. */
        Play until(int answers, Lost what) {
            stopAfter = answers;
            lost = what;
            run();
            return this;
        }

        Play toTheEnd() {
            stopAfter = Integer.MAX_VALUE;
            lost = Lost.NOTHING;
            run();
            return this;
        }

        /**
         * The work is taken up by another conversation that knows what was kept, or by this one on a line that is back.
         */
        void breakOff(boolean dies) {
            if (failure != null) {
                return;
            }
            now = now.plusSeconds(20);
            if (dies) {
                conversation = new Conversation(dialogue, recording.member(), values, Mode.RUN, now);
                if (identified || kept.stream().anyMatch(each -> each != Progress.OPEN)) {
                    conversation.resume(new Conversation.Left(false, identified, kept, read, keptShown), now);
                }
            } else {
                take(conversation.lineDown());
                take(conversation.lineUp(now));
            }
        }

        private void run() {
            Instant end = now.plus(PATIENCE);
            while (failure == null && conversation.state() != State.DONE && now.isBefore(end)) {
                if (answered >= stopAfter) {
                    loseAndStop();
                    return;
                }
                hear();
                take(conversation.tick(now));
                decide();
                now = now.plus(STEP);
            }
            if (failure == null && stopAfter == Integer.MAX_VALUE && conversation.state() != State.DONE) {
                failure = "never ended: " + conversation.state() + " " + conversation.hold();
            }
        }

        private void hear() {
            while (!due.isEmpty() && !said.plus(due.get(0).at().minus(saidAt)).isAfter(now)) {
                Heard next = due.remove(0);
                said = now;
                saidAt = next.at();
                show(next.text());
            }
        }

        private void show(String text) {
            truth.write(text);
            sinceAnswer += text;
            take(conversation.output(text, now));
        }

        /** The machine took the last answer, or did not; what of its words is lost is on its screen anyway. */
        private void loseAndStop() {
            kept = IntStream.range(0, conversation.steps().size())
                    .mapToObj(conversation::progress)
                    .toList();
            keptShown = sinceAnswer;
            List<Heard> rest = due;
            due = new ArrayList<>();
            if (lost == Lost.THE_ANSWER_ITSELF) {
                answered--;
                sent.remove(sent.size() - 1);
                due = new ArrayList<>();
            } else if (lost == Lost.EVERYTHING) {
                rest.forEach(heard -> truth.write(heard.text()));
            } else if (lost == Lost.SECOND_HALF) {
                for (Heard heard : rest) {
                    int half = heard.text().length() / 2;
                    show(heard.text().substring(0, half));
                    truth.write(heard.text().substring(half));
                    keptShown = sinceAnswer;
                }
                kept = IntStream.range(0, conversation.steps().size())
                        .mapToObj(conversation::progress)
                        .toList();
            } else {
                due = rest;
            }
        }

        private void take(List<Effect> effects) {
            for (Effect effect : effects) {
                if (effect instanceof Effect.Send send) {
                    machineGets(send.text());
                } else if (effect instanceof Effect.SendSecret secret) {
                    if (mustBeRefused(secret.step())) {
                        refusedAt = refusedAt < 0 ? answered : refusedAt;
                        answered = refusedAt; // a second time the machine refuses it as it did the first time
                        sent.subList(answered, sent.size()).clear();
                    }
                    machineGets("a password\r");
                } else if (effect instanceof Effect.Read each) {
                    read.put(each.name(), each.value());
                } else if (effect instanceof Effect.Identified) {
                    identified = true;
                }
            }
        }

        private boolean mustBeRefused(int step) {
            return conversation.steps().get(step) instanceof Asked asked && asked.is(Mark.MUST_BE_REFUSED);
        }

        private void machineGets(String text) {
            if (changesNothing(text) || agreed) {
                rewind(text);
            }
            if (expected != null
                    && (answered >= expected.size()
                            || !expected.get(answered).equals(text) && !typesWhatIsSuggested(text))) {
                if (text.equals(dialogue.nudge())) {
                    nudged();
                } else if (dialogue.setup().stream()
                        .anyMatch(step -> step instanceof Waits waits && text.equals(waits.asks() + "\r"))) {
                    says.get(answered).forEach(heard -> show(heard.text())); // how far it is
                } else if (failure == null) {
                    failure = "sent “" + printable(text) + "” where the machine got “"
                            + (answered < expected.size() ? printable(expected.get(answered)) : "nothing more")
                            + "”; its screen:\n"
                            + String.join("\n", truth.window()).strip();
                }
                return;
            }
            sent.add(text);
            answered++;
            sinceAnswer = "";
            said = now;
            due = new ArrayList<>(answered < says.size() ? says.get(answered) : List.of());
            saidAt = due.isEmpty() ? Duration.ZERO : due.get(0).at();
        }

        /** The planned value typed out, where the machine suggests it and Enter alone would do. */
        private boolean typesWhatIsSuggested(String text) {
            List<String> window = truth.window();
            return expected.get(answered).equals("\r")
                    && window.get(window.size() - 1).contains("[" + text.strip() + "]");
        }

        private void nudged() {
            int first = expected.indexOf(dialogue.nudge());
            if (first >= 0 && answered == first + 1) {
                says.get(answered).forEach(heard -> show(heard.text()));
            } else {
                drawAgain();
            }
        }

        /** A command that is sent a second time, where it may be; the machine says the same as the first time. */
        private void rewind(String text) {
            int at = agreed && expected != null
                    ? expected.subList(0, Math.min(answered, expected.size())).lastIndexOf(text)
                    : answered - 1;
            while (expected != null
                    && at > 0
                    && at < expected.size()
                    && !expected.get(at).endsWith("\r")) {
                at--; // keys that go on where its output fills the screen
            }
            if (expected != null
                    && at >= 0
                    && expected.get(at).equals(text)
                    && (answered >= expected.size() || !expected.get(answered).equals(text))) {
                agreed = false;
                answered = at;
                sent.subList(at, sent.size()).clear();
            }
        }

        private boolean changesNothing(String text) {
            return dialogue.setup().stream()
                    .anyMatch(step -> step instanceof Asked asked
                            && asked.is(Mark.AGAIN)
                            && asked.answer()
                                    .fill(values::text)
                                    .filter(answer -> text.equals(answer + "\r"))
                                    .isPresent());
        }

        private static String printable(String text) {
            return text.replace("\033", "ESC").replace("\r", "⏎").replace("\f", "^L");
        }

        /** What a person decides and does at the bench. */
        private void decide() {
            Hold hold = conversation.hold().orElse(null);
            if (hold == null) {
                return;
            }
            if (++decisions > 60) {
                failure = "asks again and again: " + hold;
            } else if (DRAWN_AGAIN.contains(hold.why()) && hold != drawnFor) {
                drawnFor = hold;
                now = now.plusSeconds(5);
                drawAgain();
                IntStream.range(0, 60).forEach(i -> take(conversation.tick(now = now.plus(STEP))));
            } else if (hold.why().passable()) {
                agreed |= hold.why() == Why.SENT_BEFORE;
                take(conversation.goOn(hold.typed(), now));
            } else {
                failure = hold.why() + ": " + hold.sentence() + "; its screen:\n"
                        + String.join("\n", truth.window()).strip();
            }
        }

        /** A page is drawn whole, a line once more. */
        private void drawAgain() {
            boolean pages =
                    dialogue.setup().stream().anyMatch(step -> step instanceof Asked asked && asked.row() != null);
            if (!pages) {
                List<String> window = truth.since(truth.windowTop());
                String last = window.isEmpty() ? "" : window.get(window.size() - 1);
                show("\r\n" + last);
                return;
            }
            StringBuilder page = new StringBuilder("\033[2J");
            List<String> window = truth.window();
            List<String> marked = truth.markedText();
            for (int i = 0; i < window.size(); i++) {
                String row = window.get(i);
                boolean reverse = !row.isBlank() && marked.stream().anyMatch(row::contains);
                page.append("\033[")
                        .append(i + 1)
                        .append(";1H")
                        .append(reverse ? "\033[7m" : "")
                        .append(row)
                        .append("\033[0m");
            }
            long at = truth.cursor().row() - truth.windowTop().row() + 1;
            show(page.append("\033[")
                    .append(at)
                    .append(';')
                    .append(truth.cursor().column() + 1)
                    .append('H')
                    .toString());
        }
    }
}
