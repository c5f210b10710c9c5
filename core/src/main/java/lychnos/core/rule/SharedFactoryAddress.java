package lychnos.core.rule;

import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;

/** Several units that leave the factory with one address and meet on one segment. */
final class SharedFactoryAddress implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        Map<String, List<PlannedUnit>> same = plan.units(kind -> kind.setup().factoryAddress() != null).stream()
                .collect(Collectors.groupingBy(
                        unit -> unit.kind().setup().factoryAddress() + " " + unit.networkId(),
                        TreeMap::new,
                        Collectors.toList()));
        return same.values().stream()
                .filter(units -> units.size() > 1)
                .map(units -> Finding.warns(
                        "shared-factory-address",
                        Finding.About.unit(units.get(0)),
                        RuleText.SHARED_FACTORY_ADDRESS.text(
                                units.size(), units.get(0).kind().setup().factoryAddress()),
                        RuleText.SHARED_FACTORY_ADDRESS_WHY.text()))
                .toList();
    }
}
