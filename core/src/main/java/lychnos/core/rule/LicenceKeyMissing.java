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
                        RuleText.LICENCE_KEY_MISSING.text(unit.name()),
                        (takesTemporary(unit) ? RuleText.LICENCE_KEY_MISSING_BRIDGED : RuleText.LICENCE_KEY_MISSING_WHY)
                                .text(unit.kind()
                                        .usedAt(unit.kind().fact("licence-key").orElseThrow()))))
                .toList();
    }

    private static boolean takesTemporary(PlannedUnit unit) {
        return unit.kind().fact("temporary-key").isPresent();
    }

    /** A temporary key works until the setup, which waits for it, gets the permanent one. */
    private static boolean isBridged(PlannedUnit unit) {
        return unit.unitFact("temporary-key").isPresent()
                && unit.kind().fact("licence-key").orElseThrow().is(FactSpec.Trait.LATER);
    }
}
