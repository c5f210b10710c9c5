package lychnos.core.rule;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;
import lychnos.core.fact.Fact;
import lychnos.core.fact.FactSpec;
import lychnos.core.kind.Kind;
import lychnos.core.sheet.UnitFacts;

/** Finds values that stand at more than one machine. */
final class Twice {

    private Twice() {}

    /** By value, the units that have it, as often as they have it. */
    static Map<String, List<PlannedUnit>> find(Plan plan, String fact) {
        Map<String, PlannedUnit> first = new HashMap<>();
        Map<String, List<PlannedUnit>> twice = new TreeMap<>();
        Kind kind = null;
        FactSpec spec = null;
        for (PlannedUnit unit : plan.asked(fact)) {
            // units of a kind mostly stand together
            if (unit.kind() != kind) {
                kind = unit.kind();
                spec = kind.fact(fact).orElseThrow();
            }
            for (String owner : UnitFacts.owners(kind, unit.known().members(), spec)) {
                Fact stands = unit.known().facts().getOrDefault(owner, Map.of()).get(fact);
                PlannedUnit other = stands == null ? null : first.putIfAbsent(stands.value(), unit);
                if (other != null) {
                    twice.computeIfAbsent(stands.value(), value -> new ArrayList<>(List.of(other)))
                            .add(unit);
                }
            }
        }
        return twice;
    }

    static String names(List<PlannedUnit> units) {
        return units.stream().map(PlannedUnit::name).distinct().count() == 1
                ? RuleText.TWICE.text(units.get(0).name())
                : units.stream().map(PlannedUnit::name).distinct().collect(Collectors.joining(" and "));
    }
}
