package lychnos.core.rule;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lychnos.core.dialogue.AgreedTerms;
import lychnos.core.fact.FactSpec;
import lychnos.core.fact.FactType;
import lychnos.core.kind.Kind;
import lychnos.core.service.Measured;
import lychnos.core.service.ServiceKind;
import lychnos.core.sheet.MemberValues;
import lychnos.core.site.SiteResourceSort;

/**
 * Whether a unit is ready: known, placed, and the services that its setup leans on answer. Of several servers for one
 * service one that answers is enough; what is wrong with the others is a finding.
 *
 * @param lacks what blocks the setup, gravest first, each a sentence without its full stop; empty for a unit that is
 * ready
 */
public record Readiness(List<String> lacks) {

    /** Counted on their own, with how many the network has. */
    private static final Pattern SERVER = Pattern.compile("(name|time)-server-[1-9]");

    public boolean ready() {
        return lacks.isEmpty();
    }

    /** By unit, how each stands in a plan. */
    public static Map<Long, Readiness> of(Plan plan) {
        // what a network lacks for a kind is the same for all units of that kind in it
        Map<List<Object>, List<String>> services = new HashMap<>();
        Map<Long, Readiness> all = new HashMap<>();
        for (PlannedUnit unit : plan.units()) {
            List<String> lacking = services.computeIfAbsent(
                    Arrays.asList(unit.kind().id(), unit.networkId()), key -> services(plan, unit));
            all.put(unit.id(), of(plan, unit, lacking));
        }
        return all;
    }

    private static Readiness of(Plan plan, PlannedUnit unit, List<String> lacking) {
        List<String> lacks = new ArrayList<>();
        int missing = unit.known().missing().size();
        if (missing > 0) {
            lacks.add(RuleText.FACTS_MISSING.text(missing));
        }
        if (unit.seats().isEmpty()) {
            lacks.add(RuleText.NO_ADDRESS_IS_ALLOCATED.text());
        }
        lacks.addAll(lacking);
        if (missing == 0 && !unit.seats().isEmpty()) {
            lacks.addAll(values(plan, unit));
        }
        return new Readiness(List.copyOf(lacks));
    }

    private static List<String> services(Plan plan, PlannedUnit unit) {
        List<String> lacks = new ArrayList<>();
        plan.networks().stream()
                .filter(network -> Long.valueOf(network.id()).equals(unit.networkId()))
                .findFirst()
                .ifPresent(network -> services(plan, unit.kind(), network, lacks));
        return lacks;
    }

    private static void services(Plan plan, Kind kind, PlannedNetwork network, List<String> lacks) {
        if (network.gateway() != null) {
            one(
                    RuleText.GATEWAY,
                    plan,
                    ServiceKind.GATEWAY,
                    Stream.of(network.gateway().toString()),
                    lacks);
        }
        if (leansOn(kind, "name service")) {
            one(RuleText.NAME_SERVICE, plan, ServiceKind.NAME, network.nameServers().stream(), lacks);
        }
        if (leansOn(kind, "time service")) {
            one(RuleText.TIME_SERVICE, plan, ServiceKind.TIME, network.timeServers().stream(), lacks);
        }
        enough(RuleText.NAME_SERVER, "name-server-", kind, network.nameServers().size(), lacks);
        enough(RuleText.TIME_SERVER, "time-server-", kind, network.timeServers().size(), lacks);
        if (leansOn(kind, "mail relay")) {
            one(
                    RuleText.MAIL_RELAY,
                    plan,
                    ServiceKind.RELAY,
                    plan.resources(SiteResourceSort.RELAY)
                            .map(thing -> thing.values().get("address")),
                    lacks);
        }
        if (leansOn(kind, "directory")) {
            directory(plan, lacks);
        }
    }

    /** Only one that the site states can be measured: a machine may use another one. */
    private static void directory(Plan plan, List<String> lacks) {
        List<String> stated = plan.resources(SiteResourceSort.DIRECTORY)
                .map(directory -> directory.values().get("address"))
                .toList();
        if (!stated.isEmpty()) {
            one(RuleText.DIRECTORY, plan, ServiceKind.DIRECTORY, stated.stream(), lacks);
        }
    }

