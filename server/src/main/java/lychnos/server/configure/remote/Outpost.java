package lychnos.server.configure.remote;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Clock;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.Mode;
import lychnos.core.kind.Kind;
import lychnos.core.kind.KindFaults;
import lychnos.server.configure.line.LineOrder;
import lychnos.server.configure.line.MemberLine;
import lychnos.server.configure.line.Onlooker;
import lychnos.server.configure.line.OpenLine;
import lychnos.server.configure.model.Change;
import lychnos.server.configure.model.ConsoleStore;
import lychnos.server.configure.plan.ConsoleLines;
import lychnos.server.jobs.Held;
import lychnos.server.jobs.HoldLost;
import lychnos.wire.console.ConsoleLine;
import lychnos.wire.far.Codec;
import lychnos.wire.far.Link;
import lychnos.wire.fault.WireFault;
import lychnos.wire.vantage.Vantage;
import org.jboss.logging.Logger;

/**
 * Carries on dialogues in the network where their lines are, for a server that may be cut off. What is about to go out
 * is kept at the server first while the link stands, and in a file here while it does not; it is handed in, in order,
 * once there is a link again.
 */
public final class Outpost implements MemberLine.Surroundings {

    /** Begins the name of everything that a server has done here to a dialogue. */
    public static final String PREFIX = "bench.";

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
    public JsonNode holding() {
        ArrayNode holding = codec.json().createArrayNode();
        benches.keySet().forEach(holding::add);
        left.keySet().stream().filter(id -> !benches.containsKey(id)).forEach(holding::add);
        return holding;
    }

    /** Nobody is told anything until there is a link again; everything goes on. */
    public void cut(Link which) {
        benches.values().forEach(bench -> bench.outbox.cut(which));
        left.values().forEach(outbox -> outbox.cut(which));
    }

    /** Takes in what a server says; false where it is not for dialogues. */
    public boolean heard(JsonNode message, Link back) {
        if (message.path("do").asText().startsWith(PREFIX)) {
            pool.execute(() -> answer(message, back));
            return true;
        }
        if (message.has("bench")) {
            long id = message.path("bench").asLong();
            Bench bench = benches.get(id);
            Outbox outbox = bench == null ? left.get(id) : bench.outbox;
            if (outbox != null) {
                outbox.heard(message);
                if (bench == null && outbox.isEmpty()) {
                    left.remove(id);
                    outbox.end();
                }
            }
            return true;
        }
        return false;
    }

    private void answer(JsonNode message, Link back) {
        ObjectNode answer = codec.json()
                .createObjectNode()
                .put("answer", message.path("call").asLong());
        try {
            Optional<String> refused = carryOut(message.path("do").asText().substring(PREFIX.length()), message, back);
            answer.set(
                    "value",
                    refused.<JsonNode>map(text -> codec.json().getNodeFactory().textNode(text))
                            .orElse(codec.json().nullNode()));
        } catch (IOException | RuntimeException | java.util.concurrent.ExecutionException | TimeoutException e) {
            LOG.warnf(e, "%s", message.path("do").asText());
            answer.putObject("fault")
                    .put("kind", WireFault.Kind.GARBAGE.name())
                    .put("message", "The vantage point cannot do this: " + e.getMessage() + ".");
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return;
        }
        try {
            back.send(codec.write(answer));
        } catch (IllegalStateException e) {
            // cut meanwhile: nobody waits for it any more
        }
    }

    /** Gives back why not, or nothing. */
    private Optional<String> carryOut(String what, JsonNode message, Link back)
            throws IOException, InterruptedException, java.util.concurrent.ExecutionException, TimeoutException {
        JsonNode with = message.path("with");
        if (what.equals("begin")) {
            return begin((LineOrder) codec.read(with.path(0), LineOrder.class), back);
        }
        if (what.equals("trusts")) {
            Optional.ofNullable(keys.remove(with.path(0).asText()))
                    .ifPresent(waiting -> waiting.complete(with.path(1).asBoolean()));
            return Optional.empty();
        }
        Bench bench = benches.get(message.path("bench").asLong());
        if (bench == null) {
            return Optional.of("This line is no longer open at the vantage point.");
        }
        MemberLine line = bench.line;
        String first = with.path(0).asText();
        String second = with.path(1).asText();
        switch (what) {
            case "typed":
                return waited(line.typed(first, second));
            case "break":
                return waited(line.sendBreak(first));
            case "mode":
                return waited(line.mode(Mode.valueOf(first), second));
            case "goOn":
                return waited(line.goOn(first, second));
            case "again":
                return waited(line.again(first));
            case "halt":
                line.halt(first);
                break;
            case "take":
                line.take(first);
                break;
            case "resize":
                line.resize(with.path(0).asInt(), with.path(1).asInt());
                break;
            case "known":
                line.known(first, second);
                break;
            case "otherIsActive":
                line.otherIsActive();
                break;
            case "close":
                // who has lost the unit to another server may not close what that one carries on
                if (message.path("fence").asLong() >= bench.held.fence()) {
                    close(bench);
                }
                break;
            default:
                return Optional.of(
                        "The vantage point has another version of this program and does not know “" + what + "”.");
        }
        return Optional.empty();
    }

