package lychnos.core.rule;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/** Two addresses under one name. */
final class NameTwice implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        Map<String, List<PlannedUnit.Seat>> byName = new HashMap<>();
        for (PlannedUnit unit : plan.units()) {
            for (PlannedUnit.Seat seat : unit.seats()) {
                if (seat.address().isV4()) {
                    byName.computeIfAbsent(seat.hostName() + "." + seat.domain(), name -> new ArrayList<>(1)).add(seat);
                }
            }
        }
        byName.values().removeIf(seats -> seats.size() < 2);
        return new TreeMap<>(byName).entrySet().stream()
                .map(entry -> Finding.blocks(
                        "name-twice",
                        Finding.About.SITE,
                        entry.getKey() + " stands for " + entry.getValue().size() + " addresses",
                        "Whoever asks for the name gets the one or the other. Give each its own."))
                .toList();
    }
}