    /** A setup that types a second server where the network has one would stop at that question. */
    private static void enough(RuleText server, String prefix, Kind kind, int has, List<String> lacks) {
        int types = kind.dialogue().stream()
                .flatMap(dialogue ->
                        kind.members().labels().stream().flatMap(member -> dialogue.needed(member).stream()))
                .filter(name -> name.matches(prefix + "[1-9]"))
                .mapToInt(name -> name.charAt(name.length() - 1) - '0')
                .max()
                .orElse(0);
        if (has > 0 && has < types) {
            lacks.add(RuleText.SETUP_ASKS_FOR_SERVERS.text(types, server.text(), has));
        }
    }

    /** What the setup of a member can ask and has no value: it would stop at that question. */
    private static List<String> values(Plan plan, PlannedUnit unit) {
        if (unit.kind().dialogue().isEmpty()) {
            return List.of();
        }
        List<MemberValues.Seat> seats =
                unit.seats().stream().flatMap(seat -> seat(plan, seat).stream()).toList();
        Map<String, String> site = plan.resources(SiteResourceSort.RELAY)
                .findFirst()
                .map(relay -> Map.of("mail-relay", relay.value("address").orElse("")))
                .orElse(Map.of());
        Set<String> lacks = new LinkedHashSet<>();
        for (String member : unit.labels()) {
            MemberValues values = new MemberValues(
                    unit.known(), member, unit.name(), seats, site, Map.of(), Map.of(), AgreedTerms.toTheFirst());
            unit.kind().dialogue().get().needed(member).stream()
                    .filter(name -> !SERVER.matcher(name).matches()
                            && !comesLater(unit, name)
                            && values.text(name).isEmpty())
                    .forEach(name -> lacks.add(RuleText.FACT_HAS_NO_VALUE.text(title(unit.kind(), name))));
        }
        return List.copyOf(lacks);
    }

    private static Optional<MemberValues.Seat> seat(Plan plan, PlannedUnit.Seat seat) {
        return plan.networks().stream()
                .filter(network -> network.prefix().contains(seat.address()))
                .findFirst()
                .map(network -> new MemberValues.Net(
                        network.name(),
                        network.prefix(),
                        network.gateway(),
                        network.vlan(),
                        network.nameServers(),
                        network.timeServers()))
                .map(net -> new MemberValues.Seat(seat.role(), seat.address(), seat.hostName(), seat.domain(), net));
    }

    /**
     * A password, which is made or sealed, what another member tells in its own setup, or what the setup itself waits
     * for.
     */
    private static boolean comesLater(PlannedUnit unit, String name) {
        boolean secret = name.endsWith(".phrase")
                || name.startsWith("proxy")
                || unit.kind()
                        .fact(name)
                        .map(fact -> fact.type() == FactType.SECRET)
                        .orElse(false);
        boolean later = unit.kind()
                .fact(name)
                .filter(fact -> fact.is(FactSpec.Trait.LATER))
                .isPresent();
        int dot = name.lastIndexOf('.');
        return secret
                || later
                || dot > 0 && unit.labels().contains(name.substring(0, dot).replace('-', ' '));
    }

    private static String title(Kind kind, String name) {
        return kind.fact(name)
                .map(FactSpec::title)
                .orElse(name.replace('-', ' ').replace('.', ' '));
    }

    private static boolean leansOn(Kind kind, String service) {
        return kind.flows().stream().anyMatch(flow -> flow.to().equals(service));
    }

    private static void one(RuleText service, Plan plan, ServiceKind kind, Stream<String> servers, List<String> lacks) {
        List<String> stated = servers.toList();
        List<Measured> asked = stated.stream()
                .flatMap(server -> plan.service(kind, server).stream())
                .toList();
        if (stated.isEmpty()) {
            lacks.add(RuleText.SERVICE_NOT_DEFINED.text(service.text()));
        } else if (asked.isEmpty()) {
            lacks.add(RuleText.SERVICE_NOT_CHECKED.text(service.text()));
        } else if (asked.stream().noneMatch(Readiness::answers)) {
            RuleText silent = asked.size() == 1 ? RuleText.SERVICE_SILENT : RuleText.SERVICES_SILENT;
            lacks.add(silent.text(
                    service.text(), asked.stream().map(Measured::address).collect(Collectors.joining(", "))));
        }
    }

    /** One that answers oddly answers; a clock that is wrong is as good as none. */
    private static boolean answers(Measured service) {
        return service.state() == Measured.State.FINE || service.state() == Measured.State.ODD;
    }
}
