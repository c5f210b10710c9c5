package lychnos.server.prove;

import io.quarkus.narayana.jta.QuarkusTransaction;
import jakarta.enterprise.context.ApplicationScoped;
import java.util.ArrayList;
import java.util.List;
import java.util.Queue;
import java.util.Set;
import java.util.concurrent.ConcurrentLinkedQueue;
import lychnos.core.proof.Verdict;
import lychnos.server.run.Held;
import lychnos.server.run.HoldLost;
import lychnos.server.run.Runs;
import org.jboss.logging.Logger;

/**
 * Writes what checks come to. Whoever has a result while another one is being written waits, and the next to write
 * takes all that has come meanwhile into one transaction: one wait for the disk and one statement of each sort for many
 * of them.
 */
@ApplicationScoped
public class Keeping {

    private static final Logger LOG = Logger.getLogger(Keeping.class);

    private final Runs runs;
    private final Proofs proofs;
    private final Queue<Waiting> queue = new ConcurrentLinkedQueue<>();

    Keeping(Runs runs, Proofs proofs) {
        this.runs = runs;
        this.proofs = proofs;
    }

    /** What is noted with a check, once its verdict is known (null where there is none). */
    @FunctionalInterface
    interface Note {
        /** @return null where more of its endpoints are still to come */
        String of(Verdict verdict); // asked again where something could not be written with others
    }

    /**
     * What a check came to at one endpoint.
     *
     * @param found null where this server itself could not look
     */
    record Result(Held held, Proofs.Found found, Note note) {}

    /**
     * What a result came to.
     *
     * @param verdict null where there is none
     * @param over whether the run is over: because nothing is left to do, or because somebody cancelled it
     */
    record Kept(Verdict verdict, boolean over) {}

    private static final class Waiting {
        final Result result;
        boolean written;
        boolean over;
        Verdict verdict;
        /** Why it was not written, or null. */
        Exception fault;

        Waiting(Result result) {
            this.result = result;
        }
    }

    /**
     * Writes a result and what follows for its run; returns once it is there.
     *
     * @return what it came to
     */
    Kept keep(Result result) throws HoldLost {
        Waiting waiting = new Waiting(result);
        queue.add(waiting);
        synchronized (this) {
            if (!waiting.written) {
                writeAll();
            }
        }
        if (waiting.fault instanceof HoldLost lost) {
            throw lost;
        } else if (waiting.fault != null) {
            throw (RuntimeException) waiting.fault;
        }
        return new Kept(waiting.verdict, waiting.over);
    }

    private void writeAll() {
        List<Waiting> all = new ArrayList<>();
        for (Waiting next = queue.poll(); next != null; next = queue.poll()) {
            all.add(next);
        }
        try {
            QuarkusTransaction.requiringNew().run(() -> write(all));
        } catch (RuntimeException e) {
            if (all.size() == 1) {
                all.get(0).fault = e;
            } else {
                LOG.debugf(e, "%d results cannot be kept together", all.size());
                all.forEach(this::writeAlone);
            }
        }
        all.forEach(waiting -> waiting.written = true);
    }

    /** So that what is wrong with one is no harm to the others. */
    private void writeAlone(Waiting waiting) {
        try {
            QuarkusTransaction.requiringNew().run(() -> write(List.of(waiting)));
        } catch (RuntimeException e) {
            waiting.fault = e;
        }
    }

    private void write(List<Waiting> all) {
        Set<Held> still =
                runs.stillHeld(all.stream().map(waiting -> waiting.result.held).toList());
        List<Waiting> found = all.stream()
                .filter(waiting -> still.contains(waiting.result.held) && waiting.result.found != null)
                .toList();
        List<Verdict> verdicts =
                proofs.keep(found.stream().map(waiting -> waiting.result.found).toList());
        for (int i = 0; i < found.size(); i++) {
            found.get(i).verdict = verdicts.get(i);
        }
        for (Waiting waiting : all) {
            waiting.fault =
                    still.contains(waiting.result.held) ? null : new HoldLost("another server has taken this over");
            if (waiting.fault == null) {
                waiting.over = finish(waiting.result, waiting.verdict);
            }
        }
    }

    private boolean finish(Result result, Verdict verdict) {
        String note = result.note.of(verdict);
        try {
            if (note == null) {
                return runs.cancelled(result.held);
            }
            runs.done(result.held, note);
            return true;
        } catch (HoldLost e) {
            throw new IllegalStateException("a run that is locked was taken over", e);
        }
    }
}
