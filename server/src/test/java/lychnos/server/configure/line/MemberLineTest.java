package lychnos.server.configure.line;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.stream.Collectors;
import lychnos.core.address.Address;
import lychnos.core.dialogue.AgreedTerms;
import lychnos.core.dialogue.Conversation.Progress;
import lychnos.core.dialogue.Conversation.State;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.DialogueStep.Mark;
import lychnos.core.dialogue.LineSettings;
import lychnos.core.dialogue.Mode;
import lychnos.core.fact.Secret;
import lychnos.core.kind.KindReader;
import lychnos.core.sheet.MemberValues;
import lychnos.core.sheet.UnitFacts;
import lychnos.core.text.Texts;
import lychnos.server.configure.model.Change;
import lychnos.server.configure.model.ConsoleReader;
import lychnos.server.configure.model.MemberDialogue;
import lychnos.server.configure.plan.ConsoleLines;
import lychnos.server.jobs.Held;
import lychnos.server.jobs.HoldLost;
import lychnos.server.text.ConfigureText;
import lychnos.server.time.FakeClockwork;
import lychnos.wire.console.ConsoleLine;
import lychnos.wire.console.LineAddress;
import lychnos.wire.fault.WireFault;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** One line with a machine that is played by hand, a clock that is turned by hand, and a database that may be away. */
class MemberLineTest {

    private static final Secret OURS = Secret.of("Hn4tRb7sLxVc");
    private static final String GREETING = "\r\nTARN interconnect, serial TN-7, blank\r\nNew word: ";

    private final FakeClockwork clockwork = new FakeClockwork();
    private final List<String> sent = new ArrayList<>();
    private final List<Change> saved = new ArrayList<>();
    private final List<Change.RecordingPiece> recorded = new ArrayList<>();
    private final List<String> shown = new ArrayList<>();
    private final List<LineStanding> standings = new ArrayList<>();
    private int opened;
    private boolean unreachable;
    private RuntimeException databaseAway;
    private boolean takenOver;
    private boolean lost;
    private boolean done;
    private MemberLine line;

    private static Dialogue dialogue() {
        return TarnDialogue.of(
                List.of(
                        TarnDialogue.asked("new password", "New word:", "{ours}", Mark.SECRET),
                        TarnDialogue.asked("address", "Address", "{address}")),
                List.of());
    }

    private final class FakeLine implements ConsoleLine {

        @Override
        public void send(byte[] bytes) {
            sent.add(new String(bytes, StandardCharsets.ISO_8859_1));
        }

        @Override
        public void sendBreak() {
            sent.add("<break>");
        }

        @Override
        public void resize(int columns, int rows) {}

        @Override
        public void close() {
            sent.add("<closed>");
        }
    }

    private final class Around implements LineSurroundings {

        @Override
        public void save(Held held, Change change, List<Change.RecordingPiece> pieces) throws HoldLost {
            if (takenOver) {
                throw new HoldLost("another server has this unit");
            }
            if (databaseAway != null) {
                throw databaseAway;
            }
            saved.add(change);
            recorded.addAll(pieces);
        }

        @Override
        public void save(Held held, List<Change.RecordingPiece> pieces) {}

        @Override
        public ConsoleLine open(MemberLine opening) throws WireFault {
            opened++;
            if (databaseAway != null) {
                throw databaseAway; // whether the key of the console server is known is asked there
            }
            if (unreachable) {
                throw new WireFault(WireFault.Kind.SILENT, "The console server does not answer.");
            }
            return new FakeLine();
        }

        @Override
        public void told(OpenLine from, String name, String value) {}

        @Override
        public void identified(OpenLine from) {}

        @Override
        public void done(OpenLine from) {
            done = true;
        }

        @Override
        public void lost(OpenLine from) {
            lost = true;
        }

        @Override
        public boolean trusts(String server, String fingerprint) {
            return true;
        }
    }

    @BeforeEach
    void makeLine() {
        makeLine(dialogue());
    }

