package lychnos.core.learn;

import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;

/** Finds where the machine repeats what was planned: a list before it asks whether to save, or what it has saved. */
final class Comparisons {

    private static final int FEWEST = 2;
    private static final Pattern LABEL = Pattern.compile(".*\\p{L}{2}.*");
    private static final Pattern BEHIND = Pattern.compile("[,;)\\]]+$");

    private final Planned planned;
    private final Looks looks;

    Comparisons(Planned planned, Looks looks) {
        this.planned = planned;
        this.looks = looks;
    }

    /**
     * The step that compares lines with the plan; nothing where fewer than two of them show planned values.
     *
     * @param entry before which they were shown
     */
    Optional<LearntStep> in(List<String> lines, int entry) {
        Map<String, String> fields = new LinkedHashMap<>();
        for (String line : lines) {
            field(line).ifPresent(found -> fields.putIfAbsent(found.getKey(), found.getValue()));
        }
        boolean enough = fields.values().stream().distinct().count() >= FEWEST;
        return enough
                ? Optional.of(new LearntStep(
                        LearntStep.StepSort.COMPARES,
                        entry,
                        "what it shows agrees",
                        "",
                        "",
                        false,
                        Set.of(),
                        fields,
                        Duration.ZERO,
                        Certainty.SURE,
                        LearnText.COMPARED))
                : Optional.empty();
    }

    /** A label and the planned value behind it. */
    private Optional<Map.Entry<String, String>> field(String line) {
        for (Map.Entry<String, String> value : planned.telling()) {
            int at = line.indexOf(value.getValue());
            if (at <= 0 || !LABEL.matcher(line.substring(0, at)).matches()) {
                continue;
            }
            int start = line.lastIndexOf(' ', at) + 1;
            int end = line.indexOf(' ', at) < 0 ? line.length() : line.indexOf(' ', at);
            String label = line.substring(0, start);
            String word = BEHIND.matcher(line.substring(start, end)).replaceFirst("");
            // what looks like one word but holds more than the value is something else
            Optional<Planned.Guess> guess = planned.whole(word, label);
            if (guess.isPresent()
                    && guess.get().certainty() == Certainty.SURE
                    && LABEL.matcher(label).matches()) {
                return Optional.of(Map.entry(
                        "/^ *" + looks.quoted(label) + " +(\\S*[^\\s,;)\\]])/",
                        guess.get().template()));
            }
        }
        return Optional.empty();
    }
}
