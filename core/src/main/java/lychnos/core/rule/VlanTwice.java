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
                        "VLAN " + same.get(0).vlan() + " carries both "
                                + same.get(0).called() + " and " + same.get(1).called(),
                        "Two networks in one broadcast domain receive each other’s DHCP. Check both VLAN numbers."))
                .toList();
    }
}
