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
                            none ? RuleText.NO_NAME_SERVER.text() : RuleText.ONE_NAME_SERVER.text(),
                            none ? RuleText.NO_NAME_SERVER_WHY.text() : RuleText.ONE_NAME_SERVER_WHY.text(),
                            Finding.About.network(network),
                            null);
                })
                .toList();
    }
}
