package lychnos.lab.console;

import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import java.util.regex.Pattern;

/** A machine with a console: what it says and hears, its power and its memory. What it asks is each model's own. */
abstract class ConsoleMachine implements SerialPort, SshDoors.Shell {

    private static final int LONGEST_LINE = 400;
    private static final int CUT_AFTER = 4;

    /** Somebody at the machine over the network. */
    private record Far(Consumer<byte[]> hears, BlockingQueue<Character> keys) {}

    /** The machine restarts. */
    static final class Restart extends Exception {
        Restart() {
            super("restart", null, false, false);
        }
    }

    final ConsoleSpec spec;
    final Memory memory;
    private final long restartMillis;
    private final BlockingQueue<Character> keys = new LinkedBlockingQueue<>();
    private final Thread thread;
    /** Where somebody who signed in over the network types, and reads; of the thread that serves it. */
    private final ThreadLocal<Far> far = new ThreadLocal<>();

    private volatile Consumer<byte[]> hears;
    private volatile Runnable cut;
    /** Nobody comes onto the line between a question's greeting and the question. */
    private final Object asking = new Object();
    /** Somebody came onto the line after the machine had said who it is. */
    private volatile boolean missedGreeting;
    /** The question that stands now, or null. */
    private volatile String standing;

    private long bootedAt;

    ConsoleMachine(ConsoleSpec spec, Memory memory, long restartMillis) {
        this.spec = spec;
        this.memory = memory;
        this.restartMillis = restartMillis * (spec.has(Habit.SLOW) ? 10 : 1);
        thread = new Thread(null, this::power, spec.serial(), 256 * 1024);
        thread.setDaemon(true);
    }

    void powerOn() {
        if (!memory.has("seen.begun")) {
            memory.put("seen.begun", "yes");
            if (spec.has(Habit.USED)) {
                pretendUsed();
            }
        }
        thread.start();
    }

    void powerOff() {
        thread.interrupt();
        networkDown();
    }

    /** Everything from power-on to the next restart. */
    abstract void live() throws InterruptedException, Restart;

    /** Gives it a memory of an earlier life. */
    abstract void pretendUsed();

    /** Takes its addresses off the wire. */
    abstract void networkDown();

