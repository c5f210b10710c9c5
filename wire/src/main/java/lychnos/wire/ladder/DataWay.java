package lychnos.wire.ladder;

import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import lychnos.core.address.Address;
import lychnos.core.proof.Outcome;
import lychnos.core.proof.Part;
import lychnos.core.proof.Rung;
import lychnos.core.proof.Trouble;
import lychnos.wire.Vantage;
import lychnos.wire.WireFault;
import lychnos.wire.iscsi.Discovery;
import lychnos.wire.tcp.PortState;

/** What can be seen of an address for data, above that it answers. */
final class DataWay {

    private static final Duration CONNECT = Duration.ofSeconds(3);
    private static final Duration ASK = Duration.ofSeconds(6);
    private static final String ELSEWHERE = "an address for data: its unit tells that where it is managed";

    private final Vantage vantage;
    private final Target target;
    private final Target.DataAddress data;

    DataWay(Vantage vantage, Target target, Target.DataAddress data) {
        this.vantage = vantage;
        this.target = target;
        this.data = data;
    }

    /** @param add takes each outcome, and says whether the next one may be tried */
    void climb(Predicate<Outcome> add) throws WireFault {
        if (data.portal() == 0) {
            for (Rung rung : List.of(Rung.PORT, Rung.TLS, Rung.SERVICE, Rung.IDENTITY, Rung.AS_PLANNED, Rung.SAFE)) {
                add.test(Outcome.notMeasured(rung, ELSEWHERE));
            }
            return;
        }
        PortState state = vantage.port(target.address(), data.portal(), CONNECT);
        String port = String.valueOf(data.portal());
        if (state != PortState.OPEN) {
            add.test(Outcome.broken(Rung.PORT, state == PortState.REFUSED ? Trouble.PORT_REFUSED : Trouble.PORT_SILENT, port));
            return;
        }
        add.test(Outcome.holds(Rung.PORT, port + " open"));
        add.test(Outcome.notMeasured(Rung.TLS, "iSCSI speaks without it"));
        try {
            portal(vantage.targets(target.address(), data.portal(), ASK), add);
        } catch (WireFault e) {
            add.test(RedfishWay.brokenUnlessUndeclared(e, Rung.SERVICE, Trouble.NO_PORTAL));
        }
    }

    private void portal(List<Discovery.Found> found, Predicate<Outcome> add) {
        if (found.isEmpty()) {
            add.test(Outcome.broken(Rung.SERVICE, Trouble.NO_PORTAL, "it has no target"));
            return;
        }
        List<Part> parts = found.stream().map(each -> Part.holds(each.name(), String.join(", ", each.addresses()))).toList();
        add.test(Outcome.holds(Rung.SERVICE, "iSCSI, " + (found.size() == 1 ? found.get(0).name() : found.size() + " targets")).with(parts));
        add.test(Outcome.notMeasured(Rung.IDENTITY, ELSEWHERE));
        String elsewhere = found.stream().flatMap(each -> each.addresses().stream()).distinct().filter(address -> !planned(address)).collect(Collectors.joining(", "));
        if (!elsewhere.isEmpty()) {
            add.test(Outcome.broken(Rung.AS_PLANNED, Trouble.NOT_AS_PLANNED, "It says that its targets are reached at " + elsewhere + ", which was not planned for it"));
            return;
        }
        add.test(Outcome.holds(Rung.AS_PLANNED, "its targets are reached where it was planned"));
        add.test(Outcome.notMeasured(Rung.SAFE, ELSEWHERE));
    }

    private boolean planned(String address) {
        Optional<Address> parsed = Address.tryParse(address);
        return parsed.isPresent() && data.planned().contains(parsed.get());
    }
}
