package lychnos.server.jobs;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.concurrent.locks.ReentrantLock;
import java.util.function.Function;
import java.util.function.Predicate;

/**
 * Writes what many threads hand in, several items in one transaction. The first thread writes at once; what is handed
 * in meanwhile becomes the next transaction. With hundreds of lines or checks the wait for the disk at each commit is
 * what costs. Each thread returns only once its own item is written.
 *
 * @param <T> an item
 * @param <R> what a written item comes to
 */
public final class GroupCommit<T, R> {

    /**
     * What an item came to.
     *
     * @param value what was written; null is a value
     * @param lost why nothing was written for it, or null
     */
    public record Outcome<R>(R value, HoldLost lost) {

        public static <R> Outcome<R> written(R value) {
            return new Outcome<>(value, null);
        }

        public static <R> Outcome<R> lost(String why) {
            return new Outcome<>(null, new HoldLost(why));
        }
    }

    /** An item that a thread waits for. Only the holder of the lock changes it. */
    private static final class Waiting<T, R> {
        private final T item;
        private Outcome<R> outcome;
        private RuntimeException fault;

        Waiting(T item) {
            this.item = item;
        }

        boolean over() {
            return outcome != null || fault != null;
        }
    }

    private final int most;
    private final Predicate<T> alone;
    private final Function<List<T>, List<Outcome<R>>> transaction;
    private final ReentrantLock writing = new ReentrantLock(true);
    private final Deque<Waiting<T, R>> queue = new ArrayDeque<>();

    /**
     * @param most items in one transaction; more gain little and hold their locks for longer
     * @param alone which items must have a transaction of their own
     * @param transaction writes items in one transaction; gives one outcome for each, in their order. When it
     *     throws for
     *     several, each of them is written in a transaction of its own, so that one bad item harms no other
     */
    public GroupCommit(int most, Predicate<T> alone, Function<List<T>, List<Outcome<R>>> transaction) {
        this.most = most;
        this.alone = alone;
        this.transaction = transaction;
    }

    /**
     * Returns once the item is in the database.
     *
     * @throws HoldLost if this server no longer holds what the item belongs to; nothing was written for it
     * @throws RuntimeException of the transaction, if the item cannot be written even on its own
     */
    public R commit(T item) throws HoldLost {
        Waiting<T, R> own = new Waiting<>(item);
        synchronized (queue) {
            queue.add(own);
        }
        writing.lock();
        try {
            while (!own.over()) {
                write(next());
            }
        } finally {
            writing.unlock();
        }
        if (own.fault != null) {
            throw own.fault;
        }
        if (own.outcome.lost != null) {
            throw own.outcome.lost;
        }
        return own.outcome.value;
    }

    private List<Waiting<T, R>> next() {
        List<Waiting<T, R>> together = new ArrayList<>();
        synchronized (queue) {
            do {
                together.add(queue.poll());
            } while (!alone.test(together.get(0).item)
                    && !queue.isEmpty()
                    && !alone.test(queue.peek().item)
                    && together.size() < most);
        }
        return together;
    }

    private void write(List<Waiting<T, R>> together) {
        try {
            List<Outcome<R>> outcomes =
                    transaction.apply(together.stream().map(each -> each.item).toList());
            if (outcomes.size() != together.size()) {
                throw new IllegalStateException(outcomes.size() + " outcomes for " + together.size() + " items");
            }
            for (int i = 0; i < together.size(); i++) {
                together.get(i).outcome = outcomes.get(i);
            }
        } catch (RuntimeException e) {
            if (together.size() == 1) {
                together.get(0).fault = e;
            } else {
                together.forEach(each -> write(List.of(each)));
            }
        }
    }
}
