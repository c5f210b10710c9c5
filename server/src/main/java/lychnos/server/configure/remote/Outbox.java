package lychnos.server.configure.remote;

import java.io.FileOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.function.LongFunction;
import java.util.stream.Stream;
import lychnos.server.configure.line.DialogueMessage;
import lychnos.server.configure.line.LineOrder;
import lychnos.server.configure.model.ConsoleStore;
import lychnos.server.jobs.HoldLost;
import lychnos.wire.far.Codec;
import lychnos.wire.far.Link;
import lychnos.wire.far.LinkMessage;

/**
 * What of one dialogue is to be handed in, in order and each once. Steps are numbered; they stay in a file until the
 * server has said that it has kept them. Safe for use by several threads.
 */
final class Outbox {

    private static final String ENDING = ".steps";
    private static final long ANSWER_MILLIS = 15_000;
    private static final long AGAIN_MILLIS = 1_000;

    private final long dialogueId;
    private final Path file;
    private final Codec codec;
    private final Deque<LineOrder.HandedStep> waiting = new ArrayDeque<>();
    private final List<Runnable> whenEmpty = new ArrayList<>();
    private Link link;
    private long number;
    private boolean lost;

    /**
     * @param handedIn the number of the newest step that the server has of this dialogue; those from here on come after
     * it
     */
    Outbox(long dialogueId, Path directory, Codec codec, long handedIn) throws IOException {
        this.dialogueId = dialogueId;
        this.codec = codec;
        this.file = Files.createDirectories(directory).resolve(dialogueId + ENDING);
        this.number = handedIn;
    }

    /** Those that an earlier life of this program has left. */
    static List<Outbox> left(Path directory, Codec codec) throws IOException {
        List<Outbox> all = new ArrayList<>();
        if (!Files.isDirectory(directory)) {
            return all;
        }
        try (Stream<Path> files = Files.list(directory)) {
            for (Path each : files.filter(path -> path.getFileName().toString().matches("\\d+\\" + ENDING))
                    .toList()) {
                Outbox outbox = new Outbox(
                        Long.parseLong(each.getFileName().toString().replace(ENDING, "")), directory, codec, 0);
                for (String line : Files.readAllLines(each)) {
                    outbox.read(line);
                }
                all.add(outbox);
            }
        }
        return all;
    }

    /** A line that a crash has cut short was never acted upon. */
    private void read(String line) {
        try {
            waiting.add(codec.read(line, LineOrder.HandedStep.class));
        } catch (IOException e) {
            return;
        }
    }

    long dialogueId() {
        return dialogueId;
    }

    /** Tells what needs not be kept; it is lost where no link stands. */
    synchronized void tell(DialogueMessage message) {
        if (link != null) {
            try {
                link.send(new LinkMessage.Note(codec.tree(message)));
            } catch (IllegalStateException e) {
                cut(link);
            }
        }
    }

    synchronized boolean isEmpty() {
        return waiting.isEmpty();
    }

    synchronized void whenEmpty(Runnable work) {
        whenEmpty.add(work);
        workIfEmpty();
    }

    /**
     * What is left to be done once everything is handed in waits for a link too, since it tells the server something.
     */
    private void workIfEmpty() {
        if (waiting.isEmpty() && link != null) {
            List<Runnable> now = List.copyOf(whenEmpty);
            whenEmpty.clear();
            now.forEach(Runnable::run);
        }
    }

    /** A link stands: everything that was not taken is handed in, in order. */
    synchronized void linked(Link to) {
        link = to;
        waiting.forEach(this::hand);
        workIfEmpty();
    }

    synchronized void cut(Link which) {
        if (link == which) {
            link = null;
            notifyAll();
        }
    }

    private void hand(LineOrder.HandedStep step) {
        tell(new DialogueMessage.HandIn(dialogueId, step));
    }

    /** Adds a step and goes on. */
    synchronized long add(LongFunction<LineOrder.HandedStep> made) {
        LineOrder.HandedStep step = made.apply(++number);
        waiting.add(step);
        write(step);
        if (link != null) {
            hand(step);
        }
        return step.number();
    }

    /**
     * Adds a step, and returns once the server has kept it; or at once where no link stands, since it is in the file.
     *
     * @throws HoldLost where the server says that it has the unit no more
     */
    synchronized void keep(LongFunction<LineOrder.HandedStep> made) throws HoldLost {
        long own = add(made);
        long end = System.nanoTime() + ANSWER_MILLIS * 1_000_000;
        while (link != null && !lost && waiting.stream().anyMatch(step -> step.number() <= own)) {
            long left = (end - System.nanoTime()) / 1_000_000;
            if (left <= 0) {
                break; // a link over which nothing is answered is none
            }
            try {
                wait(left);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                break;
            }
        }
        if (lost) {
            throw new HoldLost(ConsoleStore.LOST);
        }
    }

    /** The server has everything up to this step. */
    synchronized void kept(long upTo) {
        waiting.removeIf(step -> step.number() <= upTo);
        if (waiting.isEmpty()) {
            forget();
        }
        workIfEmpty();
        notifyAll();
    }

    /** The server does not want the steps of this dialogue any more. */
    synchronized void lost() {
        lost = true;
        waiting.clear();
        forget();
        notifyAll();
    }

    /** The server could not keep a step; everything is handed in again in a moment. */
    synchronized void again() {
        Link now = link;
        java.util.concurrent.CompletableFuture.delayedExecutor(AGAIN_MILLIS, java.util.concurrent.TimeUnit.MILLISECONDS)
                .execute(() -> handAgain(now));
    }

    private synchronized void handAgain(Link over) {
        if (link == over && link != null) {
            waiting.forEach(this::hand);
        }
    }

    /** In the file, and on the disk, before anybody acts upon it. */
    private void write(LineOrder.HandedStep step) {
        try (FileOutputStream out = new FileOutputStream(file.toFile(), true)) {
            out.write((codec.write(step) + "\n").getBytes(StandardCharsets.UTF_8));
            out.getFD().sync();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private void forget() {
        try {
            Files.deleteIfExists(file);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** The dialogue is over here. */
    synchronized void end() {
        if (waiting.isEmpty()) {
            forget();
        }
        link = null;
        lost = true;
        notifyAll();
    }
}
