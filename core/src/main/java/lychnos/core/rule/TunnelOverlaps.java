package lychnos.core.rule;

import java.util.ArrayList;
import java.util.List;
import lychnos.core.address.Prefix;

/** A tunnel-endpoint range that has addresses in common with a network. */
final class TunnelOverlaps implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        List<Finding> findings = new ArrayList<>();
        for (PlannedUnit unit : plan.asked("tunnel-pool")) {
            for (String text : unit.labels().stream()
                    .flatMap(label -> unit.fact(label, "tunnel-pool").stream())
                    .distinct()
                    .toList()) {
                Prefix pool = Prefix.parse(text);
                plan.networks().stream()
                        .filter(network -> network.prefix().overlaps(pool)
                                && !(network.purpose().equals("tunnel")
                                        && network.prefix().equals(pool)))
                        .findFirst()
                        .ifPresent(network -> findings.add(Finding.blocks(
                                "tunnel-overlaps",
                                Finding.About.unit(unit),
                                RuleText.TUNNEL_OVERLAPS.text(unit.name(), pool, network.called()),
                                RuleText.TUNNEL_OVERLAPS_WHY.text())));
            }
        }
        return findings;
    }
}
