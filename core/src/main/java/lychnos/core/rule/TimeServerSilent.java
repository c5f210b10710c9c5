package lychnos.core.rule;

import java.util.List;
import lychnos.core.service.Measured;
import lychnos.core.service.ServiceKind;

/** A time server that does not answer or is not set itself. */
final class TimeServerSilent implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        return plan.ours("management")
                .flatMap(network -> network.timeServers().stream()
                        .flatMap(server -> plan.service(ServiceKind.TIME, server).stream())
                        .filter(server ->
                                server.state() == Measured.State.SILENT || server.state() == Measured.State.ODD)
                        .map(server -> Finding.warns(
                                        "time-server-silent",
                                        Finding.About.network(network),
                                        "Time server " + server.address()
                                                + (server.state() == Measured.State.SILENT
                                                        ? " does not answer"
                                                        : ": " + server.sentence()),
                                        "A machine that uses it may start with a wrong clock, which "
                                                + "breaks certificates and logins later.")
                                .fixedBy(Fix.network(
                                        "Remove this time server",
                                        Fix.Act.DROP_TIME_SERVER,
                                        network,
                                        server.address(),
                                        ""))))
                .toList();
    }
}
