package lychnos.core.rule;

import java.util.List;
import lychnos.core.fact.FactType;
import lychnos.core.kind.Kind;

/** Two machines on one console line, or two virtual machines on one line port. */
final class LineTwice implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        return Kind.LINES.stream()
                .flatMap(fact -> Twice.find(plan, fact).entrySet().stream())
                .filter(entry -> !entry.getKey().equals(FactType.BROWSER)) // the cable goes from one to the next
                .map(entry -> Finding.blocks(
                        "line-twice",
                        Finding.About.unit(entry.getValue().get(0)),
                        RuleText.LINE_TWICE.text(entry.getKey(), Twice.names(entry.getValue())),
                        RuleText.LINE_TWICE_WHY.text()))
                .toList();
    }
}
