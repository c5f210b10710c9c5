package lychnos.core.learn;

import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import lychnos.core.fact.Secret;

/**
 * Writes lines of one machine as patterns for others of its kind: planned values become names, and what may be a
 * password becomes nothing.
 */
final class Looks {

    /** What a machine suggests stands in brackets behind its question. */
    static final Pattern SUGGESTED = Pattern.compile("^(.*?\\p{L}.*?)([\\[(<])([^\\[\\]()<>]*)[\\])>](\\W*)$");

    private static final Pattern SPECIAL = Pattern.compile("[\\\\^$.|?*+()\\[\\]{}]");
    private static final String ANYTHING = "\\S*";
    private static final char PLACE = '\u0001';
    private static final int SHORTEST = 3;
    private static final int LONGEST_NAME = 24;
    private static final int MOST_WORDS = 4;

    private final Planned planned;
    private final Collection<Secret> hidden;
    /** A prompt comes often, and is compared with every other question. */
    private final Map<String, String> questions = new HashMap<>();

    /** @param hidden what was typed and is not known to be no secret */
    Looks(Planned planned, Collection<Secret> hidden) {
        this.planned = planned;
        this.hidden = List.copyOf(hidden);
    }

    /** A line without what may be a password. */
    String blanked(String line) {
        String shown = line;
        for (Secret secret : hidden) {
            String before = shown;
            shown = secret.use(text -> text.length() < SHORTEST ? before : before.replace(text, "•".repeat(SHORTEST)));
        }
        return shown;
    }

    /** The pattern of a question: its line from the beginning, with anything where the machine suggests something. */
    String question(String line) {
        return questions.computeIfAbsent(line, this::pattern);
    }

    private String pattern(String line) {
        Matcher suggests = SUGGESTED.matcher(line);
        if (suggests.matches()) {
            String closing = String.valueOf(line.charAt(suggests.end(3)));
            return "/^ *" + quoted(suggests.group(1) + suggests.group(2)) + ".*" + quoted(closing + suggests.group(4))
                    + " *$/";
        }
        return "/^ *" + quoted(line) + " *$/";
    }

    /** What stands in brackets behind a question; empty where nothing does, or where answers are listed there. */
    static String suggestion(String line) {
        Matcher suggests = SUGGESTED.matcher(line);
        return suggests.matches() && suggests.group(3).strip().matches("[^/|,\\s]+")
                ? suggests.group(3).strip()
                : "";
    }

    /** A text as a pattern. */
    String quoted(String text) {
        String marked = text.strip();
        for (Secret secret : hidden) {
            String before = marked;
            marked = secret.use(
                    typed -> typed.length() < SHORTEST ? before : before.replace(typed, String.valueOf(PLACE)));
        }
        String all = marked;
        StringBuilder pattern = new StringBuilder();
        List<Map.Entry<String, String>> values = planned.telling();
        int from = 0;
        while (from < all.length()) {
            int at = from;
            Map.Entry<String, String> value = values.stream()
                    .filter(each -> startsWhole(all, each.getValue(), at))
                    .findFirst()
                    .orElse(null);
            if (value == null) {
                pattern.append(escaped(all.charAt(from++)));
            } else {
                pattern.append(value.getKey().replace("}.{", "}[.]{"));
                from += value.getValue().length();
            }
        }
        return pattern.toString().replaceAll(" {2,}", " ").replace(" ", " +");
    }

    /** Whether a value is there as a word of its own. */
    private static boolean startsWhole(String text, String value, int at) {
        return text.startsWith(value, at)
                && (at == 0 || !Character.isLetterOrDigit(text.charAt(at - 1)))
                && (at + value.length() == text.length()
                        || !Character.isLetterOrDigit(text.charAt(at + value.length())));
    }

    private static String escaped(char letter) {
        if (letter == PLACE) {
            return ANYTHING;
        }
        String text = String.valueOf(letter);
        // braces with a backslash would still be read as a name
        return letter == '{' || letter == '}'
                ? "[" + text + "]"
                : SPECIAL.matcher(text).matches() ? "\\" + text : text;
    }

    /** What a question asks for, in a few words. */
    String title(String question) {
        Matcher suggests = SUGGESTED.matcher(question);
        String words = blanked(suggests.matches() ? suggests.group(1) : question)
                .replaceAll("[^\\p{L}\\p{N} '/-]+", " ")
                .strip()
                .replaceAll(" +", " ");
        return words.isEmpty() ? "question" : words.substring(0, Math.min(words.length(), LONGEST_NAME * 2));
    }

    /** The name of a fact that a question asks for. */
    String name(String question) {
        StringBuilder name = new StringBuilder();
        int words = 0;
        for (String word : title(question).toLowerCase(Locale.ROOT).split("[^a-z0-9]+")) {
            boolean fits = name.length() + word.length() < LONGEST_NAME && words < MOST_WORDS;
            if (!word.isEmpty() && fits && (name.length() > 0 || Character.isLetter(word.charAt(0)))) {
                name.append(name.length() == 0 ? "" : "-").append(word);
                words++;
            }
        }
        return name.length() < SHORTEST ? "answer" : name.toString();
    }
}
