package lychnos.wire.ladder;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import lychnos.core.dialogue.PageFill;
import lychnos.core.proof.Accepted;
import lychnos.core.proof.Part;
import lychnos.core.proof.Settings;
import lychnos.core.proof.Traits;

/** What was planned for a page and how it has been since its setup, against what it shows now. */
final class PageRead {

    private final Map<String, String> accepted;

    /** @param accepted differences that a person has agreed to, by trait */
    PageRead(Map<String, String> accepted) {
        this.accepted = accepted;
    }

    /**
     * Judges a page.
     *
     * @param is what the page shows now, by place
     * @param fields gets what was read
     * @param traits gets the state that the page shows
     */
    Part judge(
            String page,
            Target.Fill fill,
            Map<String, String> is,
            List<Settings.Field> fields,
            Map<String, String> traits) {
        List<PageFill.Difference> differences = fill.planned().differences(is);
        List<Settings.Field> read = new ArrayList<>();
        fill.planned().planned().forEach((field, planned) -> {
            Optional<PageFill.Difference> off = differences.stream()
                    .filter(each -> each.field().equals(field))
                    .findFirst();
            read.add(new Settings.Field(
                    page + ", " + field,
                    planned,
                    off.map(PageFill.Difference::shown).orElse(planned),
                    off.isEmpty()));
        });
        List<Settings.Field> judged = Accepted.apply(read, accepted);
        fields.addAll(judged);
        Set<String> agreeing = judged.stream()
                .filter(Settings.Field::agrees)
                .map(Settings.Field::name)
                .collect(Collectors.toSet());
        String off = differences.stream()
                .filter(each -> !agreeing.contains(page + ", " + each.field()))
                .map(Object::toString)
                .collect(Collectors.joining(", "));
        if (!off.isEmpty()) {
            return Part.broken(page, off);
        }
        Map<String, String> state = fill.planned().state(is);
        state.forEach((at, value) -> traits.put(Traits.STATE + page + (state.size() > 1 ? at : ""), value));
        List<String> missing = fill.planned().missing(is);
        boolean taken = state.entrySet().stream().allMatch(each -> each.getValue()
                .equals(accepted.get(Traits.STATE + page + (state.size() > 1 ? each.getKey() : ""))));
        if (!(fill.planned().over(is) && missing.isEmpty()) && !taken) {
            return Part.broken(
                    page,
                    missing.isEmpty()
                            ? LadderText.STATE_IS.text(String.join(", ", state.values()))
                            : String.join(", ", missing));
        }
        return Part.holds(
                page,
                state.isEmpty()
                        ? LadderText.STATE_AS_PLANNED.text()
                        : LadderText.STATE_AS_PLANNED_IS.text(String.join(", ", state.values())));
    }
}
