package lychnos.core.rule;

import java.util.List;

/** A fabric on which no gateway runs a subnet manager. */
final class NoMasterSubnetManager implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        return SubnetManagers.byFabric(plan).entrySet().stream()
                .filter(entry -> entry.getValue().stream().allMatch(unit -> SubnetManagers.priority(unit)
                        .filter(priority -> priority == 0)
                        .isPresent()))
                .map(entry -> finding(entry.getKey(), entry.getValue().get(0)))
                .toList();
    }

    private static Finding finding(String fabric, PlannedUnit first) {
        return Finding.blocks(
                        "no-subnet-manager",
                        Finding.About.unit(first),
                        RuleText.NO_SUBNET_MANAGER.text(fabric),
                        RuleText.NO_SUBNET_MANAGER_WHY.text())
                .fixedBy(Fix.setFact(
                        RuleText.MAKE_MASTER.text(first.name()),
                        first,
                        "",
                        SubnetManagers.PRIORITY,
                        String.valueOf(SubnetManagers.HIGHEST)));
    }
}
