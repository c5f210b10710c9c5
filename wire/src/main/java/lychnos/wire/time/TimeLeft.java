package lychnos.wire.time;

import java.time.Duration;

/** What is left of a time limit. A socket waits for real time, so that is what is measured unless a test says else. */
public final class TimeLeft {

    private static final long MILLI = 1_000_000;

    private final Ticker ticker;
    private final long end;

    private TimeLeft(Duration limit, Ticker ticker) {
        this.ticker = ticker;
        this.end = ticker.nanos() + limit.toNanos();
    }

    /** A limit that begins now. */
    public static TimeLeft of(Duration limit) {
        return of(limit, Ticker.SYSTEM);
    }

    static TimeLeft of(Duration limit, Ticker ticker) {
        return new TimeLeft(limit, ticker);
    }

    public boolean over() {
        return end - ticker.nanos() < MILLI;
    }

    /** What is left; nothing, once it is over. */
    public Duration duration() {
        return Duration.ofNanos(Math.max(0, end - ticker.nanos()));
    }

    /** Whole milliseconds that are left, at least one: to a socket none would mean no limit at all. */
    public int millis() {
        return (int) Math.max(1, Math.min(Integer.MAX_VALUE, (end - ticker.nanos()) / MILLI));
    }
}
