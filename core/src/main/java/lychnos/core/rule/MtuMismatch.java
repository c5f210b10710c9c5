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
                                    RuleText.MTU_MISMATCH.text(
                                            unit.name(), wanted.get(), network.called(), network.mtu()),
                                    RuleText.MTU_MISMATCH_WHY.text())
                            .fixedBy(Fix.setFact(
                                    RuleText.SET_VALUE.text(network.mtu()),
                                    unit,
                                    "",
                                    "data-mtu",
                                    network.mtu().toString()))));
        }
        return findings;
    }
}
