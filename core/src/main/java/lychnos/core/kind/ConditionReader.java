package lychnos.core.kind;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import lychnos.core.dialogue.Condition;
import lychnos.core.fact.FactSpec;
import lychnos.core.fact.FactType;

/**
 * Reads when a step is done: {@code if: proxy-needed}, {@code if: not proxy-needed}, {@code if: { mode: static, count:
 * [3, 5], firmware: from 4.2 before 6 }}.
 */
final class ConditionReader {

    private static final String NOT = "not ";

    /** What a version is compared with; each part may be missing, but not all of them. */
    private static final Pattern BETWEEN =
            Pattern.compile("(?:from (?<from>\\S+))? ?(?:up to (?<upto>\\S+)|before (?<before>\\S+))?");

    private final DialogueNames names;

    ConditionReader(DialogueNames names) {
        this.names = names;
    }

    /**
     * Reads a condition.
     *
     * @param words what some words stand for here, which are no names
     */
    Condition read(YamlPlace place, Map<String, Condition> words) {
        if (!place.there()) {
            return Condition.ALWAYS;
        }
        Condition all = Condition.ALWAYS;
        List<Condition.Test> tests = new ArrayList<>();
        if (place.isMap()) {
            place.map()
                    .forEach((name, value) -> named(value, name).ifPresent(fact -> tests.add(test(value, name, fact))));
        } else {
            for (YamlPlace entry : place.list()) {
                String text = entry.text();
                boolean not = text.startsWith(NOT);
                String name = not ? text.substring(NOT.length()) : text;
                if (words.containsKey(name) && !not) {
                    all = all.and(words.get(name));
                } else {
                    named(entry, name)
                            .ifPresent(fact -> tests.add(
                                    fact.type() == FactType.YES_NO
                                            ? new Condition.OneOf(name, List.of("yes"), not)
                                            : new Condition.Given(name, not)));
                }
            }
        }
        return all.and(new Condition(tests));
    }

    /** The fact of a name that a condition may look at; a text for a name that is none of a fact. */
    private Optional<Named> named(YamlPlace place, String name) {
        if (!names.known(name)) {
            place.fault(KindFaultText.UNKNOWN_IN_CONDITION.text(name));
            return Optional.empty();
        }
        Optional<FactSpec> fact = names.fact(name);
        if (fact.filter(own -> own.type() == FactType.SECRET).isPresent()) {
            place.fault(KindFaultText.PASSWORD_IN_CONDITION.text());
            return Optional.empty();
        }
        return Optional.of(new Named(
                fact.map(FactSpec::type).orElse(FactType.TEXT),
                fact.map(FactSpec::choices).orElse(List.of())));
    }

    private record Named(FactType type, List<String> choices) {}

    private Condition.Test test(YamlPlace value, String name, Named fact) {
        List<String> texts = value.texts();
        String first = texts.isEmpty() ? "" : texts.get(0);
        Matcher between = BETWEEN.matcher(first);
        if (texts.size() == 1 && !first.isEmpty() && between.matches()) {
            try {
                return Condition.between(name, between.group("from"), between.group("upto"), between.group("before"));
            } catch (IllegalArgumentException e) {
                value.fault(e.getMessage());
            }
        }
        boolean not = texts.size() == 1 && first.startsWith(NOT);
        List<String> wanted = not ? List.of(first.substring(NOT.length())) : texts;
        List<String> possible = fact.type == FactType.YES_NO ? List.of("yes", "no") : fact.choices;
        wanted.stream()
                .filter(text -> !possible.isEmpty() && !possible.contains(text))
                .forEach(text ->
                        value.fault(KindFaultText.NEVER_THAT_VALUE.text(name, text, String.join(" or ", possible))));
        return new Condition.OneOf(name, wanted, not);
    }
}
