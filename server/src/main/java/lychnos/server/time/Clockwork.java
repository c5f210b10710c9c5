package lychnos.server.time;

import io.quarkus.runtime.ShutdownEvent;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.enterprise.event.Observes;
import java.time.Duration;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.ScheduledThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import org.jboss.logging.Logger;

/**
 * What the server does again and again, or a moment later: one pool of threads that ends with the server. What repeats
 * never runs twice at once; a failure is logged and ends nothing. Safe for use by many threads.
 */
@ApplicationScoped
public class Clockwork {

    private static final Logger LOG = Logger.getLogger(Clockwork.class);
    /** More than there is that repeats, so that what waits for a slow peer does not hold up the rest. */
    private static final int THREADS = 16;

    private final ScheduledThreadPoolExecutor threads = new ScheduledThreadPoolExecutor(THREADS, work -> {
        Thread thread = new Thread(work, "clockwork");
        thread.setDaemon(true);
        return thread;
    });

    Clockwork() {
        // lines set an alarm and take it back at each letter
        threads.setRemoveOnCancelPolicy(true);
    }

    void stop(@Observes ShutdownEvent event) {
        threads.shutdownNow();
    }

    /**
     * Repeats work, with a pause after each time.
     *
     * @param failing what the log says if it throws, such as “Checks cannot be repeated now”
     */
    public void every(Duration pause, String failing, Runnable work) {
        threads.scheduleWithFixedDelay(
                () -> carryOut(failing + "; trying again", work),
                pause.toMillis(),
                pause.toMillis(),
                TimeUnit.MILLISECONDS);
    }

    /** Does work once, after a pause. Does nothing any more while the server stops. */
    public void after(Duration pause, String failing, Runnable work) {
        if (!threads.isShutdown()) {
            threads.schedule(() -> carryOut(failing, work), pause.toMillis(), TimeUnit.MILLISECONDS);
        }
    }

    private void carryOut(String failing, Runnable work) {
        try {
            work.run();
        } catch (RuntimeException e) {
            if (threads.isShutdown()) {
                LOG.debugf(e, "%s; the server stops", failing);
            } else {
                LOG.warnf("%s (%s)", failing, e.getMessage());
            }
        }
    }

    /** For what sets alarms of its own. */
    public ScheduledExecutorService threads() {
        return threads;
    }
}
