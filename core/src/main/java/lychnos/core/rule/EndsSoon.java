package lychnos.core.rule;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import lychnos.core.fact.FactSpec;

/** A temporary licence, a trial or something else with a last day, which has ended or soon will. */
final class EndsSoon implements Rule {

    private static final int DAYS = 30;

    @Override
    public List<Finding> look(Plan plan) {
        List<Finding> findings = new ArrayList<>();
        for (PlannedUnit unit :
                plan.units(kind -> kind.facts().stream().anyMatch(fact -> fact.is(FactSpec.Trait.ENDS)))) {
            unit.known().ends().forEach((title, day) -> finding(plan, unit, title, day)
                    .ifPresent(findings::add));
        }
        return findings;
    }

    private static Optional<Finding> finding(Plan plan, PlannedUnit unit, String title, LocalDate day) {
        if (!day.isBefore(plan.today().plusDays(DAYS))) {
            return Optional.empty();
        }
        boolean over = day.isBefore(plan.today());
        return Optional.of(new Finding(
                "ends-soon",
                over,
                (over ? RuleText.ENDS_SOON_OVER : RuleText.ENDS_SOON).text(unit.name(), title, day),
                RuleText.ENDS_SOON_WHY.text(),
                Finding.About.unit(unit),
                null));
    }
}
