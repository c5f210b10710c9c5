package lychnos.core.rule;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;

/** Finds values that stand at more than one machine. */
final class Twice {

    private Twice() {}

    /** By value, the units where it stands, as often as it stands there. */
    static Map<String, List<PlannedUnit>> find(Plan plan, String fact) {
        Map<String, List<PlannedUnit>> byValue = new TreeMap<>();
        for (PlannedUnit unit : plan.units()) {
            unit.facts().values().stream()
                    .filter(facts -> facts.containsKey(fact))
                    .forEach(facts -> byValue.computeIfAbsent(facts.get(fact).value(), value -> new ArrayList<>()).add(unit));
        }
        byValue.values().removeIf(units -> units.size() < 2);
        return byValue;
    }

    static String names(List<PlannedUnit> units) {
        return units.stream().map(PlannedUnit::name).distinct().count() == 1
                ? units.get(0).name() + " twice"
                : units.stream().map(PlannedUnit::name).distinct().collect(Collectors.joining(" and "));
    }
}
