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
                                        server.state() == Measured.State.SILENT
                                                ? RuleText.TIME_SERVER_SILENT.text(server.address())
                                                : RuleText.TIME_SERVER_ODD.text(server.address(), server.sentence()),
                                        RuleText.TIME_SERVER_SILENT_WHY.text())
                                .fixedBy(Fix.network(
                                        RuleText.REMOVE_TIME_SERVER.text(),
                                        Fix.Act.DROP_TIME_SERVER,
                                        network,
                                        server.address(),
                                        ""))))
                .toList();
    }
}
