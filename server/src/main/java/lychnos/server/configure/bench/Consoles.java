package lychnos.server.configure.bench;

import com.fasterxml.jackson.databind.JsonNode;
import io.quarkus.runtime.ShutdownEvent;
import io.quarkus.runtime.StartupEvent;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.enterprise.event.Observes;
import java.time.Clock;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import lychnos.core.dialogue.Mode;
import lychnos.core.fact.Mac;
import lychnos.core.sheet.MemberValues;
import lychnos.server.LychnosConfig;
import lychnos.server.allocate.FirstAddress;
import lychnos.server.configure.line.FarLine;
import lychnos.server.configure.line.LineOrder;
import lychnos.server.configure.line.MemberLine;
import lychnos.server.configure.line.Onlooker;
import lychnos.server.configure.line.OpenLine;
import lychnos.server.configure.line.StepQueue;
import lychnos.server.configure.line.VantageLine;
import lychnos.server.configure.model.AtWork;
import lychnos.server.configure.model.Change;
import lychnos.server.configure.model.ConsoleReader;
import lychnos.server.configure.model.ConsoleStore;
import lychnos.server.configure.model.MemberDialogue;
import lychnos.server.configure.model.StepWriter;
import lychnos.server.configure.network.RemoteWork;
import lychnos.server.configure.plan.Openings;
import lychnos.server.jobs.Held;
import lychnos.server.jobs.HoldLost;
import lychnos.server.jobs.Runs;
import lychnos.server.vantage.VantageEars;
import lychnos.server.vantage.Vantages;
import lychnos.wire.console.ConsoleLine;
import lychnos.wire.far.Codec;
import lychnos.wire.far.FarVantage;
import lychnos.wire.far.Link;
import lychnos.wire.fault.WireFault;
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
    private static final long CLAIM_MILLIS = 250;
    private static final long KEEP_MILLIS = 200;
    private static final long LACKING_MILLIS = 2000;

    private final ConsoleStore store;
    private final ConsoleReader consoleReader;
    private final StepQueue queue;
    private final Openings openings;
    private final FirstAddress firstAddress;
    private final Runs runs;
    private final Vantage vantage;
    private final Vantages vantages;
    private final Codec codec;
    private final LychnosConfig config;
    private final Clock clock;
    private final Map<Long, Bench> benches = new ConcurrentHashMap<>();
    /**
     * Bring-ups in which steps were kept since the screens were told last: telling at each step would be most of the
     * work.
     */
    private final Set<Long> changed = ConcurrentHashMap.newKeySet();

    private final ExecutorService pool;
    private final ScheduledThreadPoolExecutor clockwork = new ScheduledThreadPoolExecutor(3, work -> {
        Thread thread = new Thread(work, "console clock");
        thread.setDaemon(true);
        return thread;
    });
    private volatile boolean stopping;

    Consoles(
            ConsoleStore store,
            ConsoleReader consoleReader,
            StepQueue queue,
            Openings openings,
            FirstAddress firstAddress,
            Runs runs,
            Vantage vantage,
            Vantages vantages,
            LychnosConfig config,
            Clock clock) {
        this.vantages = vantages;
        this.codec = vantages.codec();
        this.store = store;
        this.consoleReader = consoleReader;
        this.queue = queue;
        this.openings = openings;
        this.firstAddress = firstAddress;
        this.runs = runs;
        this.vantage = vantage;
        this.config = config;
        this.clock = clock;
        // every line sets an alarm and takes it back at each letter
        clockwork.setRemoveOnCancelPolicy(true);
        // as many as the database has connections to spare; the lines themselves need no threads
        this.pool = Executors.newFixedThreadPool(config.run().consoleWorkers());
    }

    /** A unit's members, by the ids of their dialogues: those on a line, and those on whose pages is worked. */
    private record Bench(Held held, Map<Long, OpenLine> members, Map<Long, RemoteWork> pages) {

        Bench(Held held) {
            this(held, new ConcurrentHashMap<>(), new ConcurrentHashMap<>());
        }

        AtWork atWork(long dialogueId) {
            return pages.containsKey(dialogueId) ? pages.get(dialogueId) : members.get(dialogueId);
        }

        Stream<AtWork> all() {
            return Stream.concat(members.values().stream(), pages.values().stream());
        }
    }

    void start(@Observes StartupEvent event) {
        long renew = Math.max(200, config.run().lease().toMillis() / 4);
        clockwork.scheduleWithFixedDelay(this::claim, 150, CLAIM_MILLIS, TimeUnit.MILLISECONDS);
        clockwork.scheduleWithFixedDelay(this::renew, renew, renew, TimeUnit.MILLISECONDS);
        clockwork.scheduleWithFixedDelay(
                this::lookForWhatIsLacking, LACKING_MILLIS, LACKING_MILLIS, TimeUnit.MILLISECONDS);
        clockwork.scheduleWithFixedDelay(this::keepRecordings, KEEP_MILLIS, KEEP_MILLIS, TimeUnit.MILLISECONDS);
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
            for (Openings.Opening opening : openings.of(bench.held.runId(), bench.held.unitId())) {
                AtWork work = bench.atWork(opening.kept().dialogue().id);
                if (work != null) {
                    work.lacks()
                            .forEach(name -> opening.values().text(name).ifPresent(value -> work.known(name, value)));
                }
            }
        } catch (RuntimeException e) {
            LOG.warnf(
                    "What run %d waits for cannot be read now (%s); trying again.", bench.held.runId(), e.getMessage());
        }
    }

    void stop(@Observes ShutdownEvent event) {
        stopping = true;
        clockwork.shutdownNow();
        benches.values().forEach(bench -> bench.all().forEach(AtWork::close));
        pool.shutdown();
    }

    /** The open line of a dialogue, if this server has it. */
    Optional<OpenLine> line(long dialogueId) {
        return benches.values().stream()
                .map(bench -> bench.members.get(dialogueId))
                .filter(java.util.Objects::nonNull)
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
                        clockwork,
                        () -> line(dialogueId).isPresent(),
                        ended));
    }

    /** What is under way of a member here: its line, or its pages once the line is done. */
    Optional<AtWork> atWork(long dialogueId) {
        return benches.values().stream()
                .map(bench -> bench.atWork(dialogueId))
                .filter(java.util.Objects::nonNull)
                .findFirst();
    }

    Collection<AtWork> ofBringUp(long bringUpId) {
        return benches.values().stream()
                .filter(bench -> bench.held.bringUpId() == bringUpId)
                .flatMap(Bench::all)
                .toList();
    }

    // --- leases ---

    private void claim() {
        if (stopping || benches.size() >= MOST_UNITS) {
            return;
        }
        try {
            for (Held held : store.claim(MOST_UNITS - benches.size())) {
                Bench bench = new Bench(held);
                benches.put(held.runId(), bench);
                pool.execute(() -> openWhatMay(bench));
            }
        } catch (RuntimeException e) {
            if (!stopping) {
                LOG.warnf("Consoles cannot be claimed now (%s); trying again.", e.getMessage());
            }
        }
    }

    private void renew() {
        try {
            List<Held> held = benches.values().stream().map(Bench::held).toList();
            runs.renew(held).forEach(lost -> letGo(lost.runId()));
        } catch (RuntimeException e) {
            if (!stopping) {
                LOG.warnf("Leases of consoles cannot be renewed now (%s); trying again.", e.getMessage());
            }
        }
    }

    private void letGo(long runId) {
        Bench bench = benches.remove(runId);
        if (bench != null) {
            bench.all().forEach(AtWork::close);
        }
    }

    private void keepRecordings() {
        List<Change.Piece> pieces = new ArrayList<>();
        benches.values().forEach(bench -> bench.members.values().forEach(line -> pieces.addAll(line.takePieces())));
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
    }

    // --- opening ---

    /** Opens every line of a unit whose prerequisite holds and that is not open yet. */
    private void openWhatMay(Bench bench) {
        try {
            if (consoleReader.members(bench.held.runId()) == bench.members.size()
                    && bench.members.values().stream()
                            .noneMatch(line -> line.dialogue().drivesPages(line.member()))) {
                return; // every line is open already, and nothing comes after them
            }
            List<Openings.Opening> all = openings.of(bench.held.runId(), bench.held.unitId());
            List<OpenLine> opened = new ArrayList<>();
            for (Openings.Opening opening : all) {
                MemberDialogue row = opening.kept().dialogue();
                if (!row.prerequisite.isEmpty() || row.state == MemberDialogue.State.DONE) {
                    continue;
                }
                if (opening.pagesAreNext()) {
                    workAtPages(bench, opening, row);
                } else if (row.state != MemberDialogue.State.BY_HAND && !bench.members.containsKey(row.id)) {
                    prepare(bench, opening, row).ifPresent(opened::add);
                }
            }
            List<Long> shut = all.stream()
                    .map(opening -> opening.kept().dialogue())
                    .filter(row -> row.state == MemberDialogue.State.SHUT && bench.members.containsKey(row.id))
                    .map(row -> row.id)
                    .toList();
            if (!shut.isEmpty()) {
                store.opened(bench.held, shut, false);
            }
            for (OpenLine line : opened) {
                line.open();
                if (all.stream()
                        .anyMatch(other -> other.kept().dialogue().id != line.dialogueId()
                                && other.kept().dialogue().identified)) {
                    line.otherIsActive();
                }
            }
        } catch (HoldLost e) {
            letGo(bench.held.runId());
        } catch (RuntimeException e) {
            LOG.errorf(e, "the consoles of run %d", bench.held.runId());
            clockwork.schedule(() -> pool.execute(() -> openWhatMay(bench)), 5, TimeUnit.SECONDS);
        }
    }

    /** A member's line, not open yet; nothing where it has none and a person ticks its steps. */
    private Optional<OpenLine> prepare(Bench bench, Openings.Opening opening, MemberDialogue row) throws HoldLost {
        if (opening.line().isEmpty()) {
            store.opened(bench.held, List.of(row.id), true);
            return Optional.empty();
        }
        Optional<FarVantage> far = vantages.farOf(opening.line().get().address());
        OpenLine line = far.isPresent()
                ? new VantageLine(
                        bench.held,
                        opening,
                        () -> orderOf(bench, row.id),
                        far.get(),
                        codec,
                        new Around(bench),
                        pool,
                        clockwork)
                : new MemberLine(
                        bench.held,
                        opening.kept(),
                        opening.line().get(),
                        opening.dialogue(),
                        opening.values(),
                        new Around(bench),
                        pool,
                        clockwork,
                        clock);
        bench.members.put(row.id, line);
        return Optional.of(line);
    }

    /** How far a dialogue is now, for a vantage that is to carry it on. */
    private LineOrder orderOf(Bench bench, long dialogueId) {
        return openings.of(bench.held.runId(), bench.held.unitId()).stream()
                .filter(each -> each.kept().dialogue().id == dialogueId)
                .findFirst()
                .map(each -> LineOrder.of(bench.held, each))
                .orElseThrow();
    }

    private Stream<VantageLine> linesAt(String vantage) {
        return benches.values().stream()
                .flatMap(bench -> bench.members.values().stream())
                .filter(VantageLine.class::isInstance)
                .map(VantageLine.class::cast)
                .filter(line -> line.vantage().equals(vantage));
    }

    @Override
    public void linked(String vantage, Link back, JsonNode holding) {
        linesAt(vantage).forEach(VantageLine::linked);
        Set<Long> known = linesAt(vantage).map(OpenLine::dialogueId).collect(java.util.stream.Collectors.toSet());
        holding.forEach(id -> {
            // what ended meanwhile, or what another server carries on with this vantage, is not for us; what no server
            // has
            // any more is dropped there
            if (!known.contains(id.asLong()) && !store.under(id.asLong())) {
                back.send(codec.write(codec.json()
                        .createObjectNode()
                        .put("bench", id.asLong())
                        .put("lost", Long.MAX_VALUE)));
            }
        });
    }

    @Override
    public void cut(String vantage) {
        linesAt(vantage).forEach(line -> line.cut(clock.instant()));
    }

    @Override
    public boolean heard(String vantage, JsonNode message, Link back) {
        if (!message.has("bench")) {
            return false;
        }
        line(message.path("bench").asLong())
                .filter(VantageLine.class::isInstance)
                .ifPresent(line -> ((VantageLine) line).heard(message, back));
        return true;
    }

    /** Begins with a member's pages where nobody wants to fill them in by hand. */
    private void workAtPages(Bench bench, Openings.Opening opening, MemberDialogue row) throws HoldLost {
        if (row.mode == Mode.WATCH) {
            if (row.state != MemberDialogue.State.BY_HAND) {
                store.opened(bench.held, List.of(row.id), true);
            }
            return;
        }
        RemoteWork work = new RemoteWork(
                bench.held, opening, vantage, new Around(bench), RemoteWork::overTheWire, pool, clockwork, clock);
        if (bench.pages.putIfAbsent(row.id, work) == null) {
            if (row.openedAt == null) {
                store.opened(bench.held, List.of(row.id), false);
            }
            work.begin();
        }
    }

    /** A prerequisite was opened, or a member was ticked off by hand. */
    void lookAgain(long runId) {
        Bench bench = benches.get(runId);
        if (bench != null) {
            pool.execute(() -> endOrOpenNext(bench));
        }
    }

    private void endOrOpenNext(Bench bench) {
        try {
            if (store.endOrMeetPrerequisites(bench.held)) {
                clockwork.schedule(() -> letGo(bench.held.runId()), 1500, TimeUnit.MILLISECONDS);
            } else {
                openWhatMay(bench);
            }
        } catch (HoldLost e) {
            letGo(bench.held.runId());
        }
    }

    /** What a member's line works with. */
    private final class Around implements MemberLine.Surroundings, RemoteWork.Surroundings {
        private final Bench bench;

        Around(Bench bench) {
            this.bench = bench;
        }

        @Override
        public void save(Held held, Change change, List<Change.Piece> pieces) throws HoldLost {
            queue.save(new StepWriter.Step(held, change, pieces));
            changed.add(held.bringUpId());
        }

        @Override
        public void save(Held held, List<Change.Piece> pieces) {
            store.keep(pieces, Set.of());
        }

        @Override
        public void save(Held held, Change change) throws HoldLost {
            save(held, change, List.of());
        }

        @Override
        public void byHand(RemoteWork work) throws HoldLost {
            bench.pages.remove(work.dialogueId());
            store.byHand(bench.held, work.dialogueId());
        }

        @Override
        public void told(String member, String name, String value) {
            bench.all().forEach(other -> other.known(member.replace(' ', '-') + "." + name, value));
        }

        @Override
        public MemberValues values(String member) {
            return openings.values(bench.held.runId(), bench.held.unitId()).get(member);
        }

        @Override
        public void done(RemoteWork work) {
            bench.pages.remove(work.dialogueId());
            pool.execute(() -> endOrOpenNext(bench));
        }

        @Override
        public void lost(RemoteWork work) {
            letGo(bench.held.runId());
        }

        @Override
        public boolean proven(Held held, String name) {
            return store.proven(held.unitId(), name);
        }

        @Override
        public Optional<FirstAddress.Found> find(Held held, Mac mac, int port) throws WireFault {
            return firstAddress.of(held.unitId(), mac, port);
        }

        @Override
        public ConsoleLine open(MemberLine line) throws WireFault {
            return vantage.line(line.address().address(), line.dialogue().line(), line);
        }

        @Override
        public void told(OpenLine from, String name, String value) {
            bench.members.values().stream()
                    .filter(other -> other != from)
                    .forEach(other -> other.known(from.member().replace(' ', '-') + "." + name, value));
        }

        @Override
        public void identified(OpenLine from) {
            bench.members.values().stream().filter(other -> other != from).forEach(OpenLine::otherIsActive);
        }

        @Override
        public void done(OpenLine line) {
            pool.execute(() -> endOrOpenNext(bench));
        }

        @Override
        public void lost(OpenLine line) {
            letGo(bench.held.runId());
        }

        @Override
        public boolean trusts(String server, String fingerprint) {
            return store.keyIsAsRemembered(server, fingerprint);
        }
    }
}
