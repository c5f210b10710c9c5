package lychnos.core.dialogue;

import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.regex.PatternSyntaxException;
import java.util.stream.Collectors;

/**
 * Something that is looked for on a line: a text as it stands, or a pattern between strokes, such as {@code /code
 * ([0-9]+)/}. Groups with names give values. Names in braces in a pattern stand for values, letter by letter: {@code
 * /host +{name}$/}; before {@link #filled} such a pattern is never found. A pattern that would take too long is given
 * up after so many steps, since descriptions come from anywhere.
 */
public final class Look {

    /** Steps through the text that one search may take; a sane pattern takes a few for each character. */
    private static final int MOST_STEPS = 300_000;

    private static final Pattern GROUP = Pattern.compile("\\(\\?<([a-zA-Z][a-zA-Z0-9]*)>");

    /** A name in braces, which a count of repetitions (a number) and a class of characters (a capital) are not. */
    private static final Pattern NAME = Pattern.compile("(?<!\\\\[pP])\\{([a-z][a-z0-9-]*(?:\\.[a-z][a-z0-9-]*)*)}");

    private static final String NEVER = "(?!)";

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
            throw new IllegalArgumentException(DialogueText.PATTERN_EMPTY.text());
        }
        if (text.length() < 2 || !text.startsWith("/") || !text.endsWith("/")) {
            return new Look(text, Pattern.compile(Pattern.quote(text)));
        }
        try {
            return new Look(text, pattern(NAME.matcher(text).replaceAll(Matcher.quoteReplacement(NEVER))));
        } catch (PatternSyntaxException e) {
            throw new IllegalArgumentException(DialogueText.PATTERN_WRONG.text(text, e.getDescription()));
        }
    }

    private static Pattern pattern(String text) {
        return Pattern.compile(text.substring(1, text.length() - 1), Pattern.MULTILINE);
    }

    private boolean isPattern() {
        return text.length() > 2 && text.startsWith("/") && text.endsWith("/");
    }

    /** The names of the values in it; none in a text as it stands. */
    public Set<String> names() {
        return isPattern()
                ? NAME.matcher(text).results().map(found -> found.group(1)).collect(Collectors.toSet())
                : Set.of();
    }

    /** The names of its groups, in their order. */
    public Set<String> groups() {
        return GROUP.matcher(text)
                .results()
                .map(found -> found.group(1))
                .collect(Collectors.toCollection(LinkedHashSet::new));
    }

    /** The same with its values; one whose value is not known is still never found. */
    public Look filled(Function<String, Optional<String>> values) {
        if (names().isEmpty()) {
            return this;
        }
        return new Look(
                text,
                pattern(NAME.matcher(text)
                        .replaceAll(found -> Matcher.quoteReplacement(
                                values.apply(found.group(1)).map(Pattern::quote).orElse(NEVER)))));
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
            super(DialogueText.PATTERN_SLOW.text(pattern));
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
            for (String group : groups()) {
                String value = matcher.group(group);
                if (value != null) {
                    values.put(group, value);
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
