package lychnos.core.rule;

import java.util.ArrayList;
import java.util.List;
import lychnos.core.address.Prefix;

/** A tunnel-endpoint range that cannot hold every switch that is planned. */
final class TunnelTooSmall implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        List<Finding> findings = new ArrayList<>();
        for (PlannedUnit unit : plan.asked("tunnel-pool")) {
            int planned =
                    unit.unitFact("planned-switches").map(Integer::parseInt).orElse(0);
            unit.labels().stream()
                    .flatMap(label -> unit.fact(label, "tunnel-pool").stream())
                    .distinct()
                    .map(Prefix::parse)
                    .forEach(pool -> {
                        long holds = pool.hosts().size();
                        // each switch takes one, each pair one more, and controllers take some: half the range must
                        // stay free to grow
                        if (holds < planned * 2L + unit.known().members()) {
                            findings.add(Finding.blocks(
                                    "tunnel-too-small",
                                    Finding.About.unit(unit),
                                    RuleText.TUNNEL_TOO_SMALL.text(pool, planned),
                                    RuleText.TUNNEL_TOO_SMALL_WHY.text(
                                            holds, planned * 2L + unit.known().members())));
                        }
                    });
        }
        return findings;
    }
}
