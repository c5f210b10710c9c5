package lychnos.core.rule;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** An image that was not checked here: its digest is then only claimed. */
final class ImageNotChecked implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        Map<String, PlannedUnit> firstOf = new LinkedHashMap<>();
        plan.asked("image").forEach(unit -> unit.unitFact("image")
                .filter(name -> plan.image(name).isEmpty())
                .ifPresent(name -> firstOf.putIfAbsent(name, unit)));
        return firstOf.entrySet().stream()
                .map(entry -> Finding.warns(
                        "image-not-checked",
                        Finding.About.unit(entry.getValue()),
                        RuleText.IMAGE_NOT_CHECKED.text(entry.getKey()),
                        RuleText.IMAGE_NOT_CHECKED_WHY.text()))
                .toList();
    }
}
