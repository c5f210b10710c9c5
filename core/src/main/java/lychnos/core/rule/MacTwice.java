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
                        "MAC address " + entry.getKey() + " is used by " + Twice.names(entry.getValue()),
                        "One of the labels is wrong. Setup would find the wrong machine."))
                .toList();
    }
}
