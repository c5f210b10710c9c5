package lychnos.core.rule;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/** Two addresses under one name. */
final class NameTwice implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        Map<String, Map<String, Integer>> counts = new HashMap<>();
        for (PlannedUnit unit : plan.units()) {
            for (PlannedUnit.Seat seat : unit.seats()) {
                if (seat.address().isV4()) {
                    counts.computeIfAbsent(seat.domain(), domain -> new HashMap<>())
                            .merge(seat.hostName(), 1, Integer::sum);
                }
            }
        }
        Map<String, Integer> twice = new TreeMap<>();
        counts.forEach((domain, names) -> names.forEach((name, count) -> {
            if (count > 1) {
                twice.put(name + "." + domain, count);
            }
        }));
        return twice.entrySet().stream()
                .map(entry -> Finding.blocks(
                        "name-twice",
                        Finding.About.SITE,
                        RuleText.NAME_TWICE.text(entry.getKey(), entry.getValue()),
                        RuleText.NAME_TWICE_WHY.text()))
                .toList();
    }
}
