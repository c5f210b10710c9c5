package lychnos.wire.ladder;

import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import lychnos.core.address.Address;
import lychnos.core.proof.Outcome;
import lychnos.core.proof.Part;
import lychnos.core.proof.Rung;
import lychnos.core.proof.Traits;
import lychnos.core.proof.Trouble;
import lychnos.wire.fault.WireFault;
import lychnos.wire.iscsi.Discovery;
import lychnos.wire.nfs.NullCall;
import lychnos.wire.tcp.PortState;
import lychnos.wire.vantage.Vantage;

/** What can be seen of an address for data, above that it answers. */
final class DataWay {

    private static final Duration CONNECT = Duration.ofSeconds(3);
    private static final Duration ASK = Duration.ofSeconds(6);
    private static final String ELSEWHERE = LadderText.DATA_ADDRESS.text();

    private final Vantage vantage;
    private final Target target;
    private final Target.DataAddress data;
    private final Map<String, String> traits = new LinkedHashMap<>();

    DataWay(Vantage vantage, Target target, Target.DataAddress data) {
        this.vantage = vantage;
        this.target = target;
        this.data = data;
    }

    /**
     * Climbs.
     *
     * @param add takes each outcome, and says whether the next one may be tried
     */
    void climb(Predicate<Outcome> add, Rung upTo) throws WireFault {
        if (data.portal() == 0 && !data.nfs()) {
            for (Rung rung : List.of(Rung.PORT, Rung.TLS, Rung.SERVICE, Rung.IDENTITY, Rung.AS_PLANNED, Rung.SAFE)) {
                if (rung.compareTo(upTo) <= 0) {
                    add.test(Outcome.notMeasured(rung, ELSEWHERE));
                }
            }
            return;
        }
        int number = data.nfs() ? NullCall.PORT : data.portal();
        if (upTo == Rung.ANSWERS
                || !add.test(port(number))
                || !add.test(
                        Outcome.notMeasured(Rung.TLS, LadderText.OTHER_PROTOCOL.text(data.nfs() ? "NFS" : "iSCSI")))) {
            return;
        }
        try {
            if (data.nfs()) {
                files(vantage.nfs(target.address(), ASK), add);
            } else {
                portal(vantage.targets(target.address(), data.portal(), ASK), add);
            }
        } catch (WireFault e) {
            add.test(RedfishWay.brokenUnlessUndeclared(
                    e, Rung.SERVICE, data.nfs() ? Trouble.NO_NFS : Trouble.NO_PORTAL));
        }
    }

    private Outcome port(int number) throws WireFault {
        PortState state = vantage.port(target.address(), number, CONNECT);
        return state == PortState.OPEN
                ? Outcome.holds(Rung.PORT, LadderText.PORTS_OPEN.text(number))
                : Outcome.broken(
                        Rung.PORT,
                        state == PortState.REFUSED ? Trouble.PORT_REFUSED : Trouble.PORT_SILENT,
                        String.valueOf(number));
    }

    private void files(List<Integer> versions, Predicate<Outcome> add) {
        String taken = versions.stream().map(String::valueOf).collect(Collectors.joining(" and "));
        traits.put(Traits.NFS, taken);
        boolean ignored = add.test(Outcome.holds(Rung.SERVICE, "NFS " + taken)
                        .with(List.of(Part.holds(LadderText.NULL_CALL.text(), LadderText.NFS_VERSION.text(taken)))))
                && add.test(Outcome.notMeasured(Rung.IDENTITY, ELSEWHERE))
                && add.test(Outcome.notMeasured(Rung.AS_PLANNED, ELSEWHERE))
                && add.test(Outcome.notMeasured(Rung.SAFE, ELSEWHERE));
    }

    /** What it shows of itself, by trait. */
    Map<String, String> traits() {
        return traits;
    }

    private void portal(List<Discovery.Found> found, Predicate<Outcome> add) {
        if (found.isEmpty()) {
            add.test(Outcome.broken(Rung.SERVICE, Trouble.NO_PORTAL, LadderText.NO_TARGET.text()));
            return;
        }
        List<Part> parts = found.stream()
                .map(each -> Part.holds(each.name(), String.join(", ", each.addresses())))
                .toList();
        traits.put(
                Traits.TARGETS,
                found.stream().map(Discovery.Found::name).sorted().collect(Collectors.joining(", ")));
        String elsewhere = found.stream()
                .flatMap(each -> each.addresses().stream())
                .distinct()
                .filter(address -> !planned(address))
                .collect(Collectors.joining(", "));
        boolean ignored = add.test(Outcome.holds(
                                Rung.SERVICE,
                                found.size() == 1
                                        ? LadderText.ONE_TARGET.text(
                                                found.get(0).name())
                                        : LadderText.TARGETS.text(found.size()))
                        .with(parts))
                && add.test(Outcome.notMeasured(Rung.IDENTITY, ELSEWHERE))
                && add.test(
                        elsewhere.isEmpty()
                                ? Outcome.holds(Rung.AS_PLANNED, LadderText.TARGETS_AS_PLANNED.text())
                                : Outcome.broken(
                                        Rung.AS_PLANNED,
                                        Trouble.NOT_AS_PLANNED,
                                        LadderText.TARGETS_ELSEWHERE.text(elsewhere)))
                && add.test(Outcome.notMeasured(Rung.SAFE, ELSEWHERE));
    }

    private boolean planned(String address) {
        Optional<Address> parsed = Address.tryParse(address);
        return parsed.isPresent() && data.planned().contains(parsed.get());
    }
}
