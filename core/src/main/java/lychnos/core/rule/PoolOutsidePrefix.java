package lychnos.core.rule;

import java.util.List;

/** A pool that reaches past its network. */
final class PoolOutsidePrefix implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        return plan.ours()
                .flatMap(network -> network.pools().stream()
                        .filter(pool -> !network.prefix().contains(pool))
                        .map(pool -> Finding.blocks(
                                "pool-outside",
                                Finding.About.network(network),
                                RuleText.POOL_OUTSIDE.text(pool, network.prefix()),
                                RuleText.POOL_OUTSIDE_WHY.text())))
                .toList();
    }
}
