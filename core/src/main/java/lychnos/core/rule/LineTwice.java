package lychnos.core.rule;

import java.util.List;
import java.util.stream.Stream;

/** Two machines on one console line, or two virtual machines on one line port. */
final class LineTwice implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        return Stream.of("console", "line")
                .flatMap(fact -> Twice.find(plan, fact).entrySet().stream())
                .map(entry -> Finding.blocks(
                        "line-twice",
                        Finding.About.unit(entry.getValue().get(0)),
                        "Line " + entry.getKey() + " is planned for " + Twice.names(entry.getValue()),
                        "Two machines on one line answer by turns, and what is meant for one is typed into "
                                + "the other. One line for each."))
                .toList();
    }
}
