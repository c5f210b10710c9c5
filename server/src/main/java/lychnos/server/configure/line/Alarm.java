package lychnos.server.configure.line;

import java.time.Duration;
import java.util.Optional;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.ScheduledFuture;
import java.util.concurrent.TimeUnit;

/** The next moment at which a conversation has something to do without being told anything. */
final class Alarm {

    private final ScheduledExecutorService clockwork;
    private ScheduledFuture<?> next;

    Alarm(ScheduledExecutorService clockwork) {
        this.clockwork = clockwork;
    }

    /**
     * Does something after a while, in place of what was set before; nothing, if there is no while. One below zero is
     * over already.
     */
    void set(Optional<Duration> after, Runnable what) {
        cancel();
        next = after.map(wait -> clockwork.schedule(what, Math.max(0, wait.toMillis()) + 1, TimeUnit.MILLISECONDS))
                .orElse(null);
    }

    void cancel() {
        if (next != null) {
            next.cancel(false);
        }
    }
}
