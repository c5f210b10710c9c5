package lychnos.core.rule;

import java.util.List;

/** Two machines in one rack position. */
final class PositionTwice implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        return Twice.find(plan, "location").entrySet().stream()
                .map(entry -> Finding.warns(
                        "position-twice",
                        Finding.About.unit(entry.getValue().get(0)),
                        RuleText.POSITION_TWICE.text(entry.getKey(), Twice.names(entry.getValue())),
                        RuleText.POSITION_TWICE_WHY.text()))
                .toList();
    }
}
