package lychnos.core.rule;

import java.util.List;

/** A VLAN number that switches keep for themselves. */
final class VlanReserved implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        return plan.ours()
                .filter(network -> network.vlan() != null && (network.vlan() == 1 || network.vlan() >= 4094))
                .map(network -> Finding.warns(
                        "vlan-reserved",
                        Finding.About.network(network),
                        RuleText.VLAN_RESERVED.text(network.vlan()),
                        RuleText.VLAN_RESERVED_WHY.text()))
                .toList();
    }
}
