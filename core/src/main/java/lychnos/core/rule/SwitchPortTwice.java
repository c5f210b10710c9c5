package lychnos.core.rule;

import java.util.List;
import lychnos.core.kind.Kind;

/** Two machines on one switch port. */
final class SwitchPortTwice implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        return Twice.find(plan, Kind.SWITCH_PORT).entrySet().stream()
                .map(entry -> Finding.warns(
                        "switch-port-twice",
                        Finding.About.unit(entry.getValue().get(0)),
                        RuleText.SWITCH_PORT_TWICE.text(entry.getKey(), Twice.names(entry.getValue())),
                        RuleText.SWITCH_PORT_TWICE_WHY.text()))
                .toList();
    }
}
