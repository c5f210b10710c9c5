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
                                "Name server " + server.address() + " "
                                        + (server.state() == Measured.State.SILENT ? "is silent" : server.sentence()),
                                "A machine that asks this one does not find its own name. Mend it, "
                                        + "or tell units of another.")))
                .toList();
    }
}
