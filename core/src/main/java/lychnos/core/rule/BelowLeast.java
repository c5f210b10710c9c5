package lychnos.core.rule;

import java.util.ArrayList;
import java.util.List;
import lychnos.core.fact.DataSize;
import lychnos.core.fact.FactSpec;

/** A size below what the kind of machine needs. */
final class BelowLeast implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        List<Finding> findings = new ArrayList<>();
        for (PlannedUnit unit : plan.units(kind -> kind.facts().stream().anyMatch(fact -> fact.least() != null))) {
            for (FactSpec fact : unit.kind().facts()) {
                if (fact.least() != null) {
                    unit.unitFact(fact.name())
                            .map(DataSize::parse)
                            .filter(size -> size.compareTo(fact.least()) < 0)
                            .ifPresent(size -> findings.add(finding(unit, fact, size)));
                }
            }
        }
        return findings;
    }

    private static Finding finding(PlannedUnit unit, FactSpec fact, DataSize size) {
        return Finding.blocks(
                "too-little-" + fact.name(),
                Finding.About.unit(unit),
                RuleText.BELOW_LEAST.text(unit.name(), size, fact.title()),
                RuleText.BELOW_LEAST_WHY.text(fact.least()));
    }
}
