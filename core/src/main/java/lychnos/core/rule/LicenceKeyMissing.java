package lychnos.core.rule;

import java.util.List;

/** A licence key that is asked for in the middle of a setup that cannot be left. */
final class LicenceKeyMissing implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        return plan.asked("licence-key").stream()
                .filter(unit -> unit.unitFact("licence-key").isEmpty())
                .map(unit -> Finding.blocks(
                        "licence-key-missing",
                        Finding.About.unit(unit),
                        unit.name() + " would stop at its licence page",
                        "The setup uses the key ("
                                + unit.kind()
                                        .usedAt(unit.kind().fact("licence-key").orElseThrow()) + "). Find it first."))
                .toList();
    }
}
