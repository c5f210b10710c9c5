package lychnos.core.proof;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/** What a person has taken for right although it is not as planned; it counts as long as it stays at that value. */
public final class Accepted {

    private Accepted() {}

    /** The same fields, those that differ from the plan in an accepted way for agreeing. */
    public static List<Settings.Field> apply(List<Settings.Field> fields, Map<String, String> accepted) {
        List<Settings.Field> judged = new ArrayList<>();
        for (Settings.Field field : fields) {
            boolean taken = !field.agrees() && field.found().equals(accepted.get(Traits.SETTING + field.name()));
            judged.add(taken ? new Settings.Field(field.name(), field.planned(), field.found(), true) : field);
        }
        return judged;
    }
}
