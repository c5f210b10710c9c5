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
 * at least three digits. A pattern for one role of a unit, such as {@code {unit}-n{m}a}, is filled in with the unit's
 * own name, the member's number {@code m}, the member's label {@code member} and the number {@code i} among equal
 * roles.
 */
public final class NamePattern {

    private static final Pattern FIELD = Pattern.compile("\\{([a-z]+)(?::([1-9]))?}");
    private static final List<String> FIELDS = List.of("site", "kind", "rack", "u", "n");

    private static final List<String> ROLE_FIELDS = List.of("unit", "member", "m", "i");

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
        List<String> used = fields(trimmed, FIELDS, "{site}, {kind}, {rack}, {u}, {n} and {n:3}");
        if (!used.contains("n") && !(used.contains("rack") && used.contains("u"))) {
            throw new IllegalArgumentException(NameText.SAME_NAME.text(trimmed, "{n:3}, or {rack} and {u}"));
        }
        return new NamePattern(trimmed);
    }

    /**
     * Reads the pattern for one role of a unit; it must begin with what tells units apart, the unit's own name.
     *
     * @throws IllegalArgumentException with a sentence that says what is wrong
     */
    public static NamePattern forRole(String text) {
        String trimmed = text.strip().toLowerCase(Locale.ROOT);
        List<String> used = fields(trimmed, ROLE_FIELDS, "{unit}, {member}, {m} and {i}");
        if (!used.contains("unit")) {
            throw new IllegalArgumentException(NameText.SAME_NAME.text(trimmed, "{unit}"));
        }
        return new NamePattern(trimmed);
    }

    private static List<String> fields(String text, List<String> known, String knownText) {
        if (text.length() > 200) {
            throw new IllegalArgumentException(NameText.PATTERN_TOO_LONG.text());
        }
        List<String> used = new ArrayList<>();
        Matcher matcher = FIELD.matcher(text);
        while (matcher.find()) {
            if (!known.contains(matcher.group(1))) {
                throw new IllegalArgumentException(
                        NameText.UNKNOWN_FIELD.text("{" + matcher.group(1) + "}", knownText));
            }
            used.add(matcher.group(1));
        }
        String rest = FIELD.matcher(text).replaceAll("");
        if (rest.indexOf('{') >= 0 || rest.indexOf('}') >= 0) {
            throw new IllegalArgumentException(NameText.OPEN_BRACE.text(text));
        }
        return used;
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
            return Matcher.quoteReplacement(
                    words.getOrDefault(match.group(1), "").toLowerCase(Locale.ROOT));
        });
        return Hostname.require(name);
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof NamePattern pattern && pattern.text.equals(text);
    }

    @Override
    public int hashCode() {
        return text.hashCode();
    }

    @Override
    public String toString() {
        return text;
    }
}
