package lychnos.core.rule;

import java.util.List;
import lychnos.core.address.AddressRun;

/** A gateway inside a pool: never given out here, but other tools that share the pool may do so. */
final class GatewayInPool implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        return plan.ours()
                .filter(network -> network.gateway() != null)
                .flatMap(network -> network.pools().stream()
                        .filter(pool -> pool.contains(network.gateway()))
                        .map(pool -> finding(network, pool)))
                .toList();
    }

    private static Finding finding(PlannedNetwork network, AddressRun pool) {
        Finding finding = Finding.warns(
                "gateway-in-pool",
                Finding.About.network(network),
                RuleText.GATEWAY_IN_POOL.text(network.gateway()),
                RuleText.GATEWAY_IN_POOL_WHY.text());
        if (network.gateway().equals(pool.last())) {
            return finding;
        }
        AddressRun behind = new AddressRun(network.gateway().next(), pool.last());
        return finding.fixedBy(Fix.network(
                RuleText.START_POOL_AT.text(behind.first()),
                Fix.Act.CHANGE_RANGE,
                network,
                pool.toString(),
                behind.toString()));
    }
}
