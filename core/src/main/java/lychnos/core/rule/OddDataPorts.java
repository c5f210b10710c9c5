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
                        unit.name() + " would have "
                                + unit.unitFact("data-ports").orElseThrow() + " data ports",
                        "Data ports come in pairs, one per path. Use an even number."))
                .toList();
    }
}