    private void makeLine(Dialogue dialogue) {
        MemberDialogue row = new MemberDialogue();
        row.id = 7L;
        row.member = "left";
        row.mode = Mode.RUN;
        row.state = MemberDialogue.DialogueState.UNSURE;
        MemberValues values = new MemberValues(
                UnitFacts.resolve(KindReader.shipped("interconnect-pair"), 2, Map.of(), Map.of()),
                "left",
                "ard-fic-1",
                List.of(),
                Map.of("serial", "TN-7", "address", "10.40.8.41"),
                Map.of(),
                Map.of("ours", OURS),
                AgreedTerms.toTheFirst());
        line = new MemberLine(
                new Held(1, 2, 3, "console", 4),
                new ConsoleReader.KeptDialogue(row, List.of(Progress.OPEN, Progress.OPEN), Map.of(), "", "", 0),
                new ConsoleLines.OpenableLine(
                        LineAddress.tcp(LineAddress.Protocol.RAW, Address.parse("127.40.8.22"), 2001), "lines-1 2001"),
                dialogue,
                values,
                new Around(),
                Runnable::run,
                clockwork,
                clockwork.clock());
        line.watch(new Onlooker() {
            @Override
            public void shown(String text) {
                shown.add(text);
            }

            @Override
            public void changed(LineStanding standing) {
                standings.add(standing);
            }
        });
    }

    private void says(String text) {
        line.received(text.getBytes(StandardCharsets.ISO_8859_1));
    }

    private void after(double seconds) {
        clockwork.advance(Duration.ofMillis((long) (seconds * 1000)));
    }

    private void up() {
        line.open();
        line.up();
    }

    private static Optional<String> answer(CompletableFuture<Optional<String>> decision) {
        assertTrue(decision.isDone(), "decided at once");
        return decision.join();
    }

    @Test
    void answersAndEndsAndKeepsEachAnswerBeforeItIsSent() {
        up();
        says(GREETING);
        after(1);
        assertEquals(List.of("Hn4tRb7sLxVc\r"), sent);
        Change change = saved.get(saved.size() - 1);
        assertEquals(List.of("ours"), change.answered().tries());
        assertTrue(
                change.answered().sends().containsKey(0)
                        && change.answered().sends().get(0) == null,
                "no password is kept");
        says("\r\nAddress [none]: ");
        after(1);
        assertEquals("10.40.8.41\r", sent.get(1));
        assertEquals(
                "10.40.8.41", saved.get(saved.size() - 1).answered().sends().get(1));
        says("10.40.8.41\r\ntarn# ");
        after(5);
        assertTrue(done);
        assertEquals(State.DONE, saved.get(saved.size() - 1).stands().state());
    }

    @Test
    void theMachinesOwnLogIsSavedOnce() {
        up();
        says("\r\nTARN interconnect, serial TN-7, blank\r\nWhich tarn# ");
        after(5);
        assertEquals(State.HELD, saved.get(saved.size() - 1).stands().state(), "nobody described that question");
        assertEquals(Optional.empty(), answer(line.fetchLog("ardal-one")));
        assertEquals(List.of("log show\r"), sent);
        says("log show\r\nfan 2 stands still\r\nWhich tarn# ");
        after(5);
        assertEquals(
                List.of("fan 2 stands still\n"),
                saved.stream().map(Change::log).filter(log -> !log.isEmpty()).toList());
        assertEquals(Optional.empty(), answer(line.fetchLog("ardal-one")), "it can be fetched again");
        assertTrue(Texts.says(
                ConfigureText.HAS_THE_KEYBOARD_OF_THIS_LINE,
                answer(line.fetchLog("ardal-two")).orElseThrow()));
    }

    @Test
    void aMachineAtAnotherRateIsToldFromOneThatIsNotKnown() {
        up();
        says("\u00cd");
        after(8);
        assertEquals(State.HELD, saved.get(saved.size() - 1).stands().state());
        assertEquals(
                ConfigureText.LINE_PROBABLY_OTHER_RATE.text(dialogue().line()),
                saved.get(saved.size() - 1).stands().note());
        says("\r\nSome other machine, asking: ");
        line.again("ardal-one");
        after(8);
        assertEquals("", saved.get(saved.size() - 1).stands().note());
    }

    @Test
    void nothingIsSentWhileTheDatabaseIsAway() {
        up();
        databaseAway = new IllegalStateException("no connection");
        says(GREETING);
        after(30);
        assertEquals(List.of(), sent);
        databaseAway = null;
        after(2);
        assertEquals(List.of("Hn4tRb7sLxVc\r"), sent);
    }

    @Test
    void nothingIsSentOnceAnotherServerHasTheUnit() {
        up();
        takenOver = true;
        says(GREETING);
        after(30);
        assertEquals(List.of(), sent);
        assertTrue(lost);
    }

