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
                        entry.getKey() + " holds " + Twice.names(entry.getValue()),
                        "Only one can be there. Correct the position of the other."))
                .toList();
    }
}
