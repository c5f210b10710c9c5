package lychnos.core.rule;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import lychnos.core.fact.FactSpec;

/** A question of policy that every engineer would answer for himself. */
final class PolicyMissing implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        Map<String, List<PlannedUnit>> asking = new TreeMap<>();
        for (PlannedUnit unit : plan.units(kind -> kind.facts().stream().anyMatch(fact -> fact.is(FactSpec.Trait.POLICY)))) {
            unit.kind().facts().stream()
                    .filter(fact -> fact.is(FactSpec.Trait.POLICY) && unit.unitFact(fact.name()).isEmpty())
                    .forEach(fact -> asking.computeIfAbsent(fact.name(), name -> new ArrayList<>()).add(unit));
        }
        return asking.entrySet().stream()
                .map(entry -> Finding.warns(
                        "policy-missing",
                        Finding.About.unit(entry.getValue().get(0)),
                        "The site has no policy on " + entry.getKey().replace('-', ' '),
                        entry.getValue().size() + (entry.getValue().size() == 1 ? " unit asks" : " units ask") + " for it. Decide it once, with a reason, so that it is not answered differently each time."))
                .toList();
    }
}
