package lychnos.server.configure.remote;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Clock;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.stream.Stream;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.kind.Kind;
import lychnos.core.kind.KindFaults;
import lychnos.server.configure.line.DialogueMessage;
import lychnos.server.configure.line.LineOrder;
import lychnos.server.configure.line.LineStanding;
import lychnos.server.configure.line.LineSurroundings;
import lychnos.server.configure.line.MemberLine;
import lychnos.server.configure.line.Onlooker;
import lychnos.server.configure.line.OpenLine;
import lychnos.server.configure.model.Change;
import lychnos.server.configure.model.ConsoleStore;
import lychnos.server.configure.plan.ConsoleLines;
import lychnos.server.jobs.Held;
import lychnos.server.jobs.HoldLost;
import lychnos.server.text.ConfigureText;
import lychnos.wire.console.ConsoleLine;
import lychnos.wire.far.Codec;
import lychnos.wire.far.Link;
import lychnos.wire.far.LinkMessage;
import lychnos.wire.fault.WireFault;
import lychnos.wire.vantage.Vantage;
import org.jboss.logging.Logger;

/**
 * Carries on dialogues in the network where their lines are, for a server that may be cut off. What is about to go out
 * is kept at the server first while the link stands, and in a file here while it does not; it is handed in, in order,
 * once there is a link again.
 */
public final class Outpost implements LineSurroundings {

    private static final Logger LOG = Logger.getLogger(Outpost.class);
    private static final long KEEP_MILLIS = 250;
    private static final long ANSWER_SECONDS = 20;

    private final Vantage vantage;
    private final Codec codec;
    private final Path directory;
    private final Clock clock;
    private final Map<Long, Bench> benches = new ConcurrentHashMap<>();
    /** What an earlier process kept and no server has taken. */
    private final Map<Long, Outbox> left = new ConcurrentHashMap<>();

    private final Map<String, CompletableFuture<Boolean>> keys = new ConcurrentHashMap<>();
    private final ExecutorService pool = Executors.newCachedThreadPool(work -> daemon(work, "dialogue"));
    private final ScheduledThreadPoolExecutor clockwork =
            new ScheduledThreadPoolExecutor(2, work -> daemon(work, "dialogue clock"));

    private static Thread daemon(Runnable work, String name) {
        Thread thread = new Thread(work, name);
        thread.setDaemon(true);
        return thread;
    }

    /** @param directory where is kept what could not be handed in; it holds no passwords */
    public Outpost(Vantage vantage, Codec codec, Path directory, Clock clock) throws IOException {
        this.vantage = vantage;
        this.codec = codec;
        this.directory = directory;
        this.clock = clock;
        clockwork.setRemoveOnCancelPolicy(true);
        Outbox.left(directory, codec).forEach(outbox -> left.put(outbox.dialogueId(), outbox));
        clockwork.scheduleWithFixedDelay(this::keepRecordings, KEEP_MILLIS, KEEP_MILLIS, TimeUnit.MILLISECONDS);
    }

    /** A dialogue that is carried on here. */
    private static final class Bench {
        final MemberLine line;
        final Outbox outbox;
        volatile Held held;

        Bench(MemberLine line, Outbox outbox, Held held) {
            this.line = line;
            this.outbox = outbox;
            this.held = held;
        }
    }

    // --- the link ---

    /** What is carried on here, and what is to be handed in of others: the server is told in the greeting. */
    public List<Long> dialogues() {
        return Stream.concat(benches.keySet().stream(), left.keySet().stream())
                .distinct()
                .toList();
    }

    /** Nobody is told anything until there is a link again; everything goes on. */
    public void cut(Link which) {
        benches.values().forEach(bench -> bench.outbox.cut(which));
        left.values().forEach(outbox -> outbox.cut(which));
    }

    /** Takes in what a server says; false where it is not for dialogues. */
    public boolean heard(LinkMessage message, Link back) {
        if (message instanceof LinkMessage.Ask ask) {
            pool.execute(() -> answer(ask, back));
        } else if (message instanceof LinkMessage.Note note) {
            noted(note);
        } else {
            return false;
        }
        return true;
    }

    private void noted(LinkMessage.Note note) {
        DialogueMessage message;
        try {
            message = codec.read(note.what(), DialogueMessage.class);
        } catch (IOException e) {
            LOG.warnf("The server sent a note that cannot be read: %s", e.getMessage());
            return;
        }
        long id = message.dialogue();
        Bench bench = benches.get(id);
        Outbox outbox = bench == null ? left.get(id) : bench.outbox;
        if (outbox == null) {
            return;
        }
        if (message instanceof DialogueMessage.Kept kept) {
            outbox.kept(kept.upTo());
        } else if (message instanceof DialogueMessage.Lost lost) {
            outbox.lost();
        } else if (message instanceof DialogueMessage.HandInAgain again) {
            outbox.again();
        } else {
            LOG.warnf("The server sent a note of dialogue %d that only a vantage point sends", id);
        }
        if (bench == null && outbox.isEmpty()) {
            left.remove(id);
            outbox.end();
        }
    }

