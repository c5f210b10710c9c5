package lychnos.core.rule;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;

/** A temporary licence that has ended or soon will. */
final class LicenceEnds implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        List<Finding> findings = new ArrayList<>();
        for (PlannedUnit unit : plan.asked("licence-end")) {
            unit.unitFact("licence-end")
                    .map(LocalDate::parse)
                    .filter(end -> end.isBefore(plan.today().plusDays(30)))
                    .ifPresent(end -> findings.add(new Finding(
                            "licence-ends",
                            end.isBefore(plan.today()),
                            unit.name() + ": its key " + (end.isBefore(plan.today()) ? "has ended on " : "ends on ")
                                    + end,
                            "Its features stop on that day. Order the permanent key now. This stays an open item "
                                    + "of the hand-over.",
                            Finding.About.unit(unit),
                            null)));
        }
        return findings;
    }
}
