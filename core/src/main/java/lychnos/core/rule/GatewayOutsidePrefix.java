package lychnos.core.rule;

import java.util.Optional;

/** A gateway that the units cannot reach, because it lies outside their network or at an end of it. */
final class GatewayOutsidePrefix implements Rule {

    @Override
    public Optional<Finding> look(Groundwork groundwork) {
        if (groundwork.gateway() == null || groundwork.prefix().hosts().contains(groundwork.gateway())) {
            return Optional.empty();
        }
        return Optional.of(new Finding(
                "gateway-outside",
                true,
                "Gateway " + groundwork.gateway() + " is no host address of " + groundwork.prefix(),
                "A unit set so loses its way out at once. Correct the gateway or the prefix."));
    }
}
