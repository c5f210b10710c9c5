package lychnos.core.rule;

import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import lychnos.core.fact.FactSpec;
import lychnos.core.kind.Kind;

/** A question of policy that every engineer would answer for himself. */
final class PolicyMissing implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        Map<String, List<PlannedUnit>> asking = new TreeMap<>();
        Map<Kind, List<String>> policies = new IdentityHashMap<>();
        for (PlannedUnit unit : plan.units()) {
            for (String name : policies.computeIfAbsent(unit.kind(), PolicyMissing::policies)) {
                if (unit.unitFact(name).isEmpty()) {
                    asking.computeIfAbsent(name, none -> new ArrayList<>()).add(unit);
                }
            }
        }
        return asking.entrySet().stream()
                .map(entry -> Finding.warns(
                        "policy-missing",
                        Finding.About.unit(entry.getValue().get(0)),
                        RuleText.POLICY_MISSING.text(entry.getKey().replace('-', ' ')),
                        RuleText.POLICY_MISSING_WHY.text(entry.getValue().size())))
                .toList();
    }

    private static List<String> policies(Kind kind) {
        return kind.facts().stream()
                .filter(fact -> fact.is(FactSpec.Trait.POLICY))
                .map(FactSpec::name)
                .toList();
    }
}
