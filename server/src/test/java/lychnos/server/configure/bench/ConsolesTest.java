package lychnos.server.configure.bench;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.ArgumentMatchers.contains;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.RETURNS_DEEP_STUBS;
import static org.mockito.Mockito.doReturn;
import static org.mockito.Mockito.doThrow;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.timeout;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import io.quarkus.runtime.ShutdownEvent;
import io.quarkus.runtime.StartupEvent;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import lychnos.core.address.Address;
import lychnos.core.dialogue.AgreedTerms;
import lychnos.core.dialogue.Conversation.Progress;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.LineSettings;
import lychnos.core.dialogue.Mode;
import lychnos.core.kind.KindReader;
import lychnos.core.sheet.MemberValues;
import lychnos.core.sheet.UnitFacts;
import lychnos.server.LychnosConfig;
import lychnos.server.allocate.FirstAddress;
import lychnos.server.configure.line.Cables;
import lychnos.server.configure.line.MemberLine;
import lychnos.server.configure.line.StepQueue;
import lychnos.server.configure.line.TarnDialogue;
import lychnos.server.configure.model.Change.RecordingPiece;
import lychnos.server.configure.model.ConsoleReader;
import lychnos.server.configure.model.ConsoleStore;
import lychnos.server.configure.model.LineKeys;
import lychnos.server.configure.model.MemberDialogue;
import lychnos.server.configure.model.SetupLogs;
import lychnos.server.configure.plan.ConsoleLines;
import lychnos.server.configure.plan.Openings;
import lychnos.server.jobs.Held;
import lychnos.server.jobs.Runs;
import lychnos.server.time.Clockwork;
import lychnos.server.vantage.Vantages;
import lychnos.wire.console.ConsoleLine;
import lychnos.wire.console.LineAddress;
import lychnos.wire.console.LineEvents;
import lychnos.wire.far.Codec;
import lychnos.wire.far.FarVantage;
import lychnos.wire.vantage.Vantage;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mockito.ArgumentCaptor;

/** What opens and ends the lines of a unit, when several things happen at once and when the database is away. */
class ConsolesTest {

    private static final long PATIENCE_MILLIS = 10_000;
    private static final Held HELD = new Held(1, 2, 3, ConsoleStore.CONSOLE, 4);
    private static final Held AGAIN = new Held(1, 2, 3, ConsoleStore.CONSOLE, 5);

    private final ConsoleStore store = mock(ConsoleStore.class);
    private final SetupLogs logs = mock(SetupLogs.class);
    private final Vantages vantages = mock(Vantages.class);
    private final ConsoleReader reader = mock(ConsoleReader.class);
    private final Openings openings = mock(Openings.class);
    private final Runs runs = mock(Runs.class);
    private final Vantage vantage = mock(Vantage.class);
    private final Clockwork clockwork = mock(Clockwork.class);
    private final ScheduledExecutorService alarms = mock(ScheduledExecutorService.class);
    private final AtomicInteger opened = new AtomicInteger();
    private final BlockingQueue<ConsoleLine> lines = new LinkedBlockingQueue<>();
    private volatile LineEvents heard;
    private Consoles consoles;

    @BeforeEach
    void begin() throws Exception {
        when(vantages.codec()).thenReturn(new Codec());
        when(vantages.farOf(any())).thenReturn(Optional.empty());
        when(clockwork.threads()).thenReturn(alarms);
        when(reader.members(HELD.runId())).thenReturn(1L);
        when(runs.claim(eq(ConsoleStore.CONSOLE), anyInt())).thenReturn(List.of(HELD));
        when(openings.of(HELD.runId(), HELD.unitId())).thenAnswer(call -> List.of(opening()));
        when(vantage.line(any(), any(), any())).thenAnswer(call -> {
            opened.incrementAndGet();
            ConsoleLine line = mock(ConsoleLine.class);
            heard = call.getArgument(2);
            lines.add(line);
            return line;
        });
        LychnosConfig config = mock(LychnosConfig.class, RETURNS_DEEP_STUBS);
        when(config.run().consoleWorkers()).thenReturn(4);
        consoles = new Consoles(
                store,
                logs,
                mock(LineKeys.class),
                reader,
                mock(StepQueue.class),
                openings,
                mock(FirstAddress.class),
                runs,
                vantage,
                vantages,
                mock(Cables.class),
                config,
                Clock.systemUTC(),
                clockwork);
        consoles.start(new StartupEvent());
    }

    @AfterEach
    void end() {
        consoles.stop(new ShutdownEvent());
    }

    private static Openings.LineOpening opening() {
        return opening(TarnDialogue.of(List.of(TarnDialogue.asked("log-in", "name:", "x")), List.of()));
    }

    private static Openings.LineOpening opening(Dialogue dialogue) {
        MemberDialogue row = new MemberDialogue();
        row.id = 7L;
        row.member = "left";
        row.mode = Mode.RUN;
        row.note = "";
        row.prerequisite = "";
        row.state = MemberDialogue.DialogueState.SHUT;
        MemberValues values = new MemberValues(
                UnitFacts.resolve(KindReader.shipped("interconnect-pair"), 2, Map.of(), Map.of()),
                "left",
                "ard-fic-1",
                List.of(),
                Map.of(),
                Map.of(),
                Map.of(),
                AgreedTerms.NONE);
        return new Openings.LineOpening(
                new ConsoleReader.KeptDialogue(row, List.of(Progress.OPEN), Map.of(), "", "", 0),
                dialogue,
                "",
                values,
                Optional.of(new ConsoleLines.OpenableLine(
                        LineAddress.tcp(LineAddress.Protocol.RAW, Address.parse("10.40.8.9"), 7001), "port 1")));
    }

