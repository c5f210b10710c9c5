package lychnos.core.rule;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Collectors;

/**
 * Which units share an InfiniBand fabric, and the priorities of their subnet managers. The one of the highest priority
 * is the master (InfiniBand Architecture Specification, volume 1, subnet management); 0 runs none.
 */
final class SubnetManagers {

    static final String PRIORITY = "subnet-manager";
    static final int HIGHEST = 15;

    private SubnetManagers() {}

    static Map<String, List<PlannedUnit>> byFabric(Plan plan) {
        return plan.asked("fabric").stream()
                .filter(unit -> unit.unitFact("fabric").isPresent())
                .collect(Collectors.groupingBy(
                        unit -> unit.unitFact("fabric").orElseThrow(), TreeMap::new, Collectors.toList()));
    }

    /** The priority of a unit; empty while it is not known. */
    static Optional<Integer> priority(PlannedUnit unit) {
        return unit.unitFact(PRIORITY)
                .filter(text -> text.matches("[0-9]{1,4}"))
                .map(Integer::valueOf);
    }
}
