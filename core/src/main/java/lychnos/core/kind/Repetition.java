package lychnos.core.kind;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.IntStream;
import lychnos.core.dialogue.Condition;

/**
 * How often some steps are repeated: as often as a number says, once for each entry of a list, or as often as a fact
 * says. Every turn that is possible becomes steps of its own, under the condition that it is wanted, so that a step has
 * one place whatever the facts are.
 */
final class Repetition {

    /** What ends a turn for as long as another one follows. */
    static final String MORE = "more";
    /** What ends the last turn. */
    static final String LAST = "last";

    private static final Set<String> LISTS = Set.of("name-server", "time-server");
    private static final int MOST = 32;

    private Repetition() {}

    /**
     * One turn.
     *
     * @param texts what stands in the steps, and what it is in this turn
     * @param wanted the condition for it
     * @param words what {@code more} and {@code last} stand for; one that is never so in this turn is missing
     */
    record Turn(Map<String, String> texts, Condition wanted, Map<String, Condition> words) {

        /** Steps that are not repeated. */
        static final Turn ONLY = new Turn(Map.of(), Condition.ALWAYS, Map.of());

        /** Whether a step has no place in this turn: it is for one that others follow, or for the last one. */
        boolean lacks(YamlPlace condition) {
            return this != ONLY
                    && condition.there()
                    && !condition.isMap()
                    && condition.texts().stream()
                            .anyMatch(word -> (word.equals(MORE) || word.equals(LAST)) && !words.containsKey(word));
        }
    }

    /** The turns that are possible. */
    static List<Turn> turns(YamlPlace place, DialogueNames names) {
        if (place.isList()) {
            List<String> items = place.texts();
            return IntStream.range(0, items.size())
                    .mapToObj(at -> fixed(Map.of("{item}", items.get(at)), at + 1, items.size()))
                    .toList();
        }
        String text = place.text();
        if (text.matches("[0-9]{1,3}")) {
            int times = place.number(1, MOST, 1);
            return IntStream.rangeClosed(1, times)
                    .mapToObj(i -> fixed(Map.of(), i, times))
                    .toList();
        }
        String entry = text.replaceFirst("s$", "");
        if (LISTS.contains(entry)) {
            return IntStream.rangeClosed(1, most(entry))
                    .mapToObj(i -> ofList(entry, i))
                    .toList();
        }
        if (!names.counts(text)) {
            place.fault(KindFaultText.REPETITION.text());
            return List.of();
        }
        return IntStream.rangeClosed(1, MOST).mapToObj(i -> ofFact(text, i)).toList();
    }

    private static Turn fixed(Map<String, String> texts, int i, int times) {
        return new Turn(numbered(texts, i), Condition.ALWAYS, Map.of(i < times ? MORE : LAST, Condition.ALWAYS));
    }

    /** How many entries of a list an answer may name. */
    private static int most(String entry) {
        return (int) DialogueNames.GIVEN.stream()
                .filter(name -> name.startsWith(entry + "-"))
                .count();
    }

    private static Turn ofList(String entry, int i) {
        String next = entry + "-" + (i + 1);
        boolean mayFollow = i < most(entry);
        return new Turn(
                numbered(Map.of("{" + entry + "}", "{" + entry + "-" + i + "}"), i),
                Condition.of(new Condition.Given(entry + "-" + i, false)),
                mayFollow
                        ? Map.of(
                                MORE, Condition.of(new Condition.Given(next, false)),
                                LAST, Condition.of(new Condition.Given(next, true)))
                        : Map.of(LAST, Condition.ALWAYS));
    }

    private static Turn ofFact(String fact, int i) {
        return new Turn(
                numbered(Map.of(), i),
                Condition.of(new Condition.AtLeast(fact, i, false)),
                Map.of(
                        MORE, Condition.of(new Condition.AtLeast(fact, i + 1, false)),
                        LAST, Condition.of(new Condition.AtLeast(fact, i + 1, true))));
    }

    private static Map<String, String> numbered(Map<String, String> texts, int i) {
        Map<String, String> all = new LinkedHashMap<>(texts);
        all.put("{i}", String.valueOf(i));
        return all;
    }
}
