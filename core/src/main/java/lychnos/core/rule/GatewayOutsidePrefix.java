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
                        RuleText.GATEWAY_OUTSIDE.text(network.gateway(), network.prefix()),
                        RuleText.GATEWAY_OUTSIDE_WHY.text()))
                .toList();
    }
}
