package lychnos.core.rule;

import java.util.Optional;

/** A gateway inside a pool: never given out here, but other tools that share the pool may do so. */
final class GatewayInPool implements Rule {

    @Override
    public Optional<Finding> look(Groundwork groundwork) {
        if (groundwork.gateway() == null || groundwork.pools().stream().noneMatch(pool -> pool.contains(groundwork.gateway()))) {
            return Optional.empty();
        }
        return Optional.of(new Finding(
                "gateway-in-pool",
                false,
                "Gateway " + groundwork.gateway() + " lies inside a pool",
                "It is never given out here. Begin the pool behind it, so that nobody else who reads the pool takes it."));
    }
}
