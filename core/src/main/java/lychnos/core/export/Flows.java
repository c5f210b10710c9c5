package lychnos.core.export;

import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import lychnos.core.kind.Kind;

/** The flows of a unit, from what its kind says that it must reach and who must reach it. */
public final class Flows {

    private static final Map<String, String> WHY = Map.of(
            "name service", "names",
            "time service", "time",
            "mail relay", "mail",
            "syslog", "logs",
            "proxy", "activation, updates and telemetry, through the proxy",
            "internet", "activation, updates and telemetry",
            "directory", "log-in by the directory");

    private static final Set<String> OUTWARD = Set.of("internet", "proxy");

    private Flows() {}

    /** Somebody at the other end. */
    public record Peer(String name, String address) {}

    /**
     * What the site has.
     *
     * @param engineers where people sit who manage machines
     * @param isolated whether nothing of the site reaches the internet
     * @param services by what a kind calls a service of the site, where that is
     */
    public record Site(List<Peer> engineers, Map<String, List<Peer>> services, boolean isolated) {

        /** Whether a flow may be asked for: an isolated site has none to the internet, nor to a proxy before it. */
        boolean allows(Kind.Flow flow) {
            return !isolated || !OUTWARD.contains(flow.to());
        }
    }

    /** @param endpoints those of one unit */
    public static List<Flow> of(Kind kind, List<Endpoint> endpoints, Site site) {
        Set<Flow> flows = new LinkedHashSet<>();
        for (Kind.Flow flow : kind.flows().stream().filter(site::allows).toList()) {
            if (flow.from().equals("engineers")) {
                for (Endpoint to : of(flow.to(), endpoints)) {
                    people(site)
                            .forEach(from -> flows.add(new Flow(
                                    from.name(),
                                    from.address(),
                                    to.name(),
                                    to.address().toString(),
                                    flow.port(),
                                    "management")));
                }
                continue;
            }
            for (Endpoint from : of(flow.from(), endpoints)) {
                others(flow, from, endpoints, site)
                        .forEach(to -> flows.add(new Flow(
                                from.name(),
                                from.address().toString(),
                                to.name(),
                                to.address(),
                                flow.port(),
                                WHY.getOrDefault(flow.to(), "heartbeat of the cluster"))));
            }
        }
        return List.copyOf(flows);
    }

    private static List<Peer> people(Site site) {
        return site.engineers().isEmpty() ? List.of(new Peer("engineers", "")) : site.engineers();
    }

    private static List<Endpoint> of(String role, List<Endpoint> endpoints) {
        return endpoints.stream()
                .filter(each -> role.equals("all")
                        ? each.port() > 0
                        : each.role().equals(role) || each.role().endsWith(" " + role))
                .toList();
    }

    private static List<Peer> others(Kind.Flow flow, Endpoint from, List<Endpoint> endpoints, Site site) {
        if (flow.to().equals("name service")) {
            return from.network().nameServers().stream()
                    .map(address -> new Peer("name server", address))
                    .toList();
        }
        if (flow.to().equals("time service")) {
            return from.network().timeServers().stream()
                    .map(address -> new Peer("time server", address))
                    .toList();
        }
        if (flow.to().equals("internet")) {
            return List.of(new Peer("internet", ""));
        }
        if (WHY.containsKey(flow.to())) {
            return site.services().getOrDefault(flow.to(), List.of(new Peer(flow.to(), "")));
        }
        List<Peer> peers = new ArrayList<>();
        of(flow.to(), endpoints).stream()
                .filter(to -> !to.equals(from)
                        && to.address().isV4() == from.address().isV4())
                .forEach(to -> peers.add(new Peer(to.name(), to.address().toString())));
        return peers;
    }

    /** As CSV: source, destination, protocol, port, why. */
    public static void write(Appendable out, Iterable<Flow> flows) throws IOException {
        try (Csv csv = new Csv(
                out, "source", "source_address", "destination", "destination_address", "protocol", "port", "why")) {
            for (Flow each : flows) {
                String[] port = each.port().split(" ", 2);
                csv.line(
                        each.source(),
                        each.sourceAddress(),
                        each.destination(),
                        each.destinationAddress(),
                        port[0],
                        port[port.length - 1],
                        each.why());
            }
        }
    }
}
