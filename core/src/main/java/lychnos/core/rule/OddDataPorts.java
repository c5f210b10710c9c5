package lychnos.core.rule;

import java.util.List;

/** An odd number of data ports, which cannot be shared between two paths. */
final class OddDataPorts implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        return plan.asked("data-ports").stream()
                .filter(unit -> unit.unitFact("data-ports")
                        .filter(count -> Integer.parseInt(count) % 2 != 0)
                        .isPresent())
                .map(unit -> Finding.blocks(
                        "odd-data-ports",
                        Finding.About.unit(unit),
                        RuleText.ODD_DATA_PORTS.text(
                                unit.name(), unit.unitFact("data-ports").orElseThrow()),
                        RuleText.ODD_DATA_PORTS_WHY.text()))
                .toList();
    }
}
