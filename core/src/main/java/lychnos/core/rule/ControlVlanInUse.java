package lychnos.core.rule;

import java.util.ArrayList;
import java.util.List;

/** A control VLAN that a network uses already. */
final class ControlVlanInUse implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        List<Finding> findings = new ArrayList<>();
        for (PlannedUnit unit : plan.asked("control-vlan")) {
            for (String vlan : unit.labels().stream()
                    .flatMap(label -> unit.fact(label, "control-vlan").stream())
                    .distinct()
                    .toList()) {
                plan.networks().stream()
                        .filter(network -> vlan.equals(String.valueOf(network.vlan())))
                        .findFirst()
                        .ifPresent(network -> findings.add(Finding.blocks(
                                "control-vlan-in-use",
                                Finding.About.unit(unit),
                                RuleText.CONTROL_VLAN_IN_USE.text(unit.name(), vlan, network.called()),
                                RuleText.CONTROL_VLAN_IN_USE_WHY.text())));
            }
        }
        return findings;
    }
}
