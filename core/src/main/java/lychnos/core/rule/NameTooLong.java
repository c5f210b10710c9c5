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
                                        + seat.hostName().length() + " letters, its machine takes "
                                        + unit.kind().names().longest(),
                                "Some machines cut it without a word, and then it is not the name in "
                                        + "the records. Shorten the pattern.")))
                .toList();
    }
}
