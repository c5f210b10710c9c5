package lychnos.core.rule;

import java.util.List;

/** One MAC address on two machines. */
final class MacTwice implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        return Twice.find(plan, "mac").entrySet().stream()
                .map(entry -> Finding.blocks(
                        "mac-twice",
                        Finding.About.unit(entry.getValue().get(0)),
                        RuleText.MAC_TWICE.text(entry.getKey(), Twice.names(entry.getValue())),
                        RuleText.MAC_TWICE_WHY.text()))
                .toList();
    }
}
