package lychnos.core.rule;

import java.util.List;

/** A host name that is longer than the machine takes. */
final class NameTooLong implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        return plan.units().stream()
                .flatMap(unit -> unit.seats().stream()
                        .filter(seat ->
                                seat.hostName().length() > unit.kind().names().longest())
                        .map(seat -> Finding.blocks(
                                "name-too-long",
                                Finding.About.unit(unit),
                                RuleText.NAME_TOO_LONG.text(
                                        seat.hostName(),
                                        seat.hostName().length(),
                                        unit.kind().names().longest()),
                                RuleText.NAME_TOO_LONG_WHY.text())))
                .toList();
    }
}
