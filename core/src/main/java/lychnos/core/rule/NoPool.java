package lychnos.core.rule;

import java.util.List;

/** A network from which nothing can be taken. */
final class NoPool implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        return plan.ours()
                .filter(network -> network.pools().isEmpty())
                .map(network -> Finding.blocks(
                        "no-pool",
                        Finding.About.network(network),
                        network.prefix() + " has no pool yet",
                        "Add a range that units can use, such as .101-.180."))
                .toList();
    }
}
