package lychnos.core.rule;

import java.util.List;

/** A network from which nothing can be taken. */
final class NoPool implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        return plan.ours()
                .filter(network -> network.pools().isEmpty())
                .map(network -> Finding.blocks(
                        "no-pool",
                        Finding.About.network(network),
                        RuleText.NO_POOL.text(network.prefix()),
                        RuleText.NO_POOL_WHY.text()))
                .toList();
    }
}
