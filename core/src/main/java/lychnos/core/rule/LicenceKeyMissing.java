package lychnos.core.rule;

import java.util.List;
import lychnos.core.fact.FactSpec;

/** A licence key that is asked for in the middle of a setup that cannot be left. */
final class LicenceKeyMissing implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        return plan.asked("licence-key").stream()
                .filter(unit -> unit.unitFact("licence-key").isEmpty() && !isBridged(unit))
                .map(unit -> Finding.blocks(
                        "licence-key-missing",
                        Finding.About.unit(unit),
                        unit.name() + " would stop at its licence page",
                        "The setup uses the key ("
                                + unit.kind()
                                        .usedAt(unit.kind().fact("licence-key").orElseThrow()) + "). Find it first."))
                .toList();
    }

    /** A temporary key works until the setup, which waits for it, gets the permanent one. */
    private static boolean isBridged(PlannedUnit unit) {
        return unit.unitFact("temporary-key").isPresent()
                && unit.kind().fact("licence-key").orElseThrow().is(FactSpec.Trait.LATER);
    }
}
