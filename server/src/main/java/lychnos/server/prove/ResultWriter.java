package lychnos.server.prove;

import io.quarkus.narayana.jta.QuarkusTransaction;
import jakarta.enterprise.context.ApplicationScoped;
import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import lychnos.core.proof.Verdict;
import lychnos.server.jobs.GroupCommit;
import lychnos.server.jobs.GroupCommit.Outcome;
import lychnos.server.jobs.Held;
import lychnos.server.jobs.HoldLost;
import lychnos.server.jobs.Runs;
import lychnos.server.text.ProveText;

/** Writes the results of checks, those of many endpoints in one transaction, with one statement of each sort. */
@ApplicationScoped
public class ResultWriter {

    private static final int MOST_TOGETHER = 500;

    private final Runs runs;
    private final Proofs proofs;
    private final GroupCommit<Result, Written> commits =
            new GroupCommit<>(MOST_TOGETHER, result -> false, results -> QuarkusTransaction.requiringNew()
                    .call(() -> write(results)));

    ResultWriter(Runs runs, Proofs proofs) {
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
    record Result(Held held, Proofs.FoundAtEndpoint found, Note note) {}

    /**
     * What a result came to.
     *
     * @param verdict null where there is none
     * @param over whether the run is over: because nothing is left to do, or because it was cancelled
     */
    record Written(Verdict verdict, boolean over) {}

    /** Writes a result and what follows for its run; returns once it is in the database. */
    Written write(Result result) throws HoldLost {
        return commits.commit(result);
    }

    private List<Outcome<Written>> write(List<Result> all) {
        Set<Held> held = runs.stillHeld(all.stream().map(Result::held).toList());
        List<Result> found = all.stream()
                .filter(result -> held.contains(result.held) && result.found != null)
                .toList();
        List<Verdict> verdicts = proofs.keep(found.stream().map(Result::found).toList());
        Map<Result, Verdict> verdictOf = new IdentityHashMap<>();
        for (int i = 0; i < found.size(); i++) {
            verdictOf.put(found.get(i), verdicts.get(i));
        }
        List<Outcome<Written>> outcomes = new ArrayList<>();
        for (Result result : all) {
            Verdict verdict = verdictOf.get(result);
            outcomes.add(
                    held.contains(result.held)
                            ? Outcome.written(new Written(verdict, finish(result, verdict)))
                            : Outcome.lost(ProveText.ANOTHER_SERVER_HAS_TAKEN_THIS_OVER.text()));
        }
        return outcomes;
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
