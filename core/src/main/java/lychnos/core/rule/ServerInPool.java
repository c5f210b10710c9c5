package lychnos.core.rule;

import java.util.List;
import java.util.stream.Stream;
import lychnos.core.address.Address;

/** A name or time server whose address lies in a pool. */
final class ServerInPool implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        return plan.ours()
                .flatMap(network -> Stream.concat(network.nameServers().stream(), network.timeServers().stream())
                        .distinct()
                        .flatMap(server -> Address.tryParse(server).stream())
                        .filter(server -> network.pools().stream().anyMatch(pool -> pool.contains(server)))
                        .map(server -> Finding.warns(
                                "server-in-pool",
                                Finding.About.network(network),
                                RuleText.SERVER_IN_POOL.text(server, network.prefix()),
                                RuleText.SERVER_IN_POOL_WHY.text())))
                .toList();
    }
}