    @Test
    void onlookersSeeAtOnceWhatIsShownAndNoPassword() {
        up();
        says("\r\nTARN inter");
        assertEquals("\r\nTARN inter", String.join("", shown), "without waiting for a look or the database");
        says("Hn4tRb7s");
        assertFalse(String.join("", shown).contains("Hn4"), "it may become a password");
        says("LxVc ");
        after(1);
        assertTrue(String.join("", shown).contains("•••"), () -> String.join("", shown));
        assertFalse(String.join("", shown).contains("Hn4tRb7sLxVc"));
    }

    @Test
    void aLineThatCannotBeOpenedIsTriedAgainLessAndLessOften() {
        unreachable = true;
        line.open();
        assertEquals(1, opened);
        after(1.5);
        assertEquals(2, opened);
        after(60);
        assertTrue(opened >= 8 && opened <= 12, () -> "opened " + opened + " times");
        assertEquals(
                "The console server does not answer.",
                standings.get(standings.size() - 1).note());
        unreachable = false;
        after(10);
        line.up();
        assertTrue(standings.get(standings.size() - 1).lineUp());
    }

    @Test
    void aLineThatCannotBeOpenedForAReasonOfOurOwnIsTriedAgain() {
        databaseAway = new IllegalStateException("no connection");
        line.open();
        databaseAway = null;
        after(3);
        assertTrue(opened >= 2, () -> "opened " + opened + " times");
        line.up();
        assertTrue(standings.get(standings.size() - 1).lineUp());
    }

    @Test
    void whoeverComesFirstHasTheKeyboardUntilAnotherTakesIt() {
        up();
        assertEquals(Optional.empty(), answer(line.mode(Mode.WATCH, "rack-one")));
        assertEquals(
                Optional.of(ConfigureText.HAS_THE_KEYBOARD_OF_THIS_LINE.text("rack-one")),
                answer(line.typed("x", "night-shift")));
        line.take("night-shift");
        assertEquals(Optional.empty(), answer(line.typed("x", "night-shift")));
        assertEquals(List.of("x"), sent);
    }

    @Test
    void anyoneStopsItAtOnceAndAPersonStartsItAgain() {
        up();
        line.halt("night-shift");
        says(GREETING);
        after(30);
        assertEquals(List.of(), sent);
        assertEquals(
                ConfigureText.STOPPED.text("night-shift"),
                standings.get(standings.size() - 1).note());
        assertEquals(Optional.empty(), answer(line.again("rack-one")));
        says(GREETING);
        after(1);
        assertEquals(List.of("Hn4tRb7sLxVc\r"), sent);
    }

    @Test
    void aLineThatWasLetGoTakesNoMoreDecisions() {
        up();
        line.close();
        assertTrue(sent.contains("<closed>"));
        assertEquals(
                Optional.of(ConfigureText.LINE_IS_NO_LONGER_OPEN.text()), answer(line.mode(Mode.WATCH, "rack-one")));
    }

    @Test
    void aSetupByHandIsRecordedWithItsKeysAndEndsWhenThePersonSaysSo() {
        makeLine(Dialogue.byHand(LineSettings.USUAL));
        up();
        says(GREETING);
        after(60);
        assertEquals(List.of(), sent);
        assertEquals(Optional.empty(), answer(line.typed("10.40.", "rack-one")));
        assertEquals(Optional.empty(), answer(line.typeValue("address", "rack-one")));
        assertEquals(Optional.empty(), answer(line.typeValue("ours", "rack-one")));
        assertTrue(answer(line.typeValue("nothing", "rack-one")).isPresent());
        assertTrue(answer(line.typed("x", "rack-two")).isPresent(), "one person has the keyboard");
        assertEquals(List.of("10.40.", "10.40.8.41", "Hn4tRb7sLxVc"), sent);
        assertEquals(Optional.empty(), answer(line.finish("rack-one")));
        assertTrue(done);
        recorded.addAll(line.takePieces());
        assertEquals(GREETING, of('o'));
        assertEquals("10.40.10.40.8.41Hn4tRb7sLxVc", of('i'));
    }

    private String of(char kind) {
        return recorded.stream()
                .filter(piece -> piece.kind() == kind)
                .map(Change.RecordingPiece::text)
                .collect(Collectors.joining());
    }

    @Test
    void aSetupThatIsDescribedIsNotEndedByAPersonAndTypesNoValues() {
        up();
        says(GREETING);
        assertTrue(Texts.says(
                ConfigureText.SETUP_IS_NOT_BY_HAND,
                answer(line.finish("rack-one")).orElseThrow()));
        assertTrue(answer(line.typeValue("address", "rack-one")).isPresent());
        assertFalse(done);
    }
}
