package lychnos.core.rule;

import java.util.Optional;

/** Fewer free addresses than units that want one. */
final class PoolTooSmall implements Rule {

    @Override
    public Optional<Finding> look(Groundwork groundwork) {
        if (groundwork.pools().isEmpty() || groundwork.free() >= groundwork.toPlace()) {
            return Optional.empty();
        }
        return Optional.of(new Finding(
                "pool-too-small",
                true,
                groundwork.toPlace() + " units want an address, " + groundwork.free() + " are free",
                "The last ones would go without. Widen the pool or release what is not used."));
    }
}
