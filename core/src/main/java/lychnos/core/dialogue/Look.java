package lychnos.core.dialogue;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.regex.PatternSyntaxException;

/**
 * Something that is looked for on a line: a text as it stands, or a pattern between strokes, such as {@code /code
 * ([0-9]+)/}.
 * Groups with names give values. A pattern that would take permanently is given up after so many steps, since descriptions
 * come from anywhere.
 */
public final class Look {

    /** Steps through the text that one search may take; a sane pattern takes a few for each character. */
    private static final int MOST_STEPS = 300_000;

    private static final Pattern GROUP = Pattern.compile("\\(\\?<([a-zA-Z][a-zA-Z0-9]*)>");

    /** What is never found. */
    public static final Look NOTHING = parse("\u0000");

    private final String text;
    private final Pattern pattern;

    private Look(String text, Pattern pattern) {
        this.text = text;
        this.pattern = pattern;
    }

    /**
     * Reads what is looked for.
     *
     * @throws IllegalArgumentException for an empty text or a pattern that is none
     */
    public static Look parse(String text) {
        if (text.isBlank() || text.equals("//")) {
            throw new IllegalArgumentException("Nothing is looked for here.");
        }
        if (text.length() < 2 || !text.startsWith("/") || !text.endsWith("/")) {
            return new Look(text, Pattern.compile(Pattern.quote(text)));
        }
        try {
            return new Look(text, Pattern.compile(text.substring(1, text.length() - 1), Pattern.MULTILINE));
        } catch (PatternSyntaxException e) {
            throw new IllegalArgumentException("“" + text + "” is no pattern: " + e.getDescription() + ".");
        }
    }

    /**
     * What was found.
     *
     * @param start where it begins
     * @param end behind its last character
     * @param value its first group, or all of it where it has none
     * @param values by the names of groups
     */
    public record Seen(int start, int end, String text, String value, Map<String, String> values) {}

    /** A search that was given up. */
    public static final class TooHard extends RuntimeException {

        private TooHard(String pattern) {
            super("The pattern " + pattern + " takes too long on what the line shows; make it simpler.");
        }
    }

    /** Counts how often a search looks at a character. */
    private final class Counted implements CharSequence {
        private final CharSequence inner;
        private final int[] steps;

        Counted(CharSequence inner, int[] steps) {
            this.inner = inner;
            this.steps = steps;
        }

        @Override
        public int length() {
            return inner.length();
        }

        @Override
        public char charAt(int index) {
            if (++steps[0] > MOST_STEPS) {
                throw new TooHard(text);
            }
            return inner.charAt(index);
        }

        @Override
        public CharSequence subSequence(int from, int to) {
            return new Counted(inner.subSequence(from, to), steps);
        }

        @Override
        public String toString() {
            return inner.toString();
        }
    }

    /**
     * The last place where it stands.
     *
     * @throws TooHard when the search was given up
     */
    public Optional<Seen> last(String in) {
        Matcher matcher = pattern.matcher(new Counted(in, new int[1]));
        Seen seen = null;
        while (matcher.find()) {
            Map<String, String> values = new LinkedHashMap<>();
            Matcher groups = GROUP.matcher(text);
            while (groups.find()) {
                String value = matcher.group(groups.group(1));
                if (value != null) {
                    values.put(groups.group(1), value);
                }
            }
            String text = in.substring(matcher.start(), matcher.end());
            String first = matcher.groupCount() > 0 ? matcher.group(1) : text;
            seen = new Seen(matcher.start(), matcher.end(), text, first == null ? "" : first, values);
        }
        return Optional.ofNullable(seen);
    }

    public boolean in(String text) {
        return last(text).isPresent();
    }

    /** As it was written. */
    @Override
    public String toString() {
        return text;
    }
}
