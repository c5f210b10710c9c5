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
                                RuleText.DHCP_IN_POOL.text(pool, scope),
                                RuleText.DHCP_IN_POOL_WHY.text()))))
                .toList();
    }
}
