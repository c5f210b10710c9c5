package lychnos.core.rule;

import java.util.List;

/** A fabric with more than one subnet manager that is master. */
final class TwoMasterSubnetManagers implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        return SubnetManagers.byFabric(plan).entrySet().stream()
                .flatMap(entry -> entry.getValue().stream()
                        .filter(unit -> SubnetManagers.is(unit, "master"))
                        .skip(1)
                        .map(unit -> Finding.blocks(
                                        "two-subnet-managers",
                                        Finding.About.unit(unit),
                                        "Fabric " + entry.getKey() + " has a second master: " + unit.name(),
                                        "Two masters assign the same local identifiers, and ports become "
                                                + "unstable. Make one the master, the others standby.")
                                .fixedBy(Fix.setFact(
                                        "Make " + unit.name() + " standby", unit, "", "subnet-manager", "standby"))))
                .toList();
    }
}