    private void power() {
        try {
            if (spec.has(Habit.NEVER_RETURNS) && memory.count("seen.restarts") > 0) {
                return; // not after its power was cut either
            }
            while (true) {
                bootedAt = System.nanoTime();
                keys.clear();
                try {
                    live();
                } catch (Restart restart) {
                    networkDown();
                    memory.add("seen.restarts");
                    print("\r\n");
                    if (spec.has(Habit.NEVER_RETURNS)) {
                        Thread.sleep(Long.MAX_VALUE);
                    }
                    Thread.sleep(restartMillis);
                }
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    final long restartMillis() {
        return restartMillis;
    }

    String serial() {
        return spec.has(Habit.OTHER_SERIAL) ? spec.serial() + "-X" : spec.serial();
    }

    /** The version of its software as it shows it: an older one where the machine has that habit. */
    final String release(String current) {
        return spec.has(Habit.OLD_RELEASE) ? "1.0" + current.substring(current.indexOf('.')) : current;
    }

    /** What its clock says, in UTC: hours behind where the machine has that habit. */
    final String clock() {
        return Instant.now()
                .minus(Duration.ofHours(spec.has(Habit.CLOCK_WRONG) ? 3 : 0))
                .truncatedTo(ChronoUnit.SECONDS)
                .toString();
    }

    // --- over the network ---

    /** Whether somebody may sign in over SSH; most models let nobody in. */
    boolean signsIn(String user, String phrase) {
        return false;
    }

    /** What it asks and shows after a login, on its line or over SSH. */
    void shell() throws InterruptedException, Restart {
        line("nothing is to be seen here");
    }

    @Override
    public final boolean knows(String user, String phrase) {
        return signsIn(user, phrase);
    }

    @Override
    public final boolean opensTo(String user, String phrase) {
        boolean admitted = signsIn(user, phrase);
        memory.add(admitted ? "seen.sshLogins" : "seen.refusedSshLogins");
        return admitted;
    }

    @Override
    public final void serve(BlockingQueue<Character> typed, Consumer<byte[]> listener) {
        far.set(new Far(listener, typed));
        try {
            shell();
        } catch (Restart restart) {
            line("only on its own line");
        } catch (InterruptedException gone) {
            // the session has ended
        } finally {
            far.remove();
        }
    }

    private static char endsAtGone(char key) throws InterruptedException {
        if (key == GONE) {
            throw new InterruptedException("gone");
        }
        return key;
    }

    // --- the line ---

    @Override
    public void attach(Consumer<byte[]> listener, Runnable cutter) {
        synchronized (asking) {
            hears = listener;
            cut = cutter;
            missedGreeting = listener != null && !greeting().isEmpty();
            if (missedGreeting && standing != null) {
                greet();
                print(standing);
            }
        }
    }

    /** What it shows when the line is opened; empty for the many machines that do not notice. */
    String greeting() {
        return "";
    }

    final void greet() {
        missedGreeting = false;
        line("");
        line(greeting());
    }

    @Override
    public void typed(byte[] bytes) {
        for (byte each : bytes) {
            keys.add((char) (each & 0xff));
        }
    }

    @Override
    public void breakSeen() {
        memory.add("seen.breaks");
    }

    final void print(String text) {
        Consumer<byte[]> listener = far.get() == null ? hears : far.get().hears;
        if (listener != null) {
            listener.accept(text.getBytes(StandardCharsets.ISO_8859_1));
        }
    }

    final void line(String text) {
        print(text + "\r\n");
    }

    /** A log line, as the machine's own clock numbers it. */
    final void log(String text) {
        print(logLine(text));
    }

    String logLine(String text) {
        return String.format("[%8.2f] %s\r\n", (System.nanoTime() - bootedAt) / 1e9, text);
    }

    final char key() throws InterruptedException {
        return far.get() == null ? keys.take() : endsAtGone(far.get().keys.take());
    }

    /** The next key, or 0 if none comes in time. */
    final char key(long millis) throws InterruptedException {
        Character key = (far.get() == null ? keys : far.get().keys).poll(millis, TimeUnit.MILLISECONDS);
        return key == null ? 0 : endsAtGone(key);
    }

    final void pause(long millis) throws InterruptedException {
        Thread.sleep(millis * (spec.has(Habit.SLOW) ? 10 : 1));
    }

    /** Asks, and reads up to Enter. */
    final String ask(String prompt, boolean echo) throws InterruptedException {
        if (far.get() != null) {
            print(prompt);
            return read(prompt, echo);
        }
        synchronized (asking) {
            if (missedGreeting) {
                greet();
            }
            print(prompt);
            standing = prompt;
        }
        try {
            String answer = read(prompt, echo && !spec.has(Habit.ECHO_OFF));
            answered();
            pause(15);
            return answer;
        } finally {
            standing = null;
        }
    }

    final String ask(String prompt) throws InterruptedException {
        return ask(prompt, true);
    }

    /** Asks until an answer is of the wanted form; each other one is refused with these words. */
    final String ask(String prompt, Pattern wanted, String refusal) throws InterruptedException {
        String typed = ask(prompt);
        while (!wanted.matcher(typed).matches()) {
            line(refusal);
            typed = ask(prompt);
        }
        return typed;
    }

    /** Refuses what was typed the first time, whatever it is, where the machine has that habit. */
    final boolean refusesOnce() {
        if (!spec.has(Habit.REFUSED_ANSWER) || memory.count("seen.refusedHops") > 0) {
            return false;
        }
        memory.add("seen.refusedHops");
        return true;
    }

    /** The address that it keeps although it was told this one. */
    final String keptAddress(String told) {
        return spec.has(Habit.OLD_ADDRESS) ? told.replaceFirst("\\d+(?=$|/)", "199") : told;
    }

    private void answered() {
        memory.add("seen.answers");
        if (spec.has(Habit.LINE_CUT) && memory.count("seen.answers") == CUT_AFTER && cut != null) {
            cut.run();
        }
    }

    /** Whether a key does something of its own while this question stands. */
    boolean special(char key, String prompt) {
        return false;
    }

    private String read(String prompt, boolean echo) throws InterruptedException {
        StringBuilder text = new StringBuilder();
        boolean chattered = false;
        while (true) {
            char key = spec.has(Habit.CHATTER) && !chattered ? key(120) : key();
            if (key == 0) {
                chattered = true;
                chatter(prompt, echo ? text.toString() : "");
            } else if (special(key, prompt)) {
                text.setLength(0);
            } else if (key == '\r') {
                line("");
                return text.toString().strip();
            } else if (key == '\b' || key == 0x7f) {
                if (text.length() > 0) {
                    text.setLength(text.length() - 1);
                    print(echo ? "\b \b" : "");
                }
            } else if (key == '\f') {
                redraw(prompt);
            } else if (key >= ' ' && text.length() < LONGEST_LINE) {
                text.append(key);
                print(echo ? String.valueOf(key) : "");
            }
        }
    }

    /** A log line falls into the question; some machines draw the question again, this one does not. */
    void chatter(String prompt, String typed) {
        line("");
        print(logLine("port 3 link flaps"));
    }

    void redraw(String prompt) {
        print("\r\n" + prompt);
    }

    final boolean isAsking() {
        return standing != null;
    }
}
