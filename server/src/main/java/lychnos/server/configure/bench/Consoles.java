package lychnos.server.configure.bench;

import com.fasterxml.jackson.databind.JsonNode;
import io.quarkus.runtime.ShutdownEvent;
import io.quarkus.runtime.StartupEvent;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.enterprise.event.Observes;
import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lychnos.server.LychnosConfig;
import lychnos.server.allocate.FirstAddress;
import lychnos.server.configure.line.Cables;
import lychnos.server.configure.line.DialogueMessage;
import lychnos.server.configure.line.FarLine;
import lychnos.server.configure.line.Onlooker;
import lychnos.server.configure.line.OpenLine;
import lychnos.server.configure.line.StepQueue;
import lychnos.server.configure.line.VantageLine;
import lychnos.server.configure.model.AtWork;
import lychnos.server.configure.model.Change;
import lychnos.server.configure.model.ConsoleReader;
import lychnos.server.configure.model.ConsoleStore;
import lychnos.server.configure.model.LineKeys;
import lychnos.server.configure.model.SetupLogs;
import lychnos.server.configure.plan.Openings;
import lychnos.server.jobs.Held;
import lychnos.server.jobs.HoldLost;
import lychnos.server.jobs.Runs;
import lychnos.server.time.Clockwork;
import lychnos.server.vantage.VantageEars;
import lychnos.server.vantage.Vantages;
import lychnos.wire.far.Codec;
import lychnos.wire.far.Link;
import lychnos.wire.far.LinkMessage;
import lychnos.wire.vantage.Vantage;
import org.jboss.logging.Logger;

/**
 * The lines that this server holds. A unit's members are held together, under the lease of its run: when a server dies,
 * the next one opens the same lines and goes on where each of them was.
 */
@ApplicationScoped
public class Consoles implements VantageEars {

    private static final Logger LOG = Logger.getLogger(Consoles.class);
    private static final int MOST_UNITS = 400;
    private static final long AGAIN_SECONDS = 5;
    private static final Duration KEPT_EVERY = Duration.ofMillis(200);
    private static final Duration DELETED_EVERY = Duration.ofHours(1);
    private static final Duration LACKING_EVERY = Duration.ofSeconds(2);

    private final ConsoleStore store;
    private final SetupLogs logs;
    private final ConsoleReader consoleReader;
    private final Openings openings;
    private final Runs runs;
    private final Codec codec;
    private final Clock clock;
    private final Map<Long, Bench> benches = new ConcurrentHashMap<>();
    /**
     * Bring-ups in which steps were kept since the screens were told last: telling at each step would be most of the
     * work.
     */
    private final Set<Long> changed = ConcurrentHashMap.newKeySet();

    /** Of logs of setups by hand, what the database did not take; one thread keeps recordings. */
    private List<Change.RecordingPiece> unkept = List.of();

    private final ExecutorService pool;
    private final Clockwork clockwork;
    private volatile boolean stopping;

    private final Bench.With with;
    private final LineOpener opener;

    Consoles(
            ConsoleStore store,
            SetupLogs logs,
            LineKeys keys,
            ConsoleReader consoleReader,
            StepQueue queue,
            Openings openings,
            FirstAddress firstAddress,
            Runs runs,
            Vantage vantage,
            Vantages vantages,
            Cables cables,
            LychnosConfig config,
            Clock clock,
            Clockwork clockwork) {
        this.clockwork = clockwork;
        this.codec = vantages.codec();
        this.store = store;
        this.logs = logs;
        this.consoleReader = consoleReader;
        this.openings = openings;
        this.runs = runs;
        this.clock = clock;
        // as many as the database has connections to spare; the lines themselves need no threads
        this.pool = Executors.newFixedThreadPool(config.run().consoleWorkers());
        opener = new LineOpener(store, consoleReader, openings, vantage, vantages, clock, pool, clockwork.threads());
        with = new Bench.With(
                queue,
                store,
                logs,
                keys,
                openings,
                firstAddress,
                vantage,
                cables,
                changed::add,
                bench -> inOrder(bench, () -> endOrOpenNext(bench)),
                this::letGo);
    }

