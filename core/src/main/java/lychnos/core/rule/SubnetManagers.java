package lychnos.core.rule;

import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;

/** Which units share an InfiniBand fabric, and what they do in it. */
final class SubnetManagers {

    private SubnetManagers() {}

    static Map<String, List<PlannedUnit>> byFabric(Plan plan) {
        return plan.asked("fabric").stream()
                .filter(unit -> unit.unitFact("fabric").isPresent())
                .collect(Collectors.groupingBy(
                        unit -> unit.unitFact("fabric").orElseThrow(), TreeMap::new, Collectors.toList()));
    }

    static boolean is(PlannedUnit unit, String role) {
        return unit.unitFact("subnet-manager").filter(role::equals).isPresent();
    }
}
