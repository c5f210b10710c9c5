package lychnos.core.rule;

import java.util.List;

/** One serial number on two machines. */
final class SerialTwice implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        return Twice.find(plan, "serial").entrySet().stream()
                .map(entry -> Finding.blocks(
                        "serial-twice",
                        Finding.About.unit(entry.getValue().get(0)),
                        RuleText.SERIAL_TWICE.text(entry.getKey(), Twice.names(entry.getValue())),
                        RuleText.SERIAL_TWICE_WHY.text()))
                .toList();
    }
}
