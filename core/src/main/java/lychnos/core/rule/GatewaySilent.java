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
                        "Gateway " + network.gateway() + " of " + network.prefix() + " does not answer",
                        "Some machines refuse a gateway that does not answer. Check the address and the VLAN on the "
                                + "switch."))
                .toList();
    }
}
