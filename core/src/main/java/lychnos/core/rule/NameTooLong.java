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
                                seat.hostName() + " has "
                                        + seat.hostName().length() + " characters, its machine allows "
                                        + unit.kind().names().longest(),
                                "Some machines cut it silently, and it no longer matches "
                                        + "the DNS records. Shorten the pattern.")))
                .toList();
    }
}
