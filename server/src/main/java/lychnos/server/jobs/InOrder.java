package lychnos.server.jobs;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.Executor;
import java.util.function.Supplier;
import org.jboss.logging.Logger;

/**
 * Does what it is given one after the other on threads of a shared pool; what is urgent goes to the front. What throws
 * is logged, and the next is done anyway: also after an error, such as that of a pattern which goes too deep.
 */
public final class InOrder {

    private static final Logger LOG = Logger.getLogger(InOrder.class);

    private final Executor pool;
    private final Deque<Runnable> waiting = new ArrayDeque<>();
    private boolean running;

    public InOrder(Executor pool) {
        this.pool = pool;
    }

    public synchronized void add(Runnable work) {
        waiting.addLast(work);
        begin();
    }

    public synchronized void addFirst(Runnable work) {
        waiting.addFirst(work);
        begin();
    }

    /** Does something and completes with what it gives, or with what it throws. */
    public <T> CompletableFuture<T> answer(Supplier<T> act) {
        CompletableFuture<T> answer = new CompletableFuture<>();
        add(() -> {
            try {
                answer.complete(act.get());
            } catch (RuntimeException e) {
                answer.completeExceptionally(e);
            }
        });
        return answer;
    }

    private void begin() {
        if (!running) {
            running = true;
            pool.execute(this::run);
        }
    }

    private void run() {
        while (true) {
            Runnable next;
            synchronized (this) {
                next = waiting.pollFirst();
                if (next == null) {
                    running = false;
                    return;
                }
            }
            try {
                next.run();
            } catch (RuntimeException | Error e) {
                LOG.errorf(e, "A task in a queue has failed; the next one is started.");
            }
        }
    }
}
