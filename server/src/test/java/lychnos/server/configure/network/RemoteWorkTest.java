package lychnos.server.configure.network;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.time.Duration;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import lychnos.core.dialogue.AgreedTerms;
import lychnos.core.dialogue.Conversation.Progress;
import lychnos.core.dialogue.Conversation.State;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.DialogueStep.Controller;
import lychnos.core.dialogue.Hold;
import lychnos.core.dialogue.Hold.Why;
import lychnos.core.dialogue.Mode;
import lychnos.core.dialogue.Template;
import lychnos.core.fact.Mac;
import lychnos.core.kind.KindReader;
import lychnos.core.sheet.MemberValues;
import lychnos.core.sheet.UnitFacts;
import lychnos.core.text.Texts;
import lychnos.server.allocate.FirstAddress;
import lychnos.server.configure.line.TarnDialogue;
import lychnos.server.configure.model.Change;
import lychnos.server.configure.model.ConsoleReader;
import lychnos.server.configure.model.MemberDialogue;
import lychnos.server.configure.plan.Openings;
import lychnos.server.jobs.Held;
import lychnos.server.jobs.HoldLost;
import lychnos.server.text.ConfigureText;
import lychnos.server.time.FakeClockwork;
import lychnos.wire.fault.WireFault;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/**
 * Work over the network with steps that are played, a clock that is turned by hand, and a database that may be away.
 */
class RemoteWorkTest {

    private static final Duration USUALLY = Duration.ofSeconds(90);
    private static final Duration LONGEST = Duration.ofMinutes(5);

    private final FakeClockwork clockwork = new FakeClockwork();
    private final List<Change> saved = new ArrayList<>();
    private final Deque<Object> plays = new ArrayDeque<>();
    private final List<String> carriedOut = new ArrayList<>();
    private RuntimeException databaseAway;
    private boolean takenOver;
    private Hold stop;
    private final List<String> consents = new ArrayList<>();
    private boolean done;
    private boolean lost;
    private RemoteWork work;

    /** Plays what comes next: an outcome, or a fault of the wire. */
    private final class Played implements RemoteStep {

        private final int place;

        Played(int place) {
            this.place = place;
        }

        private Outcome next() throws WireFault {
            Object next = plays.size() > 1 ? plays.poll() : plays.peek();
            if (next instanceof WireFault fault) {
                throw fault;
            }
            if (next instanceof RuntimeException ours) {
                throw ours;
            }
            return (Outcome) next;
        }

        @Override
        public String what() {
            return ConfigureText.THE_CONTROLLER.text();
        }

        @Override
        public List<String> lacking() {
            return List.of();
        }

        @Override
        public Optional<Hold> stops(Mode mode) {
            return Optional.ofNullable(stop).filter(hold -> hold.step() == place);
        }

        @Override
        public Outcome carryOut(boolean begun, Sending sending) throws WireFault {
            carriedOut.add(place + (begun ? " again" : ""));
            Outcome outcome = next();
            return sending.keep("10.40.8.41", List.of("ours")) ? outcome : new Outcome.NotKept();
        }

        @Override
        public Outcome look() throws WireFault {
            return next();
        }
    }

    private final class Around implements PageSurroundings {

        @Override
        public void save(Held held, Change change) throws HoldLost {
            if (takenOver) {
                throw new HoldLost("another server has this unit");
            }
            if (databaseAway != null) {
                throw databaseAway;
            }
            saved.add(change);
        }

        @Override
        public void byHand(RemoteWork from) {}

        @Override
        public void told(String member, String name, String value) {}

        @Override
        public void done(RemoteWork from) {
            done = true;
        }

        @Override
        public void lost(RemoteWork from) {
            lost = true;
        }

        @Override
        public boolean trusts(String server, String fingerprint) {
            return true;
        }

        @Override
        public MemberValues values(String member) {
            return RemoteWorkTest.values();
        }

        @Override
        public void consented(RemoteWork from, String login, String title, String reason) throws HoldLost {
            if (takenOver) {
                throw new HoldLost("another server has this unit");
            }
            consents.add(login + ": " + title + ": " + reason + ", before " + carriedOut);
        }