    /** What the server does every moment to find units that were started. */
    private void claim() {
        regularly("claimed");
    }

    private void regularly(String about) {
        ArgumentCaptor<Runnable> work = ArgumentCaptor.forClass(Runnable.class);
        verify(clockwork).every(any(), contains(about), work.capture());
        work.getValue().run();
    }

    @Test
    void aLineIsOpenedOnceHoweverManyLookAtTheSameMoment() throws Exception {
        CountDownLatch looking = new CountDownLatch(1);
        CountDownLatch goOn = new CountDownLatch(1);
        when(openings.of(HELD.runId(), HELD.unitId()))
                .thenAnswer(call -> {
                    looking.countDown();
                    goOn.await(PATIENCE_MILLIS, TimeUnit.MILLISECONDS);
                    return List.of(opening());
                })
                .thenAnswer(call -> List.of(opening()));
        claim();
        looking.await(PATIENCE_MILLIS, TimeUnit.MILLISECONDS);
        consoles.lookAgain(HELD.runId()); // two ticks, while the first look still reads
        consoles.lookAgain(HELD.runId());
        goOn.countDown();
        verify(store, timeout(PATIENCE_MILLIS).times(2)).endOrMeetPrerequisites(HELD);
        verify(vantage, timeout(PATIENCE_MILLIS)).line(any(), any(), any());
        assertEquals(1, opened.get());
    }

    @Test
    void aLineThatCouldNotBeNotedIsOpenedTheNextTime() throws Exception {
        doThrow(new IllegalStateException("the database is away"))
                .doNothing()
                .when(store)
                .opened(any(), any(), eq(false));
        claim();
        againAfterAMoment();
        verify(vantage, timeout(PATIENCE_MILLIS)).line(any(), any(), any());
    }

    @Test
    void aSetupEndsAlthoughTheDatabaseWasAway() throws Exception {
        when(store.endOrMeetPrerequisites(HELD))
                .thenThrow(new IllegalStateException("the database is away"))
                .thenReturn(true);
        claim();
        consoles.lookAgain(HELD.runId());
        againAfterAMoment();
        verify(store, timeout(PATIENCE_MILLIS).times(2)).endOrMeetPrerequisites(HELD);
        verify(alarms, timeout(PATIENCE_MILLIS)).schedule(any(Runnable.class), anyLong(), eq(TimeUnit.MILLISECONDS));
    }

    @Test
    void aServerThatTakesItsOwnSetupUpAgainHasOneLine() throws Exception {
        claim();
        ConsoleLine earlier = opened();
        ConsoleLine now = takenUpAgain();
        verify(earlier, timeout(PATIENCE_MILLIS)).close();
        verify(now, never()).close();
    }

    @Test
    void anEarlierHoldThatIsFoundLostLeavesTheNewOneOpen() throws Exception {
        claim();
        opened();
        ConsoleLine[] now = new ConsoleLine[1];
        // it is taken up again while the renewal of the earlier hold is being refused
        when(runs.renew(any())).thenAnswer(call -> {
            now[0] = takenUpAgain();
            return List.of(HELD);
        });
        regularly("renewed");
        assertTrue(consoles.line(7).isPresent());
        verify(now[0], never()).close();
        doReturn(List.of(AGAIN)).when(runs).renew(any());
        regularly("renewed");
        assertTrue(consoles.line(7).isEmpty());
        verify(now[0], timeout(PATIENCE_MILLIS)).close();
    }

    private void begunByHand() throws Exception {
        when(openings.of(HELD.runId(), HELD.unitId()))
                .thenAnswer(call -> List.of(opening(Dialogue.byHand(LineSettings.USUAL))));
        claim();
        opened();
    }

    @Test
    void aSetupByHandStaysHereThoughAVantagePointReachesItsLine() throws Exception {
        when(vantages.farOf(any())).thenReturn(Optional.of(mock(FarVantage.class)));
        begunByHand();
        assertTrue(consoles.line(7).filter(MemberLine.class::isInstance).isPresent());
    }

    @Test
    void whatTheDatabaseDidNotTakeOfALogIsKeptTheNextTime() throws Exception {
        begunByHand();
        List<List<String>> kept = new ArrayList<>();
        doThrow(new IllegalStateException("the database is away"))
                .doAnswer(call -> kept.add(call.<Collection<RecordingPiece>>getArgument(0).stream()
                        .map(RecordingPiece::text)
                        .toList()))
                .when(logs)
                .keep(any());
        heard.received("name: ".getBytes(StandardCharsets.ISO_8859_1));
        regularly("Recordings");
        regularly("Recordings");
        regularly("Recordings");
        assertEquals(List.of(List.of("name: "), List.of()), kept);
        verify(store, never()).keep(any(), any());
    }

    /** The process stood still for longer than its lease, and finds its own setup without a holder. */
    private ConsoleLine takenUpAgain() throws Exception {
        when(runs.claim(eq(ConsoleStore.CONSOLE), anyInt())).thenReturn(List.of(AGAIN));
        claim();
        return opened();
    }

    private ConsoleLine opened() throws InterruptedException {
        return Objects.requireNonNull(lines.poll(PATIENCE_MILLIS, TimeUnit.MILLISECONDS), "a line is opened");
    }

    private void againAfterAMoment() {
        ArgumentCaptor<Runnable> again = ArgumentCaptor.forClass(Runnable.class);
        verify(alarms, timeout(PATIENCE_MILLIS)).schedule(again.capture(), anyLong(), eq(TimeUnit.SECONDS));
        again.getValue().run();
    }
}