    private void answer(LinkMessage.Ask ask, Link back) {
        LinkMessage answer;
        try {
            answer = new LinkMessage.Answer(
                    ask.number(), codec.tree(carryOut(codec.read(ask.what(), DialogueMessage.Order.class), back)));
        } catch (IOException | RuntimeException | ExecutionException | TimeoutException e) {
            LOG.warnf(e, "What the server asked cannot be done");
            answer = new LinkMessage.Failed(
                    ask.number(),
                    WireFault.Kind.GARBAGE,
                    ConfigureText.VANTAGE_POINT_CANNOT_DO_THIS.text(e.getMessage()));
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return;
        }
        try {
            back.send(answer);
        } catch (IllegalStateException e) {
            // cut meanwhile: nothing waits for the answer any more
        }
    }

    /** Gives back why not, or nothing. */
    private Optional<String> carryOut(DialogueMessage.Order order, Link back)
            throws IOException, InterruptedException, ExecutionException, TimeoutException {
        if (order instanceof DialogueMessage.Begin begin) {
            return begin(begin.order(), back);
        }
        if (order instanceof DialogueMessage.TrustKey key) {
            Optional.ofNullable(keys.remove(key.fingerprint())).ifPresent(waiting -> waiting.complete(key.trusted()));
            return Optional.empty();
        }
        Bench bench = benches.get(order.dialogue());
        return bench == null
                ? Optional.of(ConfigureText.LINE_IS_NO_LONGER_OPEN_AT_THE_VANTAGE.text())
                : carryOut(order, bench);
    }

    private Optional<String> carryOut(DialogueMessage.Order order, Bench bench)
            throws InterruptedException, ExecutionException, TimeoutException {
        MemberLine line = bench.line;
        if (order instanceof DialogueMessage.TypeKeys typed) {
            return waited(line.typed(typed.keys(), typed.login()));
        } else if (order instanceof DialogueMessage.SendBreak pause) {
            return waited(line.sendBreak(pause.login()));
        } else if (order instanceof DialogueMessage.SetMode mode) {
            return waited(line.mode(mode.mode(), mode.login()));
        } else if (order instanceof DialogueMessage.GoOn goOn) {
            return waited(line.goOn(goOn.typed(), goOn.login()));
        } else if (order instanceof DialogueMessage.SendAgain again) {
            return waited(line.again(again.login()));
        } else if (order instanceof DialogueMessage.FetchLog log) {
            return waited(line.fetchLog(log.login()));
        } else if (order instanceof DialogueMessage.Halt halt) {
            line.halt(halt.login());
        } else if (order instanceof DialogueMessage.TakeKeyboard take) {
            line.take(take.login());
        } else if (order instanceof DialogueMessage.Resize size) {
            line.resize(size.columns(), size.rows());
        } else if (order instanceof DialogueMessage.Known known) {
            line.known(known.name(), known.value());
        } else if (order instanceof DialogueMessage.OtherIsActive) {
            line.otherIsActive();
        } else if (order instanceof DialogueMessage.Close close) {
            // who has lost the unit to another server may not close what that one carries on
            if (close.fence() >= bench.held.fence()) {
                close(bench);
            }
        } else {
            throw new IllegalArgumentException(ConfigureText.IS_FOR_NO_OPEN_LINE.text(order));
        }
        return Optional.empty();
    }

    private static Optional<String> waited(CompletableFuture<Optional<String>> decided)
            throws InterruptedException, ExecutionException, TimeoutException {
        return decided.get(ANSWER_SECONDS, TimeUnit.SECONDS);
    }

