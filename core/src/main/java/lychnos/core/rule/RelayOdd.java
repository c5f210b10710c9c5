package lychnos.core.rule;

import java.util.List;
import lychnos.core.service.Measured;
import lychnos.core.service.ServiceKind;

/** A mail relay that is silent or speaks no TLS. */
final class RelayOdd implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        return plan.services(ServiceKind.RELAY)
                .filter(relay -> relay.state() != Measured.State.FINE)
                .map(relay -> Finding.warns(
                        "relay-odd",
                        Finding.About.SITE,
                        RuleText.RELAY_ODD.text(relay.address(), relay.sentence()),
                        RuleText.RELAY_ODD_WHY.text()))
                .toList();
    }
}