        @Override
        public boolean proven(Held held, String name) {
            return false;
        }

        @Override
        public Optional<FirstAddress.FoundAddress> find(Held held, Mac mac, int port) {
            return Optional.empty();
        }
    }

    private static MemberValues values() {
        return new MemberValues(
                UnitFacts.resolve(KindReader.shipped("backup-store"), 1, Map.of(), Map.of()),
                "",
                "ard-obj-1",
                List.of(),
                Map.of(),
                Map.of(),
                Map.of(),
                AgreedTerms.toTheFirst());
    }

    private static Controller controller(String title) {
        Template none = Template.parse("");
        return new Controller(title, "", "node", none, none, none, "ours", "delivered", "", USUALLY, LONGEST);
    }

    private static Dialogue dialogue() {
        return TarnDialogue.of(
                List.of(TarnDialogue.asked("log-in", "name:", "x")),
                List.of(controller("first"), controller("second")));
    }

    @BeforeEach
    void make() {
        MemberDialogue row = new MemberDialogue();
        row.id = 7L;
        row.member = "";
        row.mode = Mode.RUN;
        row.state = MemberDialogue.DialogueState.FOLLOWING;
        ConsoleReader.KeptDialogue kept = new ConsoleReader.KeptDialogue(
                row, List.of(Progress.DONE, Progress.OPEN, Progress.OPEN), Map.of(), "", "", 0);
        work = new RemoteWork(
                new Held(1, 2, 3, "console", 4),
                new Openings.LineOpening(kept, dialogue(), "", values(), Optional.empty()),
                null,
                new Around(),
                (from, place, step) -> new Played(place),
                Runnable::run,
                clockwork,
                clockwork.clock());
    }

    private static RemoteStep.Outcome done(String evidence) {
        return new RemoteStep.Outcome.Done(evidence, List.of("ours"), Map.of());
    }

    private static final RemoteStep.Outcome WORKS = new RemoteStep.Outcome.Works("restarts");

    private Change last() {
        return saved.get(saved.size() - 1);
    }

    private static Optional<String> answer(CompletableFuture<Optional<String>> decision) {
        assertTrue(decision.isDone(), "decided at once");
        return decision.join();
    }

    @Test
    void stepsFollowEachOtherToTheEnd() {
        plays.addAll(List.of(done("a"), done("b")));
        work.begin();
        assertEquals(List.of("1", "2"), carriedOut);
        assertTrue(done);
        assertEquals(State.DONE, last().stands().state());
    }

    @Test
    void aLogThatIsOnlyOnTheConsoleIsNotFetchedFromThePages() {
        String refused = answer(work.fetchLog("rack-one")).orElseThrow();
        assertTrue(Texts.says(ConfigureText.KIND_NAMES_NO_RESOURCE_FOR_IT, refused), refused);
        assertTrue(saved.stream().allMatch(change -> change.log().isEmpty()));
    }

    @Test
    void whatMovesAuthorityIsWrittenAfterAConsentWithAReason() {
        stop = new Hold(Why.CONSENT, 2, "moves authority", "", "");
        plays.addAll(List.of(done("a"), done("b")));
        work.begin();
        assertEquals(Why.CONSENT, last().stands().hold().why());
        for (String reason : List.of("", "yes", "  short  ")) {
            assertTrue(
                    Texts.says(
                            ConfigureText.ENTER_THE_REASON_OF_YOUR_CONSENT,
                            answer(work.goOn(reason, "hall-lead")).orElseThrow()),
                    reason);
        }
        assertEquals(List.of("1"), carriedOut);
        assertEquals(Optional.empty(), answer(work.goOn("agreed with the buyer", "hall-lead")));
        assertEquals(1, consents.size());
        assertTrue(consents.get(0).matches("hall-lead: .+: agreed with the buyer, before \\[1]"), consents.get(0));
        assertEquals(List.of("1", "2"), carriedOut);
        assertTrue(done);
    }

