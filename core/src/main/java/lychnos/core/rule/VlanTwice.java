package lychnos.core.rule;

import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;

/** One VLAN under two networks of one family. */
final class VlanTwice implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        Map<String, List<PlannedNetwork>> byVlan = plan.networks().stream()
                .filter(network -> network.vlan() != null)
                .collect(Collectors.groupingBy(
                        network -> network.vlan() + " "
                                + network.prefix().network().family(),
                        TreeMap::new,
                        Collectors.toList()));
        return byVlan.values().stream()
                .filter(same -> same.size() > 1 && same.stream().anyMatch(PlannedNetwork::ours))
                .map(same -> Finding.warns(
                        "vlan-twice",
                        Finding.About.network(same.get(1)),
                        RuleText.VLAN_TWICE.text(
                                same.get(0).vlan(),
                                same.get(0).called(),
                                same.get(1).called()),
                        RuleText.VLAN_TWICE_WHY.text()))
                .toList();
    }
}
