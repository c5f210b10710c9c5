package lychnos.core.rule;

import java.util.List;

/** A gateway that the units cannot reach, because it lies outside their network, or is its first or last address. */
final class GatewayOutsidePrefix implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        return plan.ours()
                .filter(network ->
                        network.gateway() != null && !network.prefix().hosts().contains(network.gateway()))
                .map(network -> Finding.blocks(
                        "gateway-outside",
                        Finding.About.network(network),
                        "Gateway " + network.gateway() + " is not a host address of " + network.prefix(),
                        "A unit with this gateway cannot be reached from other networks. Correct the "
                                + "gateway or the prefix."))
                .toList();
    }
}
