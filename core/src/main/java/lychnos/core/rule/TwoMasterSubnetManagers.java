package lychnos.core.rule;

import java.util.List;
import java.util.stream.Stream;

/** A fabric on which two gateways have the same highest priority, or one has a priority that does not exist. */
final class TwoMasterSubnetManagers implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        return SubnetManagers.byFabric(plan).entrySet().stream()
                .flatMap(entry -> findings(entry.getKey(), entry.getValue()))
                .toList();
    }

    private static Stream<Finding> findings(String fabric, List<PlannedUnit> units) {
        int highest = units.stream()
                .flatMap(unit -> SubnetManagers.priority(unit).stream())
                .mapToInt(Integer::intValue)
                .max()
                .orElse(0);
        Stream<Finding> unknown = units.stream()
                .filter(unit -> SubnetManagers.priority(unit)
                        .filter(priority -> priority > SubnetManagers.HIGHEST)
                        .isPresent())
                .map(TwoMasterSubnetManagers::outOfRange);
        Stream<Finding> twice = highest == 0
                ? Stream.empty()
                : units.stream()
                        .filter(unit -> SubnetManagers.priority(unit)
                                .filter(priority -> priority == highest)
                                .isPresent())
                        .skip(1)
                        .map(unit -> second(fabric, unit, highest));
        return Stream.concat(unknown, twice);
    }

    private static Finding outOfRange(PlannedUnit unit) {
        return Finding.blocks(
                "subnet-manager-priority",
                Finding.About.unit(unit),
                RuleText.SUBNET_MANAGER_PRIORITY.text(unit.name(), SubnetManagers.HIGHEST),
                RuleText.SUBNET_MANAGER_PRIORITY_WHY.text());
    }

    private static Finding second(String fabric, PlannedUnit unit, int highest) {
        return Finding.blocks(
                        "two-subnet-managers",
                        Finding.About.unit(unit),
                        RuleText.TWO_SUBNET_MANAGERS.text(fabric, highest, unit.name()),
                        RuleText.TWO_SUBNET_MANAGERS_WHY.text())
                .fixedBy(Fix.setFact(
                        RuleText.LOWER_PRIORITY.text(unit.name()),
                        unit,
                        "",
                        SubnetManagers.PRIORITY,
                        String.valueOf(highest - 1)));
    }
}
