package lychnos.core.rule;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import lychnos.core.fact.FactSpec;
import lychnos.core.fact.FactType;

/** A name that older tools and directories would cut. */
final class NameLongElsewhere implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        List<Finding> findings = new ArrayList<>();
        for (PlannedUnit unit :
                plan.units(kind -> kind.facts().stream().anyMatch(fact -> fact.type() == FactType.HOST_NAME))) {
            for (FactSpec fact : unit.kind().facts()) {
                if (fact.type() == FactType.HOST_NAME) {
                    Stream.concat(Stream.of(""), unit.labels().stream())
                            .flatMap(member -> unit.fact(member, fact.name()).stream())
                            .distinct()
                            .filter(value -> value.length() > 15)
                            .forEach(value -> findings.add(Finding.warns(
                                    "name-long-elsewhere",
                                    Finding.About.unit(unit),
                                    RuleText.NAME_LONG_ELSEWHERE.text(fact.title(), value),
                                    RuleText.NAME_LONG_ELSEWHERE_WHY.text())));
                }
            }
        }
        return findings;
    }
}
