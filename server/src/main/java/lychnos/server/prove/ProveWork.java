package lychnos.server.prove;

import jakarta.enterprise.context.ApplicationScoped;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Stream;
import lychnos.core.proof.Rung;
import lychnos.core.proof.Verdict;
import lychnos.server.jobs.Held;
import lychnos.server.jobs.HoldLost;
import lychnos.server.jobs.Run;
import lychnos.server.jobs.Runs;
import lychnos.server.jobs.Work;
import lychnos.server.text.ProveText;
import lychnos.wire.fault.WireFault;
import org.jboss.logging.Logger;

/**
 * Checks the endpoints of one unit. A check that finds a fault has succeeded: what it found is in the
 * proof. There may be thousands of these that take no time, so what they need is read for all that were taken together,
 * and what they come to is written by {@link ResultWriter} for all that are ready together.
 */
@ApplicationScoped
public class ProveWork implements Work {

    private static final Logger LOG = Logger.getLogger(ProveWork.class);

    private final Runs runs;
    private final Endpoints endpoints;
    private final Proofs proofs;
    private final ResultWriter results;
    private final Echoes echoes;
    private final Map<Held, EndpointBrief> briefs = new ConcurrentHashMap<>();

    ProveWork(Runs runs, Endpoints endpoints, Proofs proofs, ResultWriter results, Echoes echoes) {
        this.runs = runs;
        this.endpoints = endpoints;
        this.proofs = proofs;
        this.results = results;
        this.echoes = echoes;
    }

    /** What a check looks at. */
    private record EndpointBrief(List<Endpoints.TargetEndpoint> endpoints, Rung upTo) {}

    @Override
    public String purpose() {
        return Run.PROVE;
    }

    @Override
    public void takenOn(List<Held> together) {
        if (together.isEmpty()) {
            return;
        }
        try {
            briefs.putAll(read(together));
        } catch (RuntimeException e) {
            // one of them may be at fault: each reads for itself then
            LOG.debugf(e, "%d checks cannot be read together", together.size());
        }
    }

    private Map<Held, EndpointBrief> read(List<Held> together) {
        Map<Long, Integer> rungs = runs.rungs(together);
        Map<Long, List<Endpoints.TargetEndpoint>> all =
                endpoints.of(together.stream().map(Held::unitId).toList());
        Map<Held, EndpointBrief> read = new ConcurrentHashMap<>();
        for (Held held : together) {
            Integer rung = rungs.get(held.runId());
            read.put(
                    held,
                    new EndpointBrief(
                            all.getOrDefault(held.unitId(), List.of()),
                            rung == null ? Rung.SAFE : Rung.values()[rung]));
        }
        return read;
    }

    @Override
    public void carryOut(Held held) throws HoldLost {
        EndpointBrief brief = briefs.remove(held);
        if (brief == null) {
            brief = read(List.of(held)).get(held);
        }
        if (brief.endpoints.isEmpty()) {
            runs.done(held, ProveText.UNIT_NO_LONGER_HAS_AN_ADDRESS.text());
            return;
        }
        List<String> off = new ArrayList<>();
        int all = brief.endpoints.size();
        for (int i = 0; i < all; i++) {
            Endpoints.TargetEndpoint endpoint = brief.endpoints.get(i);
            Proofs.FoundAtEndpoint found = look(endpoint, brief.upTo, off);
            if (Thread.currentThread().isInterrupted()) {
                throw new HoldLost(ProveText.SERVER_IS_STOPPING.text());
            }
            boolean last = i == all - 1;
            ResultWriter.Written kept = results.write(new ResultWriter.Result(
                    held,
                    found,
                    verdict -> last
                            ? note(
                                    all,
                                    Stream.concat(off.stream(), off(endpoint, all, verdict))
                                            .toList())
                            : null));
            if (kept.over()) {
                return;
            }
            off(endpoint, all, kept.verdict()).forEach(off::add);
        }
    }

    /** What is found there; null where this server itself could not look. */
    private Proofs.FoundAtEndpoint look(Endpoints.TargetEndpoint endpoint, Rung upTo, List<String> off) {
        try {
            return proofs.look(endpoint, upTo, echoes.of(endpoint.target().address()));
        } catch (WireFault e) {
            off.add(e.getMessage());
            return null;
        }
    }

    /** What is wrong with an endpoint, if anything is. */
    private static Stream<String> off(Endpoints.TargetEndpoint endpoint, int all, Verdict verdict) {
        return verdict == null || verdict.proven()
                ? Stream.empty()
                : Stream.of(all == 1 ? verdict.sentence() : endpoint.claim().hostName + ": " + verdict.sentence());
    }

    private static String note(int all, List<String> off) {
        return !off.isEmpty()
                ? String.join(" ", off)
                : all == 1 ? ProveText.ENDPOINT_IS_PROVEN.text() : ProveText.ALL_ENDPOINTS_ARE_PROVEN.text(all);
    }
}
