package lychnos.core.rule;

import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;

/** Two addresses under one name. */
final class NameTwice implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        Map<String, List<PlannedUnit.Seat>> byName = plan.units().stream()
                .flatMap(unit -> unit.seats().stream())
                .filter(seat -> seat.address().isV4())
                .collect(Collectors.groupingBy(seat -> seat.hostName() + "." + seat.domain(), TreeMap::new, Collectors.toList()));
        return byName.entrySet().stream()
                .filter(entry -> entry.getValue().size() > 1)
                .map(entry -> Finding.blocks(
                        "name-twice",
                        Finding.About.SITE,
                        entry.getKey() + " stands for " + entry.getValue().size() + " addresses",
                        "Whoever asks for the name gets the one or the other. Give each its own."))
                .toList();
    }
}