    private Optional<String> begin(LineOrder order, Link back) throws IOException {
        Bench running = benches.get(order.left().dialogueId());
        if (running != null) {
            if (order.held().fence() >= running.held.fence()) {
                running.held = order.held();
                running.outbox.linked(back);
                tellStanding(running);
            }
            return Optional.empty();
        }
        Outbox old = left.get(order.left().dialogueId());
        if (old != null && !old.isEmpty()) {
            old.linked(back);
            return Optional.of(ConfigureText.VANTAGE_POINT_HAS_RESTARTED.text());
        }
        Kind kind;
        try {
            kind = order.kindOfUnit();
        } catch (KindFaults e) {
            return Optional.of(ConfigureText.VANTAGE_POINT_CANNOT_READ_THE_DESCRIPTION.text(e.getMessage()));
        }
        Dialogue dialogue = kind.dialogue().orElseThrow();
        Outbox outbox = new Outbox(
                order.left().dialogueId(),
                directory,
                codec,
                order.left().recorded().handedIn());
        outbox.linked(back);
        MemberLine line = new MemberLine(
                order.held(),
                order.kept(),
                new ConsoleLines.OpenableLine(
                        order.line().address(), order.line().title()),
                dialogue,
                order.valuesOf(kind),
                this,
                pool,
                clockwork,
                clock);
        Bench bench = new Bench(line, outbox, order.held());
        benches.put(order.left().dialogueId(), bench);
        line.watch(new Onlooker() {
            @Override
            public void shown(String text) {
                outbox.tell(new DialogueMessage.Shown(order.left().dialogueId(), text));
            }

            @Override
            public void changed(LineStanding standing) {
                tellStanding(bench, standing);
            }
        });
        line.open();
        return Optional.empty();
    }

    private void tellStanding(Bench bench) {
        bench.line.ask(standing -> tellStanding(bench, standing));
    }

    private void tellStanding(Bench bench, LineStanding standing) {
        bench.outbox.tell(new DialogueMessage.StandingNow(bench.line.dialogueId(), standing, bench.line.lacks()));
    }

    private void close(Bench bench) {
        benches.remove(bench.line.dialogueId(), bench);
        bench.line.close();
        bench.outbox.end();
    }

    private void keepRecordings() {
        for (Bench bench : benches.values()) {
            List<Change.RecordingPiece> pieces = bench.line.takePieces();
            if (!pieces.isEmpty()) {
                bench.outbox.add(number -> LineOrder.HandedStep.recording(number, clock.instant(), pieces));
            }
        }
    }

    private Bench of(OpenLine line) {
        return benches.get(line.dialogueId());
    }

    // --- what a line works with ---

    @Override
    public void save(Held held, Change change, List<Change.RecordingPiece> pieces) throws HoldLost {
        Bench bench = benches.get(change.dialogueId());
        if (bench == null) {
            throw new HoldLost(ConsoleStore.LOST);
        }
        bench.outbox.keep(number -> LineOrder.HandedStep.of(number, change, pieces));
    }

    @Override
    public void save(Held held, List<Change.RecordingPiece> pieces) {
        throw new IllegalStateException("recordings are kept by the outbox here");
    }

    @Override
    public ConsoleLine open(MemberLine line) throws WireFault {
        return vantage.line(line.address().address(), line.dialogue().line(), line);
    }

    @Override
    public void told(OpenLine line, String name, String value) {
        Bench from = of(line);
        if (from == null) {
            return;
        }
        // members that are carried on here too need no server for it
        benches.values().stream()
                .filter(other -> other != from && other.held.runId() == from.held.runId())
                .forEach(other -> other.line.known(line.member().replace(' ', '-') + "." + name, value));
        from.outbox.tell(new DialogueMessage.Told(line.dialogueId(), name, value));
    }

    @Override
    public void identified(OpenLine line) {
        Bench from = of(line);
        if (from != null) {
            benches.values().stream()
                    .filter(other -> other != from && other.held.runId() == from.held.runId())
                    .forEach(other -> other.line.otherIsActive());
            from.outbox.tell(new DialogueMessage.Identified(line.dialogueId()));
        }
    }

    /** The server hears it with the last step; where it was cut off then, with the link. */
    @Override
    public void done(OpenLine line) {
        Bench from = of(line);
        if (from != null) {
            from.outbox.whenEmpty(() -> from.outbox.tell(new DialogueMessage.Done(line.dialogueId())));
        }
    }

    @Override
    public void lost(OpenLine line) {
        Bench bench = of(line);
        if (bench != null) {
            close(bench);
        }
    }

    @Override
    public boolean trusts(String server, String fingerprint) {
        CompletableFuture<Boolean> answer = keys.computeIfAbsent(fingerprint, none -> new CompletableFuture<>());
        benches.values().stream()
                .filter(bench -> bench.line.address().address().toString().equals(server))
                .forEach(bench ->
                        bench.outbox.tell(new DialogueMessage.KeyShown(bench.line.dialogueId(), server, fingerprint)));
        try {
            return answer.get(ANSWER_SECONDS, TimeUnit.SECONDS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return false;
        } catch (ExecutionException | TimeoutException e) {
            return false; // cut off: what nobody can be asked about is not trusted
        }
    }
}
