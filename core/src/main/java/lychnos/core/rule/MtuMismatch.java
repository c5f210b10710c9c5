package lychnos.core.rule;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Networks along one data path, or a unit in them, with different frame sizes. */
final class MtuMismatch implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        List<Finding> findings = new ArrayList<>();
        for (PlannedUnit unit : plan.asked("data-mtu")) {
            Optional<String> wanted = unit.unitFact("data-mtu");
            plan.ours("storage-data")
                    .filter(network -> wanted.isPresent()
                            && network.mtu() != null
                            && !network.mtu().toString().equals(wanted.get()))
                    .forEach(network -> findings.add(Finding.warns(
                                    "mtu-mismatch",
                                    Finding.About.unit(unit),
                                    unit.name() + " would send " + wanted.get() + " bytes, " + network.called()
                                            + " carries " + network.mtu(),
                                    "Small packets pass and large ones are lost: the array seems healthy but no volume "
                                            + "mounts.")
                            .fixedBy(Fix.setFact(
                                    "Set " + network.mtu(),
                                    unit,
                                    "",
                                    "data-mtu",
                                    network.mtu().toString()))));
        }
        return findings;
    }
}
