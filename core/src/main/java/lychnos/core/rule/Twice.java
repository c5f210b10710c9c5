package lychnos.core.rule;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;
import lychnos.core.fact.Fact;

/** Finds values that stand at more than one machine. */
final class Twice {

    private Twice() {}

    /** By value, the units where it stands, as often as it stands there. */
    static Map<String, List<PlannedUnit>> find(Plan plan, String fact) {
        Map<String, List<PlannedUnit>> byValue = new HashMap<>();
        for (PlannedUnit unit : plan.asked(fact)) {
            for (Map<String, Fact> facts : unit.known().facts().values()) {
                Fact stands = facts.get(fact);
                if (stands != null) {
                    byValue.computeIfAbsent(stands.value(), value -> new ArrayList<>(1)).add(unit);
                }
            }
        }
        byValue.values().removeIf(units -> units.size() < 2);
        return new TreeMap<>(byValue);
    }

    static String names(List<PlannedUnit> units) {
        return units.stream().map(PlannedUnit::name).distinct().count() == 1
                ? units.get(0).name() + " twice"
                : units.stream().map(PlannedUnit::name).distinct().collect(Collectors.joining(" and "));
    }
}
