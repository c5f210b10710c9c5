package lychnos.core.rule;

import java.util.List;
import lychnos.core.service.Measured;
import lychnos.core.service.ServiceKind;

/** A time server whose clock differs from the others. */
final class TimeServerLies implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        return plan.ours("management")
                .flatMap(network -> network.timeServers().stream()
                        .flatMap(server -> plan.service(ServiceKind.TIME, server).stream())
                        .filter(server -> server.state() == Measured.State.LIES)
                        .map(server -> new Finding(
                                "time-server-lies",
                                true,
                                RuleText.TIME_SERVER_LIES.text(server.address()),
                                RuleText.TIME_SERVER_LIES_WHY.text(server.sentence()),
                                Finding.About.network(network),
                                Fix.network(
                                        RuleText.REMOVE_TIME_SERVER.text(),
                                        Fix.Act.DROP_TIME_SERVER,
                                        network,
                                        server.address(),
                                        ""))))
                .toList();
    }
}
