package lychnos.core.learn;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Finds the log lines that a machine writes between other things: they begin alike and come in several places. */
final class Chatter {

    /** How such a line begins: a word or a time, and a sign that divides. */
    private static final Pattern BEGINNING =
            Pattern.compile("^ {0,2}([\\[(<*%#]?[\\p{L}\\p{N}_.-]{1,12}[|>\\])%:])(?= )");

    private static final int FEWEST = 2;
    private static final int FEWEST_PLACES = 2;

    private Chatter() {}

    /** The beginnings of such lines. */
    static Set<String> of(Segments segments) {
        Map<String, Set<String>> lines = new HashMap<>();
        Map<String, Set<Integer>> places = new HashMap<>();
        Set<String> questions = new HashSet<>();
        for (Entry entry : segments.entries()) {
            for (String line : entry.shown()) {
                beginning(line, entry.index(), lines, places);
            }
            if (entry.below()) {
                beginning(entry.question(), entry.index(), lines, places);
            } else {
                questions.addAll(beginning(entry.question()));
            }
        }
        segments.after()
                .shown()
                .forEach(line -> beginning(line, segments.entries().size(), lines, places));
        Set<String> found = new TreeSet<>();
        lines.forEach((start, all) -> {
            if (all.size() >= FEWEST && places.get(start).size() >= FEWEST_PLACES && !questions.contains(start)) {
                found.add(start);
            }
        });
        return found;
    }

    private static void beginning(
            String line, int place, Map<String, Set<String>> lines, Map<String, Set<Integer>> places) {
        for (String start : beginning(line)) {
            lines.computeIfAbsent(start, each -> new HashSet<>()).add(line);
            places.computeIfAbsent(start, each -> new HashSet<>()).add(place);
        }
    }

    private static List<String> beginning(String line) {
        Matcher matcher = BEGINNING.matcher(line);
        return matcher.find() ? List.of(matcher.group(1)) : List.of();
    }
}
