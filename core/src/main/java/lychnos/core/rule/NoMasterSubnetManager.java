package lychnos.core.rule;

import java.util.List;

/** A fabric without a subnet manager that is master. */
final class NoMasterSubnetManager implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        return SubnetManagers.byFabric(plan).entrySet().stream()
                .filter(entry -> entry.getValue().stream().noneMatch(unit -> SubnetManagers.is(unit, "master"))
                        && entry.getValue().stream().allMatch(unit -> unit.unitFact("subnet-manager")
                                .isPresent()))
                .map(entry -> Finding.blocks(
                                "no-subnet-manager",
                                Finding.About.unit(entry.getValue().get(0)),
                                "Fabric " + entry.getKey() + " has no master subnet manager",
                                "Without a master, no port of the fabric comes up. Make exactly one gateway the "
                                        + "master.")
                        .fixedBy(Fix.setFact(
                                "Make " + entry.getValue().get(0).name() + " master",
                                entry.getValue().get(0),
                                "",
                                "subnet-manager",
                                "master")))
                .toList();
    }
}
