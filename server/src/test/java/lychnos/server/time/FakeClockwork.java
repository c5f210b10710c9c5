package lychnos.server.time;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.concurrent.AbstractExecutorService;
import java.util.concurrent.Callable;
import java.util.concurrent.Delayed;
import java.util.concurrent.FutureTask;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.ScheduledFuture;
import java.util.concurrent.TimeUnit;

/**
 * A clock that is turned by hand, and a scheduler that goes by it. What is due is done by the thread that turns the
 * clock.
 */
public final class FakeClockwork extends AbstractExecutorService implements ScheduledExecutorService {

    private final List<Due<?>> waiting = new ArrayList<>();
    private Instant now = Instant.parse("2026-11-23T09:00:00Z");
    private long next;

    /** Does everything that falls due meanwhile, in its order. */
    public void advance(Duration time) {
        Instant end = now.plus(time);
        while (true) {
            Due<?> next = waiting.stream()
                    .filter(due -> !due.at.isAfter(end))
                    .min(Comparator.<Due<?>, Instant>comparing(due -> due.at).thenComparing(due -> due.number))
                    .orElse(null);
            if (next == null) {
                now = end;
                return;
            }
            waiting.remove(next);
            now = next.at.isAfter(now) ? next.at : now;
            next.run();
        }
    }

    public Clock clock() {
        return new Clock() {
            @Override
            public Instant instant() {
                return now;
            }

            @Override
            public ZoneId getZone() {
                return ZoneOffset.UTC;
            }

            @Override
            public Clock withZone(ZoneId zone) {
                throw new UnsupportedOperationException();
            }
        };
    }

    private final class Due<V> extends FutureTask<V> implements ScheduledFuture<V> {
        private final Instant at;
        private final long number = next++;

        Due(Callable<V> work, Instant at) {
            super(work);
            this.at = at;
        }

        @Override
        public boolean cancel(boolean running) {
            waiting.remove(this);
            return super.cancel(running);
        }

        @Override
        public long getDelay(TimeUnit unit) {
            return unit.convert(Duration.between(now, at));
        }

        @Override
        public int compareTo(Delayed other) {
            return Long.compare(getDelay(TimeUnit.NANOSECONDS), other.getDelay(TimeUnit.NANOSECONDS));
        }
    }

    @Override
    public <V> ScheduledFuture<V> schedule(Callable<V> work, long delay, TimeUnit unit) {
        Due<V> due = new Due<>(work, now.plus(Duration.of(delay, unit.toChronoUnit())));
        waiting.add(due);
        return due;
    }

    @Override
    public ScheduledFuture<?> schedule(Runnable work, long delay, TimeUnit unit) {
        return schedule(
                () -> {
                    work.run();
                    return null;
                },
                delay,
                unit);
    }

    @Override
    public ScheduledFuture<?> scheduleAtFixedRate(Runnable work, long delay, long period, TimeUnit unit) {
        throw new UnsupportedOperationException();
    }

    @Override
    public ScheduledFuture<?> scheduleWithFixedDelay(Runnable work, long delay, long pause, TimeUnit unit) {
        throw new UnsupportedOperationException();
    }

    @Override
    public void execute(Runnable work) {
        work.run();
    }

    @Override
    public void shutdown() {
        waiting.clear();
    }

    @Override
    public List<Runnable> shutdownNow() {
        waiting.clear();
        return List.of();
    }

    @Override
    public boolean isShutdown() {
        return false;
    }

    @Override
    public boolean isTerminated() {
        return false;
    }

    @Override
    public boolean awaitTermination(long timeout, TimeUnit unit) {
        return true;
    }
}
