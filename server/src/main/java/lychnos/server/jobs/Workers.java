package lychnos.server.jobs;

import io.quarkus.runtime.ShutdownEvent;
import io.quarkus.runtime.StartupEvent;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.enterprise.event.Observes;
import jakarta.enterprise.inject.Instance;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.Semaphore;
import lychnos.server.LychnosConfig;
import lychnos.server.database.DatabaseTrouble;
import lychnos.server.text.JobText;
import lychnos.server.time.Clockwork;
import org.jboss.logging.Logger;

/**
 * Works on runs: a few threads, a claim every so often, a lease that is renewed while the work goes on. When this
 * server is asked to stop it leaves its runs where they are; the next one to come goes on with them.
 */
@ApplicationScoped
public class Workers {

    private static final Logger LOG = Logger.getLogger(Workers.class);
    private static final String NOT_CLAIMED = JobText.RUNS_CANNOT_BE_CLAIMED.text();

    private final Runs runs;
    private final Instance<Work> works;
    private final LychnosConfig config;
    private final ExecutorService threads;
    private final Clockwork clockwork;
    private final Semaphore room;
    private final Map<Held, Future<?>> atWork = new ConcurrentHashMap<>();
    private volatile boolean stopping;
    /** Whether more than could be taken was waiting the last time. */
    private volatile boolean more;

    Workers(Runs runs, Instance<Work> works, LychnosConfig config, Clockwork clockwork) {
        this.clockwork = clockwork;
        this.runs = runs;
        this.works = works;
        this.config = config;
        this.threads = Executors.newFixedThreadPool(config.run().workers());
        this.room = new Semaphore(config.run().workers());
    }

    void start(@Observes StartupEvent event) {
        clockwork.every(Runs.CLAIMED_EVERY, NOT_CLAIMED, this::claim);
        clockwork.every(runs.renewedEvery(), "Leases cannot be renewed now", this::renew);
    }

    void stop(@Observes ShutdownEvent event) {
        stopping = true;
        threads.shutdownNow();
    }

    private synchronized void claim() {
        int most = room.availablePermits();
        if (stopping || most == 0) {
            return;
        }
        List<Held> claimed = runs.claim(most);
        more = claimed.size() == most;
        for (Work work : works) {
            work.takenOn(claimed.stream()
                    .filter(held -> work.purpose().equals(held.purpose()))
                    .toList());
        }
        for (Held held : claimed) {
            room.acquireUninterruptibly();
            // registered under a lock that the work takes first, so that it cannot end before it is known
            synchronized (atWork) {
                atWork.put(held, threads.submit(() -> work(held)));
            }
        }
    }

    private void renew() {
        for (Held lost : runs.renew(List.copyOf(atWork.keySet()))) {
            Future<?> work = atWork.get(lost);
            if (work != null) {
                work.cancel(true);
            }
        }
    }

    private void work(Held held) {
        try {
            synchronized (atWork) {
                LOG.debugf("at work on %s", held);
            }
            for (Work work : works) {
                if (work.purpose().equals(held.purpose())) {
                    work.carryOut(held);
                }
            }
        } catch (HoldLost e) {
            LOG.infof("let go of run %d: %s", held.runId(), e.getMessage());
        } catch (RuntimeException e) {
            if (DatabaseTrouble.of(e).isPresent()) {
                // it stays where the database has it; a server that finds its lease over continues from there
                LOG.warnf("let go of run %d: %s", held.runId(), e.getMessage());
            } else if (!stopping) {
                LOG.errorf(e, "run %d", held.runId());
                stopUnexpected(held, e);
            }
        } finally {
            atWork.remove(held);
            room.release();
            // many short ones wait for nobody's clock; one by one they would cost a transaction each
            if (more && !stopping && room.availablePermits() >= config.run().workers() / 4) {
                more = false;
                clockwork.after(Duration.ZERO, NOT_CLAIMED, this::claim);
            }
        }
    }

    private void stopUnexpected(Held held, RuntimeException fault) {
        try {
            runs.stop(
                    held,
                    null,
                    JobText.INTERNAL_ERROR.text(fault.getClass().getSimpleName()),
                    JobText.SEE_THE_SERVER_LOG.text());
        } catch (HoldLost | RuntimeException e) {
            LOG.warnf("run %d could not be stopped: %s", held.runId(), e.getMessage());
        }
    }
}
