package lychnos.core.rule;

import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import lychnos.core.address.Address;
import lychnos.core.fact.FactSpec;

/**
 * A unit and what manages it, when no time server is the same for both. A manager that another bring-up has set up is
 * known by the network of the site that it lies in.
 */
final class ManagerTime implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        Map<String, PlannedUnit> byAddress = new HashMap<>();
        plan.units().forEach(unit -> unit.seats()
                .forEach(seat -> byAddress.put(seat.address().toString(), unit)));
        Map<Long, PlannedNetwork> networks = new HashMap<>();
        plan.networks().forEach(network -> networks.put(network.id(), network));
        Managers managers = new Managers(byAddress, networks);
        return plan.units(kind -> kind.facts().stream().anyMatch(fact -> fact.is(FactSpec.Trait.MANAGER))).stream()
                .flatMap(unit -> managers(unit)
                        .flatMap(address -> managers.at(address, unit).stream())
                        .flatMap(manager -> apart(unit, servers(networks, unit), manager).stream()))
                .toList();
    }

    /** What manages a unit: what people call it, and where it takes its time from. */
    private record Manager(String name, List<String> timeServers) {}

    /** Who is at which address. */
    private record Managers(Map<String, PlannedUnit> byAddress, Map<Long, PlannedNetwork> networks) {

        Optional<Manager> at(Address address, PlannedUnit managed) {
            PlannedUnit unit = byAddress.get(address.toString());
            if (unit != null) {
                return Optional.of(new Manager(unit.name(), servers(networks, unit)))
                        .filter(manager -> unit.id() != managed.id());
            }
            return networks.values().stream()
                    .filter(network -> network.prefix().contains(address))
                    .max(Comparator.comparing(network -> network.prefix().length()))
                    .map(network -> new Manager(address.toString(), network.timeServers()));
        }
    }

    /** The addresses of whatever manages a unit, as far as they are known. */
    private static Stream<Address> managers(PlannedUnit unit) {
        return unit.kind().facts().stream()
                .filter(fact -> fact.is(FactSpec.Trait.MANAGER))
                .flatMap(fact -> unit.unitFact(fact.name()).stream())
                .flatMap(text -> Address.tryParse(text).stream());
    }

    private static List<String> servers(Map<Long, PlannedNetwork> networks, PlannedUnit unit) {
        return Optional.ofNullable(unit.networkId())
                .map(networks::get)
                .map(PlannedNetwork::timeServers)
                .orElse(List.of());
    }

    private static Optional<Finding> apart(PlannedUnit unit, List<String> its, Manager manager) {
        List<String> managers = manager.timeServers();
        if (its.isEmpty() || managers.isEmpty() || its.stream().anyMatch(managers::contains)) {
            return Optional.empty();
        }
        return Optional.of(Finding.warns(
                "manager-time",
                Finding.About.unit(unit),
                RuleText.MANAGER_TIME.text(
                        unit.name(), String.join(", ", its), manager.name(), String.join(", ", managers)),
                RuleText.MANAGER_TIME_WHY.text()));
    }
}