    void start(@Observes StartupEvent event) {
        clockwork.every(Runs.CLAIMED_EVERY, "Consoles cannot be claimed now", this::claim);
        clockwork.every(runs.renewedEvery(), "Leases of consoles cannot be renewed now", this::renew);
        clockwork.every(LACKING_EVERY, "What lines wait for cannot be read now", this::lookForWhatIsLacking);
        clockwork.every(DELETED_EVERY, "Old logs of setups cannot be deleted now", logs::deleteOld);
        clockwork.every(KEPT_EVERY, "Recordings cannot be kept now", this::keepRecordings);
    }

    /** A line may wait for a fact that somebody has found out meanwhile. */
    private void lookForWhatIsLacking() {
        for (Bench bench : benches.values()) {
            if (bench.all().anyMatch(each -> !each.lacks().isEmpty())) {
                pool.execute(() -> tellWhatWasLacking(bench));
            }
        }
    }

    private void tellWhatWasLacking(Bench bench) {
        try {
            for (Openings.LineOpening opening :
                    openings.of(bench.held().runId(), bench.held().unitId())) {
                AtWork work = bench.atWork(opening.kept().dialogue().id);
                if (work != null) {
                    work.lacks()
                            .forEach(name -> opening.values().text(name).ifPresent(value -> work.known(name, value)));
                }
            }
        } catch (RuntimeException e) {
            LOG.warnf(
                    "What run %d waits for cannot be read now (%s); trying again.",
                    bench.held().runId(), e.getMessage());
        }
    }

    void stop(@Observes ShutdownEvent event) {
        stopping = true;
        benches.values().forEach(Bench::close);
        pool.shutdown();
    }

    /** The open line of a dialogue, if this server has it. */
    Optional<OpenLine> line(long dialogueId) {
        return benches.values().stream()
                .map(bench -> bench.members().get(dialogueId))
                .filter(Objects::nonNull)
                .findFirst();
    }

    /** Lets a screen watch a line that another server has; nothing where none has it. */
    Optional<FarLine> watchFar(long dialogueId, Onlooker onlooker, Runnable ended) {
        return consoleReader
                .far(dialogueId, Long.MAX_VALUE)
                .map(far -> new FarLine(
                        consoleReader,
                        dialogueId,
                        onlooker,
                        clockwork.threads(),
                        () -> line(dialogueId).isPresent(),
                        ended));
    }

    /** What is under way of a member here: its line, or its pages once the line is done. */
    Optional<AtWork> atWork(long dialogueId) {
        return benches.values().stream()
                .map(bench -> bench.atWork(dialogueId))
                .filter(Objects::nonNull)
                .findFirst();
    }

    Collection<AtWork> ofBringUp(long bringUpId) {
        return benches.values().stream()
                .filter(bench -> bench.held().bringUpId() == bringUpId)
                .flatMap(Bench::all)
                .toList();
    }

    private void claim() {
        if (stopping || benches.size() >= MOST_UNITS) {
            return;
        }
        for (Held held : runs.claim(ConsoleStore.CONSOLE, MOST_UNITS - benches.size())) {
            Bench bench = new Bench(held, with, pool);
            Bench before = benches.put(held.runId(), bench);
            if (before != null) {
                // its lease ran out before this server noticed; its lines would take those of the new one from it
                before.close();
            }
            inOrder(bench, () -> takeUp(bench));
        }
    }

    private void renew() {
        Map<Held, Bench> held =
                benches.values().stream().collect(Collectors.toMap(Bench::held, bench -> bench, (one, other) -> one));
        runs.renew(held.keySet()).forEach(lost -> letGo(held.get(lost)));
    }

    /** Closes this bench and no other: the same unit may have been taken up again meanwhile. */
    private void letGo(Bench bench) {
        benches.remove(bench.held().runId(), bench);
        bench.close();
    }

