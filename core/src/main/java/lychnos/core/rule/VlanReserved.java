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
                        "VLAN " + network.vlan() + " is reserved",
                        "VLAN 1 is the default of every port (IEEE 802.1Q), and the last ones are reserved "
                                + "by many switches. Choose another."))
                .toList();
    }
}
