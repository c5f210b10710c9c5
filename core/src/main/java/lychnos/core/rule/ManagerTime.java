package lychnos.core.rule;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import lychnos.core.address.Address;
import lychnos.core.fact.FactSpec;

/** A unit and the one that manages it, when no time server is the same for both. */
final class ManagerTime implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        Map<String, PlannedUnit> byAddress = new HashMap<>();
        plan.units().forEach(unit -> unit.seats()
                .forEach(seat -> byAddress.put(seat.address().toString(), unit)));
        Map<Long, PlannedNetwork> networks = new HashMap<>();
        plan.networks().forEach(network -> networks.put(network.id(), network));
        return plan.units(kind -> kind.facts().stream().anyMatch(fact -> fact.is(FactSpec.Trait.MANAGER))).stream()
                .flatMap(unit -> managers(unit)
                        .flatMap(address -> Optional.ofNullable(byAddress.get(address)).stream())
                        .filter(manager -> manager.id() != unit.id())
                        .flatMap(manager ->
                                apart(unit, servers(networks, unit), manager, servers(networks, manager)).stream()))
                .toList();
    }

    /** The addresses of whatever manages a unit, as far as they are known. */
    private static Stream<String> managers(PlannedUnit unit) {
        return unit.kind().facts().stream()
                .filter(fact -> fact.is(FactSpec.Trait.MANAGER))
                .flatMap(fact -> unit.unitFact(fact.name()).stream())
                .flatMap(text -> Address.tryParse(text).stream())
                .map(Address::toString);
    }

    private static List<String> servers(Map<Long, PlannedNetwork> networks, PlannedUnit unit) {
        return Optional.ofNullable(unit.networkId())
                .map(networks::get)
                .map(PlannedNetwork::timeServers)
                .orElse(List.of());
    }

    private static Optional<Finding> apart(
            PlannedUnit unit, List<String> its, PlannedUnit manager, List<String> managers) {
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
