package lychnos.core.rule;

import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import lychnos.core.address.Address;

/** A planned name that already leads to another address. */
final class RecordDisagrees implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        Map<String, List<Plan.Record>> byName =
                plan.records().stream().collect(Collectors.groupingBy(Plan.Record::fqdn));
        if (byName.isEmpty()) {
            return List.of();
        }
        return plan.units().stream()
                .flatMap(unit -> unit.seats().stream()
                        .flatMap(seat -> byName.getOrDefault(seat.hostName() + "." + seat.domain(), List.of()).stream()
                                .filter(record ->
                                        Address.parse(record.address()).family()
                                                        == seat.address().family()
                                                && !record.address()
                                                        .equals(seat.address().toString()))
                                .map(record -> Finding.blocks(
                                        "record-disagrees",
                                        Finding.About.unit(unit),
                                        RuleText.RECORD_DISAGREES.text(record.fqdn(), record.address(), seat.address()),
                                        RuleText.RECORD_DISAGREES_WHY.text()))))
                .toList();
    }
}
