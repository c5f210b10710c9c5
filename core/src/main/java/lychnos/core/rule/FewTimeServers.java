package lychnos.core.rule;

import java.util.List;
import lychnos.core.service.Measured;
import lychnos.core.service.ServiceKind;
import lychnos.core.site.SiteResourceSort;

/** No time server, or one or two of them that are any good. */
final class FewTimeServers implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        return plan.ours("management")
                .filter(network -> good(plan, network) < 3)
                .map(network -> finding(plan, network))
                .toList();
    }

    /** Those that are not known to be silent or wrong; what was never asked counts as good. */
    private static long good(Plan plan, PlannedNetwork network) {
        return network.timeServers().stream()
                .filter(server -> plan.service(ServiceKind.TIME, server)
                        .map(Measured::fine)
                        .orElse(true))
                .count();
    }

    private static Finding finding(Plan plan, PlannedNetwork network) {
        long good = good(plan, network);
        boolean less = good < network.timeServers().size();
        RuleText what = good == 0
                ? less ? RuleText.NO_TIME_SERVER_LEFT : RuleText.NO_TIME_SERVER
                : good == 1
                        ? less ? RuleText.ONE_TIME_SERVER_LEFT : RuleText.ONE_TIME_SERVER
                        : less ? RuleText.TWO_TIME_SERVERS_LEFT : RuleText.TWO_TIME_SERVERS;
        RuleText why = good == 0
                ? RuleText.NO_TIME_SERVER_WHY
                : good == 1 ? RuleText.ONE_TIME_SERVER_WHY : RuleText.TWO_TIME_SERVERS_WHY;
        Finding finding = new Finding(
                "few-time-servers", good == 0, what.text(), why.text(), Finding.About.network(network), null);
        return plan.resources(SiteResourceSort.TIME)
                .map(thing -> thing.value("address").orElse(""))
                .filter(address -> !network.timeServers().contains(address)
                        && plan.service(ServiceKind.TIME, address)
                                .map(Measured::fine)
                                .orElse(false))
                .findFirst()
                .map(address -> finding.fixedBy(Fix.network(
                        RuleText.ADD_IT_ANSWERS.text(address), Fix.Act.ADD_TIME_SERVER, network, "", address)))
                .orElse(finding);
    }
}
