package lychnos.core.rule;

import java.util.Optional;

/** A network from which nothing can be taken. */
final class NoPool implements Rule {

    @Override
    public Optional<Finding> look(Groundwork groundwork) {
        if (!groundwork.pools().isEmpty()) {
            return Optional.empty();
        }
        return Optional.of(new Finding(
                "no-pool", true, groundwork.prefix() + " has no pool yet", "Say which of its addresses the units may take, such as .101 to .180."));
    }
}
