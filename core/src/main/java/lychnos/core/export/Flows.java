package lychnos.core.export;

import java.io.IOException;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import lychnos.core.export.Flow.FlowEnd;
import lychnos.core.kind.Kind;

/** The flows of a unit, from what its kind says that it must reach and who must reach it. */
public final class Flows {

    private static final Set<String> OUTWARD = Set.of("internet", "proxy");

    private Flows() {}

    /**
     * What the site has.
     *
     * @param engineers where people sit who manage machines
     * @param isolated whether nothing of the site reaches the internet
     * @param services by what a kind calls a service of the site, where that is
     */
    public record Site(List<FlowEnd> engineers, Map<String, List<FlowEnd>> services, boolean isolated) {

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
                            .forEach(from -> flows.add(
                                    new Flow(from, end(to), flow.port(), flow.fallback(), FlowPurpose.MANAGEMENT)));
                }
                continue;
            }
            FlowPurpose purpose = FlowPurpose.of(flow.to()).orElse(FlowPurpose.CLUSTER);
            for (Endpoint from : of(flow.from(), endpoints)) {
                others(flow, purpose, from, endpoints, site)
                        .forEach(to -> flows.add(new Flow(end(from), to, flow.port(), flow.fallback(), purpose)));
            }
        }
        return List.copyOf(flows);
    }

    private static FlowEnd end(Endpoint endpoint) {
        return new FlowEnd(endpoint.name(), endpoint.address().toString());
    }

    private static List<FlowEnd> people(Site site) {
        return site.engineers().isEmpty() ? List.of(new FlowEnd("engineers", "")) : site.engineers();
    }

    private static List<Endpoint> of(String role, List<Endpoint> endpoints) {
        return endpoints.stream()
                .filter(each -> role.equals("all")
                        ? each.port() > 0
                        : each.role().equals(role) || each.role().endsWith(" " + role))
                .toList();
    }

    private static List<FlowEnd> others(
            Kind.Flow flow, FlowPurpose purpose, Endpoint from, List<Endpoint> endpoints, Site site) {
        return switch (purpose) {
            case NAMES ->
                from.network().nameServers().stream()
                        .map(address -> new FlowEnd("name server", address))
                        .toList();
            case TIME ->
                from.network().timeServers().stream()
                        .map(address -> new FlowEnd("time server", address))
                        .toList();
            case INTERNET ->
                flow.hosts().isEmpty()
                        ? List.of(new FlowEnd("internet", ""))
                        : flow.hosts().stream()
                                .map(name -> new FlowEnd(name, ""))
                                .toList();
            case CLUSTER ->
                of(flow.to(), endpoints).stream()
                        .filter(to -> !to.equals(from)
                                && to.address().isV4() == from.address().isV4())
                        .map(Flows::end)
                        .toList();
            default -> site.services().getOrDefault(flow.to(), List.of(new FlowEnd(flow.to(), "")));
        };
    }

    /** As CSV: source, destination, protocol, port, what it is for, direction, second port. */
    public static void write(Appendable out, Iterable<Flow> flows) throws IOException {
        try (Csv csv = new Csv(
                out,
                "source",
                "source_address",
                "destination",
                "destination_address",
                "protocol",
                "port",
                "why",
                "direction",
                "fallback")) {
            for (Flow each : flows) {
                String[] port = each.port().split(" ", 2);
                csv.line(
                        each.source().name(),
                        each.source().address(),
                        each.destination().name(),
                        each.destination().address(),
                        port[0],
                        port[port.length - 1],
                        each.purpose().text(),
                        each.direction().name().toLowerCase(Locale.ROOT),
                        each.fallback());
            }
        }
    }
}
