package lychnos.core.rule;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import lychnos.core.fact.FactSpec;

/** Units of a kind that were given different values where the kind wants all units to be alike. */
final class UnitsDiffer implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        // by the name of the kind: units of an older version of it belong to the others
        Map<String, List<PlannedUnit>> byKind =
                plan.units(kind -> kind.facts().stream().anyMatch(UnitsDiffer::compared)).stream()
                        .collect(Collectors.groupingBy(
                                unit -> unit.kind().id(), LinkedHashMap::new, Collectors.toList()));
        List<Finding> findings = new ArrayList<>();
        byKind.values().forEach(units -> units.get(0).kind().facts().stream()
                .filter(UnitsDiffer::compared)
                .forEach(fact -> findings.addAll(differ(fact, units))));
        return findings;
    }

    private static List<Finding> differ(FactSpec fact, List<PlannedUnit> units) {
        Map<String, Long> counts = units.stream()
                .flatMap(unit -> unit.unitFact(fact.name()).stream())
                .collect(Collectors.groupingBy(value -> value, LinkedHashMap::new, Collectors.counting()));
        if (counts.size() < 2) {
            return List.of();
        }
        // of values that are equally frequent, the one that was seen first
        String usual = counts.entrySet().stream()
                .sorted(Map.Entry.<String, Long>comparingByValue(Comparator.reverseOrder()))
                .findFirst()
                .orElseThrow()
                .getKey();
        return units.stream()
                .filter(unit -> unit.unitFact(fact.name())
                        .filter(value -> !value.equals(usual))
                        .isPresent())
                .map(unit -> Finding.warns(
                                "units-differ",
                                Finding.About.unit(unit),
                                RuleText.UNITS_DIFFER.text(unit.name(), fact.title()),
                                RuleText.UNITS_DIFFER_WHY.text(
                                        unit.unitFact(fact.name()).orElseThrow(), usual))
                        .fixedBy(Fix.setFact(
                                RuleText.SET_FACT_TO.text(fact.title(), usual), unit, "", fact.name(), usual)))
                .toList();
    }

    private static boolean compared(FactSpec fact) {
        return fact.is(FactSpec.Trait.SAME) && fact.scope() == FactSpec.Scope.UNIT;
    }
}
