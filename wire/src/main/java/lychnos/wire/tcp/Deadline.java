package lychnos.wire.tcp;

import java.io.Closeable;
import java.io.IOException;
import java.time.Duration;
import java.util.concurrent.ScheduledFuture;
import java.util.concurrent.ScheduledThreadPoolExecutor;
import java.util.concurrent.TimeUnit;

/**
 * Ends an exchange when its time is over, however often the peer said something meanwhile. A time-out of a read begins
 * again with each byte: a peer that sends one a second would hold it for hours.
 */
public final class Deadline implements AutoCloseable {

    private static final ScheduledThreadPoolExecutor CLOCKWORK = clockwork();

    private final ScheduledFuture<?> end;
    private volatile boolean over;

    private static ScheduledThreadPoolExecutor clockwork() {
        ScheduledThreadPoolExecutor clockwork = new ScheduledThreadPoolExecutor(1, work -> {
            Thread thread = new Thread(work, "deadlines");
            thread.setDaemon(true);
            return thread;
        });
        clockwork.setRemoveOnCancelPolicy(true);
        return clockwork;
    }

    private Deadline(Closeable connection, Duration after) {
        end = CLOCKWORK.schedule(
                () -> {
                    over = true;
                    try {
                        connection.close();
                    } catch (IOException e) {
                        // it is closed anyway; the reader gets the fault
                    }
                },
                after.toMillis(),
                TimeUnit.MILLISECONDS);
    }

    /** Closes the connection after this time, unless this is closed before. */
    public static Deadline of(Closeable connection, Duration after) {
        return new Deadline(connection, after);
    }

    /** Whether the time was over. */
    public boolean over() {
        return over;
    }

    @Override
    public void close() {
        end.cancel(false);
    }
}