    @Test
    void aFaultOfOurOwnEndsNothing() {
        plays.addAll(List.of(new IllegalStateException("no connection to the database"), done("a"), done("b")));
        work.begin();
        assertEquals(List.of("1"), carriedOut);
        clockwork.advance(Duration.ofMinutes(1));
        assertTrue(done, () -> carriedOut.toString());
    }

    @Test
    void aConsentThatCannotBeRecordedWritesNothing() {
        stop = new Hold(Why.CONSENT, 1, "moves authority", "", "");
        plays.add(done("a"));
        work.begin();
        takenOver = true;
        assertTrue(answer(work.goOn("agreed with the buyer", "hall-lead")).isPresent());
        assertEquals(List.of(), carriedOut);
        assertTrue(lost);
    }

    @Test
    void oneThatWorksIsLookedAtUntilItIsDone() {
        plays.addAll(List.of(WORKS, WORKS, WORKS, done("came back"), done("b")));
        work.begin();
        assertEquals(State.WAITING, last().stands().state());
        clockwork.advance(Duration.ofSeconds(10));
        assertTrue(done);
    }

    @Test
    void afterTheLongestTimeAPersonIsCalledAndMayWaitOn() {
        plays.add(WORKS);
        work.begin();
        clockwork.advance(LONGEST.minusSeconds(2));
        assertEquals(State.WAITING, last().stands().state());
        clockwork.advance(Duration.ofSeconds(4));
        assertEquals(Why.OVERDUE, last().stands().hold().why());
        assertEquals(Optional.empty(), answer(work.goOn("", "rack-one")));
        assertEquals(State.WAITING, last().stands().state());
        plays.clear();
        plays.add(done("came back"));
        clockwork.advance(Duration.ofSeconds(2));
        assertTrue(done);
        assertEquals(List.of("1", "2"), carriedOut, "waiting on sets nothing a second time");
    }

    @Test
    void whatPassesIsTriedAgainAndThenAPersonIsCalled() {
        plays.add(new WireFault(WireFault.Kind.SILENT, "no answer in 10 s"));
        work.begin();
        assertEquals(State.FOLLOWING, last().stands().state());
        assertTrue(
                Texts.says(ConfigureText.STEP_CANNOT_REACH_NOW, last().stands().note()),
                () -> last().stands().note());
        clockwork.advance(Duration.ofMinutes(2));
        assertEquals(Why.UNREACHED, last().stands().hold().why());
        assertEquals(11, carriedOut.size());
        plays.clear();
        plays.add(done("a"));
        assertEquals(Optional.empty(), answer(work.goOn("", "rack-one")));
        assertTrue(done);
    }

    @Test
    void nothingGoesOnBeforeItIsKept() {
        plays.add(done("a"));
        databaseAway = new IllegalStateException("no connection");
        work.begin();
        clockwork.advance(Duration.ofSeconds(30));
        assertFalse(carriedOut.stream().anyMatch(each -> each.startsWith("2")), carriedOut::toString);
        assertFalse(done);
        databaseAway = null;
        clockwork.advance(Duration.ofSeconds(10));
        assertTrue(done);
    }

    @Test
    void aServerThatHasLostTheUnitDoesNothingMore() {
        plays.add(WORKS);
        work.begin();
        takenOver = true;
        plays.clear();
        plays.add(done("a"));
        clockwork.advance(Duration.ofMinutes(1));
        assertTrue(lost);
        assertFalse(done);
        assertEquals(List.of("1"), carriedOut);
    }

    @Test
    void stoppedItWaitsUntilItIsStartedAgain() {
        plays.add(WORKS);
        work.begin();
        work.halt("night-shift");
        plays.clear();
        plays.add(done("a"));
        clockwork.advance(Duration.ofMinutes(10));
        assertEquals(State.STOPPED, last().stands().state());
        assertEquals(ConfigureText.STOPPED.text("night-shift"), last().stands().note());
        assertEquals(Optional.of(ConfigureText.NO_DECISION_IS_NEEDED.text()), answer(work.goOn("", "rack-one")));
        assertEquals(Optional.empty(), answer(work.again("rack-one")));
        assertTrue(done);
        assertEquals(List.of("1", "1 again", "2"), carriedOut);
    }
}
