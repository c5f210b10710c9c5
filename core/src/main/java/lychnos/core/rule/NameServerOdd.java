package lychnos.core.rule;

import java.util.List;
import lychnos.core.service.Measured;
import lychnos.core.service.ServiceKind;

/** A name server that is silent, lags, or does not serve the domain. */
final class NameServerOdd implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        return plan.ours("management")
                .flatMap(network -> network.nameServers().stream()
                        .flatMap(server -> plan.service(ServiceKind.NAME, server).stream())
                        .filter(server -> !server.fine())
                        .map(server -> Finding.warns(
                                server.state() == Measured.State.SILENT ? "name-server-silent" : "name-server-odd",
                                Finding.About.network(network),
                                server.state() == Measured.State.SILENT
                                        ? RuleText.NAME_SERVER_SILENT.text(server.address())
                                        : RuleText.NAME_SERVER_ODD.text(server.address(), server.sentence()),
                                RuleText.NAME_SERVER_ODD_WHY.text())))
                .toList();
    }
}
