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
        String left = good < network.timeServers().size() ? " left" : "";
        String what = good == 0
                ? "No time server" + (left.isEmpty() ? " is defined" : " is left")
                : good == 1 ? "Only one time source" + left : "Two time sources" + left;
        String why = good == 0
                ? "Certificates and logs need the right time. Enter one, preferably three."
                : good == 1
                        ? "If it fails, clocks drift unnoticed. Use three."
                        : "With two, a unit cannot decide which one is wrong. Use three.";
        Finding finding = new Finding("few-time-servers", good == 0, what, why, Finding.About.network(network), null);
        return plan.resources(SiteResourceSort.TIME)
                .map(thing -> thing.value("address").orElse(""))
                .filter(address -> !network.timeServers().contains(address)
                        && plan.service(ServiceKind.TIME, address)
                                .map(Measured::fine)
                                .orElse(false))
                .findFirst()
                .map(address -> finding.fixedBy(
                        Fix.network("Add " + address + ", it answers", Fix.Act.ADD_TIME_SERVER, network, "", address)))
                .orElse(finding);
    }
}
