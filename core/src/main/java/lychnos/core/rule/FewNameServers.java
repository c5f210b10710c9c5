package lychnos.core.rule;

import java.util.List;

/** No name server, or a single one. */
final class FewNameServers implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        return plan.ours("management")
                .filter(network -> network.nameServers().size() < 2)
                .map(network -> {
                    boolean none = network.nameServers().isEmpty();
                    return new Finding(
                            "few-name-servers",
                            none,
                            none ? "No name server is defined" : "Only one name server",
                            none
                                    ? "First setup asks for it. Enter at least one, preferably two."
                                    : "While it restarts, nothing resolves. Add a second one.",
                            Finding.About.network(network),
                            null);
                })
                .toList();
    }
}