    private static Optional<String> waited(CompletableFuture<Optional<String>> decided)
            throws InterruptedException, java.util.concurrent.ExecutionException, TimeoutException {
        return decided.get(ANSWER_SECONDS, TimeUnit.SECONDS);
    }

    private Optional<String> begin(LineOrder order, Link back) throws IOException {
        Bench running = benches.get(order.dialogueId());
        if (running != null) {
            if (order.held().fence() >= running.held.fence()) {
                running.held = order.held();
                running.outbox.linked(back);
                tellStanding(running);
            }
            return Optional.empty();
        }
        Outbox old = left.get(order.dialogueId());
        if (old != null && !old.isEmpty()) {
            old.linked(back);
            return Optional.of(
                    "The vantage point has restarted. It first hands in what it recorded, then opens the line.");
        }
        Kind kind;
        try {
            kind = order.kind();
        } catch (KindFaults e) {
            return Optional.of("The vantage point cannot read the description of this kind: " + e.getMessage()
                    + " Bring both to the same version of the program.");
        }
        Dialogue dialogue = kind.dialogue().orElseThrow();
        Outbox outbox = new Outbox(order.dialogueId(), directory, codec, order.handedIn());
        outbox.linked(back);
        MemberLine line = new MemberLine(
                order.held(),
                order.kept(),
                new ConsoleLines.Line(order.address(), order.title()),
                dialogue,
                order.values(kind),
                this,
                pool,
                clockwork,
                clock);
        Bench bench = new Bench(line, outbox, order.held());
        benches.put(order.dialogueId(), bench);
        line.watch(new Onlooker() {
            @Override
            public void shown(String text) {
                outbox.tell(outbox.message().put("shown", text));
            }

            @Override
            public void changed(MemberLine.Standing standing) {
                tellStanding(bench, standing);
            }
        });
        line.open();
        return Optional.empty();
    }

    private void tellStanding(Bench bench) {
        bench.line.ask(standing -> tellStanding(bench, standing));
    }

    private void tellStanding(Bench bench, MemberLine.Standing standing) {
        ObjectNode message = bench.outbox.message();
        message.set("standing", codec.tree(standing));
        message.set("lacks", codec.tree(bench.line.lacks()));
        bench.outbox.tell(message);
    }

    private void close(Bench bench) {
        benches.remove(bench.line.dialogueId(), bench);
        bench.line.close();
        bench.outbox.end();
    }

    private void keepRecordings() {
        for (Bench bench : benches.values()) {
            List<Change.Piece> pieces = bench.line.takePieces();
            if (!pieces.isEmpty()) {
                bench.outbox.add(number -> LineOrder.Handed.recording(number, clock.instant(), pieces));
            }
        }
    }

    private Bench of(OpenLine line) {
        return benches.get(line.dialogueId());
    }

    // --- what a line works with ---

    @Override
    public void save(Held held, Change change, List<Change.Piece> pieces) throws HoldLost {
        Bench bench = benches.get(change.dialogueId());
        if (bench == null) {
            throw new HoldLost(ConsoleStore.LOST);
        }
        bench.outbox.keep(number -> LineOrder.Handed.of(number, change, pieces));
    }

    @Override
    public void save(Held held, List<Change.Piece> pieces) {
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
        from.outbox.tell(from.outbox.message().put("told", name).put("value", value));
    }

    @Override
    public void identified(OpenLine line) {
        Bench from = of(line);
        if (from != null) {
            benches.values().stream()
                    .filter(other -> other != from && other.held.runId() == from.held.runId())
                    .forEach(other -> other.line.otherIsActive());
            from.outbox.tell(from.outbox.message().put("identified", true));
        }
    }

    /** The server hears it with the last step; where it was cut off then, with the link. */
    @Override
    public void done(OpenLine line) {
        Bench from = of(line);
        if (from != null) {
            from.outbox.whenEmpty(() -> from.outbox.tell(from.outbox.message().put("done", true)));
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
                .forEach(bench -> bench.outbox.tell(
                        bench.outbox.message().put("key", fingerprint).put("server", server)));
        try {
            return answer.get(ANSWER_SECONDS, TimeUnit.SECONDS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return false;
        } catch (java.util.concurrent.ExecutionException | TimeoutException e) {
            return false; // cut off: what nobody can be asked about is not trusted
        }
    }
}
