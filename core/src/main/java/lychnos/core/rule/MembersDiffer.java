package lychnos.core.rule;

import java.util.ArrayList;
import java.util.List;
import lychnos.core.fact.FactSpec;

/** Members that were given different values where they must be equal. */
final class MembersDiffer implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        List<Finding> findings = new ArrayList<>();
        for (PlannedUnit unit : plan.units(kind -> kind.facts().stream().anyMatch(MembersDiffer::compared))) {
            for (FactSpec fact : unit.kind().facts()) {
                if (compared(fact)) {
                    List<String> values = unit.labels().stream()
                            .flatMap(label -> unit.fact(label, fact.name()).stream())
                            .distinct()
                            .toList();
                    if (values.size() > 1) {
                        String odd = unit.labels().stream()
                                .filter(label -> !unit.fact(label, fact.name())
                                        .orElse(values.get(0))
                                        .equals(values.get(0)))
                                .findFirst()
                                .orElse("");
                        findings.add(Finding.blocks(
                                        "members-differ",
                                        Finding.About.unit(unit),
                                        RuleText.MEMBERS_DIFFER.text(unit.name(), fact.title()),
                                        RuleText.MEMBERS_DIFFER_WHY.text(String.join(" and ", values)))
                                .fixedBy(Fix.setFact(
                                        RuleText.SET_VALUE_ON_MEMBER.text(values.get(0), odd),
                                        unit,
                                        odd,
                                        fact.name(),
                                        values.get(0))));
                    }
                }
            }
        }
        return findings;
    }

    private static boolean compared(FactSpec fact) {
        return fact.is(FactSpec.Trait.SAME) && fact.scope() == FactSpec.Scope.MEMBER;
    }
}
