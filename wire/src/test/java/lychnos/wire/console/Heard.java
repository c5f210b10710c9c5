package lychnos.wire.console;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.function.Predicate;

/** What came from a line, to be waited for. */
final class Heard implements LineEvents {

    private static final long PATIENCE_SECONDS = 20;

    private final StringBuilder text = new StringBuilder();
    private final List<String> notes = new ArrayList<>();
    private boolean up;
    private String down;
    private String fingerprint = "";
    private final Predicate<String> trusts;

    Heard() {
        this(key -> true);
    }

    Heard(Predicate<String> trusts) {
        this.trusts = trusts;
    }

    @Override
    public synchronized void up() {
        up = true;
        notifyAll();
    }

    @Override
    public synchronized void received(byte[] bytes) {
        text.append(new String(bytes, StandardCharsets.ISO_8859_1));
        notifyAll();
    }

    @Override
    public synchronized void down(String why) {
        down = why;
        notifyAll();
    }

    @Override
    public synchronized void noted(String sentence) {
        notes.add(sentence);
        notifyAll();
    }

    @Override
    public synchronized boolean hostKey(String shown) {
        fingerprint = shown;
        return trusts.test(shown);
    }

    synchronized List<String> notes() {
        return List.copyOf(notes);
    }

    synchronized String fingerprint() {
        return fingerprint;
    }

    void awaitUp() {
        await(heard -> heard.up);
    }

    /** @throws IllegalStateException if it went down before it was up */
    void awaitUpOrDown() {
        await(heard -> heard.up || heard.down != null);
        if (!up) {
            throw new IllegalStateException(down);
        }
    }

    String awaitDown() {
        await(heard -> heard.down != null);
        return down;
    }

    void awaitNote(String part) {
        await(heard -> heard.notes.stream().anyMatch(note -> note.contains(part)));
    }

    /** Waits until this was heard, and forgets everything up to its end. */
    void await(String part) {
        await(heard -> heard.text.indexOf(part) >= 0);
        synchronized (this) {
            text.delete(0, text.indexOf(part) + part.length());
        }
    }

    private synchronized void await(Predicate<Heard> condition) {
        long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(PATIENCE_SECONDS);
        while (!condition.test(this)) {
            long left = end - System.nanoTime();
            if (left <= 0) {
                throw new AssertionError("not heard in " + PATIENCE_SECONDS + " s; heard “" + text + "”, up " + up
                        + ", down " + down + ", notes " + notes);
            }
            try {
                TimeUnit.NANOSECONDS.timedWait(this, left);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                throw new AssertionError(e);
            }
        }
    }
}
