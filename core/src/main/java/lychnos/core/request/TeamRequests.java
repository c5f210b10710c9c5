package lychnos.core.request;

import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import lychnos.core.export.Flow;
import lychnos.core.export.Flow.FlowEnd;
import lychnos.core.export.FlowPurpose;
import lychnos.core.fact.Fact;
import lychnos.core.fact.FactSpec;
import lychnos.core.request.TeamRequest.RequestSort;
import lychnos.core.sheet.UnitFacts;

/** Puts together what other teams are asked for, from the plan of a bring-up: one request for what is asked alike. */
public final class TeamRequests {

    private static final String IMAGE = "image";

    private final Map<String, TeamRequest> first = new LinkedHashMap<>();
    private final Map<String, Set<String>> machines = new LinkedHashMap<>();
    private final Map<String, Set<String>> open = new LinkedHashMap<>();

    private TeamRequests() {}

    /**
     * All requests: flows in their order, mail, images, keys.
     *
     * @param flows those of all units
     * @param units by what people call it, what is known of each unit
     * @param checked the names of image files that were read to their end
     */
    public static List<TeamRequest> of(List<Flow> flows, Map<String, UnitFacts> units, Set<String> checked) {
        TeamRequests all = new TeamRequests();
        flows.forEach(all::flow);
        flows.stream().filter(flow -> flow.purpose() == FlowPurpose.MAIL).forEach(all::relay);
        units.forEach((unit, known) -> all.image(unit, known, checked));
        units.forEach(all::requested);
        return all.first.values().stream().map(all::complete).toList();
    }

    private TeamRequest complete(TeamRequest request) {
        return new TeamRequest(
                request.key(),
                request.sort(),
                request.subject(),
                request.detail(),
                List.copyOf(machines.get(request.key())),
                List.copyOf(open.getOrDefault(request.key(), Set.of())),
                request.port(),
                request.fallback(),
                request.purpose());
    }

    private void add(TeamRequest request, List<String> more) {
        first.putIfAbsent(request.key(), request);
        machines.computeIfAbsent(request.key(), made -> new LinkedHashSet<>()).addAll(more);
    }

    private void flow(Flow flow) {
        boolean in = flow.direction() == Flow.Direction.IN;
        RequestSort sort = in
                ? RequestSort.FLOW_IN
                : flow.direction() == Flow.Direction.OUT ? RequestSort.FLOW_OUT : RequestSort.FLOW_BETWEEN;
        FlowEnd other = in ? flow.source() : flow.destination();
        FlowEnd own = in ? flow.destination() : flow.source();
        boolean between = sort == RequestSort.FLOW_BETWEEN;
        String where = other.address().isEmpty() ? other.name() : other.address();
        add(
                new TeamRequest(
                        key(sort, between ? "" : where, flow.port()),
                        sort,
                        between ? "" : other.name(),
                        between ? "" : other.address(),
                        List.of(),
                        List.of(),
                        flow.port(),
                        flow.fallback(),
                        flow.purpose()),
                between ? List.of(own.address(), other.address()) : List.of(own.address()));
    }

    private void relay(Flow flow) {
        FlowEnd relay = flow.destination();
        add(
                request(
                        key(RequestSort.RELAY, relay.address().isEmpty() ? relay.name() : relay.address()),
                        RequestSort.RELAY,
                        relay.name(),
                        relay.address()),
                List.of(flow.source().address()));
    }

    /** While its file has no name, an image is asked for by the kind of the machine. */
    private void image(String unit, UnitFacts known, Set<String> checked) {
        if (known.kind().fact(IMAGE).isPresent()) {
            String name = known.fact("", IMAGE).map(Fact::value).orElse("");
            String key = key(RequestSort.IMAGE, known.kind().id(), name);
            add(request(key, RequestSort.IMAGE, name, known.kind().title()), List.of(unit));
            if (!checked.contains(name)) {
                open.computeIfAbsent(key, made -> new LinkedHashSet<>()).add(unit);
            }
        }
    }

    private void requested(String unit, UnitFacts known) {
        for (FactSpec spec : known.kind().facts()) {
            if (spec.is(FactSpec.Trait.REQUESTED)) {
                String key = key(RequestSort.KEY, known.kind().id(), spec.name());
                for (String member : UnitFacts.owners(known.kind(), known.members(), spec)) {
                    String machine = member.isEmpty() ? unit : unit + " " + member;
                    add(request(key, RequestSort.KEY, spec.title(), known.kind().title()), List.of(machine));
                    if (known.fact(member, spec.name()).isEmpty()) {
                        open.computeIfAbsent(key, made -> new LinkedHashSet<>()).add(machine);
                    }
                }
            }
        }
    }

    private static TeamRequest request(String key, RequestSort sort, String subject, String detail) {
        return new TeamRequest(key, sort, subject, detail, List.of(), List.of(), "", "", null);
    }

    private static String key(RequestSort sort, String... parts) {
        return sort.name() + "|" + String.join("|", parts);
    }
}
