package lychnos.core.rule;

import java.util.ArrayList;
import java.util.List;

/** Two networks of the site that have addresses in common. */
final class NetworksOverlap implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        List<Finding> findings = new ArrayList<>();
        for (int i = 0; i < plan.networks().size(); i++) {
            for (int j = 0; j < i; j++) {
                PlannedNetwork a = plan.networks().get(i);
                PlannedNetwork b = plan.networks().get(j);
                if (a.prefix().overlaps(b.prefix()) && (a.ours() || b.ours())) {
                    findings.add(Finding.blocks(
                            "networks-overlap",
                            Finding.About.network(a),
                            RuleText.NETWORKS_OVERLAP.text(a.called(), b.called()),
                            RuleText.NETWORKS_OVERLAP_WHY.text()));
                }
            }
        }
        return findings;
    }
}
