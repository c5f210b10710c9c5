package lychnos.core.rule;

import java.util.List;
import lychnos.core.service.ServiceKind;

/** A gateway that does not answer. */
final class GatewaySilent implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        return plan.ours()
                .filter(network -> network.gateway() != null)
                .filter(network -> plan.service(
                                ServiceKind.GATEWAY, network.gateway().toString())
                        .map(service -> !service.fine())
                        .orElse(false))
                .map(network -> Finding.warns(
                        "gateway-silent",
                        Finding.About.network(network),
                        RuleText.GATEWAY_SILENT.text(network.gateway(), network.prefix()),
                        RuleText.GATEWAY_SILENT_WHY.text()))
                .toList();
    }
}
