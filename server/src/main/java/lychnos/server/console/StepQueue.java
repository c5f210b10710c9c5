package lychnos.server.console;

import jakarta.enterprise.context.ApplicationScoped;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.concurrent.locks.ReentrantLock;
import lychnos.server.console.StepWriter.Step;
import lychnos.server.run.HoldLost;

/**
 * Keeps steps of all lines. Whoever comes first writes at once; what comes while that one writes is the next
 * transaction, of all of it together: with two hundred lines a transaction for each step is what costs. Nobody goes on
 * before its own step is kept.
 */
@ApplicationScoped
class StepQueue {

    /** More in one transaction gains nothing and holds the locks of their runs for longer. */
    private static final int MOST_TOGETHER = 64;

    private final ConsoleStore store;
    private final ReentrantLock writing = new ReentrantLock(true);
    private final Deque<Waiting> queue = new ArrayDeque<>();

    StepQueue(ConsoleStore store) {
        this.store = store;
    }

    /** A step that somebody waits for. Only whoever holds the lock of writing changes it. */
    private static final class Waiting {
        final Step step;
        boolean over;
        HoldLost lost;
        RuntimeException fault;

        Waiting(Step step) {
            this.step = step;
        }
    }

    /**
     * Returns once the step is in the database.
     *
     * @throws HoldLost where this server has the unit no more; nothing was written
     */
    void save(Step step) throws HoldLost {
        Waiting own = new Waiting(step);
        synchronized (queue) {
            queue.add(own);
        }
        writing.lock();
        try {
            while (!own.over) {
                write(next());
            }
        } finally {
            writing.unlock();
        }
        if (own.lost != null) {
            throw own.lost;
        }
        if (own.fault != null) {
            throw own.fault;
        }
    }

    /**
     * Steps from the head of the queue; one that changes the plan goes alone, since it writes before the fence is
     * looked at.
     */
    private List<Waiting> next() {
        List<Waiting> together = new ArrayList<>();
        synchronized (queue) {
            do {
                together.add(queue.poll());
            } while (together.get(0).step.change().steps() == null
                    && !queue.isEmpty()
                    && queue.peek().step.change().steps() == null
                    && together.size() < MOST_TOGETHER);
        }
        return together;
    }

    private void write(List<Waiting> together) {
        if (together.size() == 1) {
            writeAlone(together.get(0));
            return;
        }
        try {
            List<Boolean> ours =
                    store.saveAll(together.stream().map(each -> each.step).toList());
            for (int i = 0; i < ours.size(); i++) {
                together.get(i).lost = ours.get(i) ? null : new HoldLost(ConsoleStore.LOST);
                together.get(i).over = true;
            }
        } catch (RuntimeException e) {
            // one of them cannot be kept, or none: each for itself tells
            together.forEach(this::writeAlone);
        }
    }

    private void writeAlone(Waiting each) {
        try {
            store.save(each.step);
        } catch (HoldLost e) {
            each.lost = e;
        } catch (RuntimeException e) {
            each.fault = e;
        } finally {
            each.over = true;
        }
    }
}
