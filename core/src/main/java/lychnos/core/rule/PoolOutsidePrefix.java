package lychnos.core.rule;

import java.util.Optional;

/** A pool that reaches past its network. */
final class PoolOutsidePrefix implements Rule {

    @Override
    public Optional<Finding> look(Groundwork groundwork) {
        return groundwork.pools().stream()
                .filter(pool -> !groundwork.prefix().contains(pool))
                .findFirst()
                .map(pool -> new Finding(
                        "pool-outside",
                        true,
                        "Pool " + pool + " reaches past " + groundwork.prefix(),
                        "Addresses out there belong to somebody else. Shorten the pool."));
    }
}
