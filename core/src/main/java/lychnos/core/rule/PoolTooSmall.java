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
                        network.toPlace() + " addresses are needed in " + network.prefix() + ", " + network.free()
                                + " are free",
                        "The last units would get none. Extend the pool or release unused addresses."))
                .toList();
    }
}
