package lychnos.core.rule;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;

/** A name or time server that is stated twice: where it fails, both fail. */
final class ServerTwice implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        return plan.networks().stream()
                .flatMap(network -> Stream.concat(
                        twice(network, RuleText.NAME_SERVER, network.nameServers()),
                        twice(network, RuleText.TIME_SERVER, network.timeServers())))
                .toList();
    }

    private static Stream<Finding> twice(PlannedNetwork network, RuleText service, List<String> servers) {
        Set<String> seen = new HashSet<>();
        return servers.stream()
                .filter(server -> !seen.add(server))
                .distinct()
                .map(server -> Finding.warns(
                        "server-twice",
                        Finding.About.network(network),
                        RuleText.SERVER_TWICE.text(network.name(), service.text(), server),
                        RuleText.SERVER_TWICE_WHY.text()));
    }
}
