package lychnos.core.name;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A pattern for host names such as {@code {site}-{kind}-{n:3}-oob}. Words in braces are filled in: {@code site},
 * {@code kind}, {@code rack} and {@code u} from the unit, {@code n} with its number, and {@code n:3} with the number in
 * at least three digits.
 */
public final class NamePattern {

    private static final Pattern FIELD = Pattern.compile("\\{([a-z]+)(?::([1-9]))?}");
    private static final List<String> FIELDS = List.of("site", "kind", "rack", "u", "n");

    private final String text;

    private NamePattern(String text) {
        this.text = text;
    }

    /**
     * Reads a pattern. One that cannot tell two units apart is refused.
     *
     * @throws IllegalArgumentException with a sentence that says what is wrong
     */
    public static NamePattern parse(String text) {
        String trimmed = text.strip().toLowerCase(Locale.ROOT);
        if (trimmed.length() > 200) {
            throw new IllegalArgumentException("The pattern has more than 200 letters.");
        }
        List<String> used = new ArrayList<>();
        Matcher matcher = FIELD.matcher(trimmed);
        while (matcher.find()) {
            if (!FIELDS.contains(matcher.group(1))) {
                throw new IllegalArgumentException("{" + matcher.group(1) + "} is unknown; a name may use {site}, {kind}, {rack}, {u}, {n} and {n:3}.");
            }
            used.add(matcher.group(1));
        }
        String rest = FIELD.matcher(trimmed).replaceAll("");
        if (rest.indexOf('{') >= 0 || rest.indexOf('}') >= 0) {
            throw new IllegalArgumentException("A brace in “" + trimmed + "” is not closed, or what it holds is no field.");
        }
        if (!used.contains("n") && !(used.contains("rack") && used.contains("u"))) {
            throw new IllegalArgumentException("“" + trimmed + "” gives every unit the same name; add {n:3}, or {rack} and {u}.");
        }
        return new NamePattern(trimmed);
    }

    /**
     * The name of one unit.
     *
     * @param words what to fill in, without {@code n}
     * @param number the unit's number, from 1
     * @throws IllegalArgumentException if what comes out is no host name
     */
    public String name(Map<String, String> words, int number) {
        String name = FIELD.matcher(text).replaceAll(match -> {
            if (match.group(1).equals("n")) {
                int width = match.group(2) == null ? 1 : Integer.parseInt(match.group(2));
                return String.format(Locale.ROOT, "%0" + width + "d", number);
            }
            return Matcher.quoteReplacement(words.getOrDefault(match.group(1), "").toLowerCase(Locale.ROOT));
        });
        return Hostname.require(name);
    }

    @Override
    public String toString() {
        return text;
    }
}
