package lychnos.server.prove;

import jakarta.enterprise.context.ApplicationScoped;
import lychnos.core.proof.Verdict;
import lychnos.server.run.Held;
import lychnos.server.run.HoldLost;
import lychnos.server.run.Runs;
import lychnos.server.run.Work;
import lychnos.server.store.Run;
import lychnos.wire.WireFault;

/** Checks one endpoint. A check that finds something is done all the same: what it found stands in the proof. */
@ApplicationScoped
public class ProveWork implements Work {

    private final Runs runs;
    private final Targets targets;
    private final Proofs proofs;

    ProveWork(Runs runs, Targets targets, Proofs proofs) {
        this.runs = runs;
        this.targets = targets;
        this.proofs = proofs;
    }

    @Override
    public String purpose() {
        return Run.PROVE;
    }

    @Override
    public void carryOut(Held held) throws HoldLost {
        if (runs.cancelled(held)) {
            return;
        }
        var subject = targets.subject(held.unitId());
        if (subject.isEmpty()) {
            runs.done(held, "It has no address any more.");
            return;
        }
        try {
            Verdict verdict = proofs.climb(subject.get());
            if (Thread.currentThread().isInterrupted()) {
                throw new HoldLost("this server is stopping");
            }
            runs.done(held, verdict.sentence());
        } catch (WireFault e) {
            runs.done(held, e.getMessage());
        }
    }
}
