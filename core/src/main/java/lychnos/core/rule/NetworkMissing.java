package lychnos.core.rule;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/** A unit that needs a network of a purpose which is not stated. */
final class NetworkMissing implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        Map<String, List<PlannedUnit>> wanting = new TreeMap<>();
        for (PlannedUnit unit : plan.units(kind ->
                kind.addresses().stream().anyMatch(entry -> !entry.networks().equals(List.of("management"))))) {
            unit.kind().needs(unit.known().members(), Map.of()).stream()
                    .flatMap(need -> need.networks().stream())
                    .distinct()
                    .filter(purpose -> !purpose.equals("management")
                            && plan.ours(purpose).findAny().isEmpty())
                    .forEach(purpose -> wanting.computeIfAbsent(purpose, name -> new ArrayList<>())
                            .add(unit));
        }
        return wanting.entrySet().stream()
                .map(entry -> Finding.blocks(
                        "network-missing",
                        Finding.About.unit(entry.getValue().get(0)),
                        RuleText.NETWORK_MISSING.text(entry.getKey().replace('-', ' ')),
                        RuleText.NETWORK_MISSING_WHY.text(entry.getValue().size())))
                .toList();
    }
}
