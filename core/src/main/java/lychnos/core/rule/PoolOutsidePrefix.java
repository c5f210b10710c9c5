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
                                "Pool " + pool + " reaches past " + network.prefix(),
                                "Addresses out there belong to somebody else. Shorten the pool.")))
                .toList();
    }
}
