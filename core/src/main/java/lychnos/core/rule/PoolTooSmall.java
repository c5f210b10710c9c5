package lychnos.core.rule;

import java.util.List;

/** Fewer free addresses than the units want. */
final class PoolTooSmall implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        return plan.ours()
                .filter(network -> !network.pools().isEmpty() && network.free() < network.toPlace())
                .map(network -> Finding.blocks(
                        "pool-too-small",
                        Finding.About.network(network),
                        RuleText.POOL_TOO_SMALL.text(network.toPlace(), network.prefix(), network.free()),
                        RuleText.POOL_TOO_SMALL_WHY.text()))
                .toList();
    }
}