    private void keepRecordings() {
        List<Change.RecordingPiece> pieces = new ArrayList<>();
        List<Change.RecordingPiece> byHand = new ArrayList<>(unkept);
        benches.values().forEach(bench -> bench.members()
                .values()
                .forEach(line -> (line.dialogue().byHand() ? byHand : pieces).addAll(line.takePieces())));
        Set<Long> told = Set.copyOf(changed);
        changed.removeAll(told);
        try {
            if (!pieces.isEmpty() || !told.isEmpty()) {
                store.keep(pieces, told);
            }
        } catch (RuntimeException e) {
            changed.addAll(told);
            LOG.warnf("A recording has a gap: %s", e.getMessage());
        }
        keepLogs(byHand);
    }

    /** A log that has a gap would teach something else: what cannot be kept now is kept later. */
    private void keepLogs(List<Change.RecordingPiece> pieces) {
        unkept = pieces;
        try {
            logs.keep(pieces);
            unkept = List.of();
        } catch (RuntimeException e) {
            LOG.warnf("The log of a setup cannot be kept now (%s); trying again.", e.getMessage());
        }
    }

    /** What is done with the lines of a unit, and is tried again if it fails. */
    @FunctionalInterface
    private interface BenchWork {
        void carryOut() throws HoldLost;
    }

    /**
     * One after the other for each unit: when two ticks come at once, each of them looks which lines may be opened, and
     * a line is opened once.
     */
    private void inOrder(Bench bench, BenchWork work) {
        bench.inOrder().add(() -> {
            if (stopping || benches.get(bench.held().runId()) != bench) {
                return;
            }
            try {
                work.carryOut();
            } catch (HoldLost e) {
                letGo(bench);
            } catch (RuntimeException e) {
                LOG.errorf(
                        e, "the consoles of run %d; trying again", bench.held().runId());
                clockwork.threads().schedule(() -> inOrder(bench, work), AGAIN_SECONDS, TimeUnit.SECONDS);
            }
        });
    }

    private Stream<VantageLine> linesAt(String vantage) {
        return benches.values().stream()
                .flatMap(bench -> bench.members().values().stream())
                .filter(VantageLine.class::isInstance)
                .map(VantageLine.class::cast)
                .filter(line -> line.vantage().equals(vantage));
    }

    @Override
    public void linked(String vantage, Link back, List<Long> dialogues) {
        linesAt(vantage).forEach(VantageLine::linked);
        Set<Long> known = linesAt(vantage).map(OpenLine::dialogueId).collect(Collectors.toSet());
        // what ended meanwhile, or what another server carries on with this vantage, is not for us; what no server
        // has any more is dropped there
        dialogues.stream()
                .filter(id -> !known.contains(id) && !store.under(id))
                .forEach(id -> back.send(new LinkMessage.Note(codec.tree(new DialogueMessage.Lost(id)))));
    }

    @Override
    public void cut(String vantage) {
        linesAt(vantage).forEach(line -> line.cut(clock.instant()));
    }

    @Override
    public void noted(String vantage, JsonNode note, Link back) throws IOException {
        DialogueMessage message = codec.read(note, DialogueMessage.class);
        line(message.dialogue()).filter(VantageLine.class::isInstance).ifPresent(line -> ((VantageLine) line)
                .heard(message, back));
    }

    /** A prerequisite was opened, or a member was ticked off by hand. */
    void lookAgain(long runId) {
        Bench bench = benches.get(runId);
        if (bench != null) {
            inOrder(bench, () -> endOrOpenNext(bench));
        }
    }

    /** The server that had the unit before may have gone away right after the last member was done. */
    private void takeUp(Bench bench) throws HoldLost {
        if (store.everyMemberIsDone(bench.held().runId())) {
            endOrOpenNext(bench);
        } else {
            opener.openWhatMay(bench);
        }
    }

    private void endOrOpenNext(Bench bench) throws HoldLost {
        if (store.endOrMeetPrerequisites(bench.held())) {
            clockwork.threads().schedule(() -> letGo(bench), 1500, TimeUnit.MILLISECONDS);
        } else {
            opener.openWhatMay(bench);
        }
    }
}
