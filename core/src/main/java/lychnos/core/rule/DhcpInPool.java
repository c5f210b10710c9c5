package lychnos.core.rule;

import java.util.List;

/** A range that DHCP hands out and units take from too. */
final class DhcpInPool implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        return plan.ours()
                .flatMap(network -> network.pools().stream().flatMap(pool -> network.dhcp().stream()
                        .filter(pool::overlaps)
                        .map(scope -> Finding.blocks(
                                "dhcp-in-pool",
                                Finding.About.network(network),
                                "Pool " + pool + " overlaps the DHCP range " + scope,
                                "Two machines could get the same address. Separate the two ranges."))))
                .toList();
    }
}
