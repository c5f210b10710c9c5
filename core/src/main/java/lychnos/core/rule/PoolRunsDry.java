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
                                    RuleText.POOL_RUNS_DRY.text(
                                            network.prefix(), plan.today().plusDays(days)),
                                    RuleText.POOL_RUNS_DRY_WHY.text(network.takenLately(), network.free())));
                })
                .toList();
    }
}
