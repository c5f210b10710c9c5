package lychnos.core.rule;

import java.util.List;
import java.util.stream.Stream;

/** A pool that will be empty soon at the pace of the last four weeks. */
final class PoolRunsDry implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        return plan.ours()
                .filter(network -> network.takenLately() > 0 && network.free() >= network.toPlace())
                .flatMap(network -> {
                    long days = (network.free() - network.toPlace()) * 28 / network.takenLately();
                    return days > 90
                            ? Stream.<Finding>empty()
                            : Stream.of(Finding.warns(
                                    "pool-runs-dry",
                                    Finding.About.network(network),
                                    "Pools of " + network.prefix() + " will be empty about "
                                            + plan.today().plusDays(days),
                                    network.takenLately() + " addresses were allocated in 28 days, " + network.free()
                                            + " are left. Ask for another range in time."));
                })
                .toList();
    }
}
