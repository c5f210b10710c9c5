package lychnos.server.prove;

import jakarta.enterprise.context.ApplicationScoped;
import java.util.ArrayList;
import java.util.List;
import lychnos.core.proof.Rung;
import lychnos.core.proof.Verdict;
import lychnos.server.run.Held;
import lychnos.server.run.HoldLost;
import lychnos.server.run.Runs;
import lychnos.server.run.Work;
import lychnos.server.store.Run;
import lychnos.wire.WireFault;

/** Checks the endpoints of one unit. A check that finds something is done all the same: what it found stands in the proof. */
@ApplicationScoped
public class ProveWork implements Work {

    private final Runs runs;
    private final Endpoints endpoints;
    private final Proofs proofs;
    private final Echoes echoes;

    ProveWork(Runs runs, Endpoints endpoints, Proofs proofs, Echoes echoes) {
        this.echoes = echoes;
        this.runs = runs;
        this.endpoints = endpoints;
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
        List<Endpoints.Endpoint> all = endpoints.of(held.unitId());
        if (all.isEmpty()) {
            runs.done(held, "It has no address any more.");
            return;
        }
        Integer rung = runs.look(held).rung;
        Rung upTo = rung == null ? Rung.SAFE : Rung.values()[rung];
        List<String> off = new ArrayList<>();
        for (Endpoints.Endpoint endpoint : all) {
            try {
                Verdict verdict = proofs.climb(endpoint, upTo, echoes.of(endpoint.target().address()));
                if (!verdict.proven()) {
                    off.add(all.size() == 1 ? verdict.sentence() : endpoint.claim().hostName + ": " + verdict.sentence());
                }
            } catch (WireFault e) {
                off.add(e.getMessage());
            }
            if (Thread.currentThread().isInterrupted()) {
                throw new HoldLost("this server is stopping");
            }
            if (runs.cancelled(held)) {
                return;
            }
        }
        runs.done(held, off.isEmpty() ? all.size() == 1 ? "It is proven." : "All " + all.size() + " endpoints are proven." : String.join(" ", off));
    }
}
