package lychnos.core.fact;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A version of a firmware or of another software: numbers and words with dots, hyphens or brackets between them.
 * Numbers compare as numbers, and a number is newer than a word, so that {@code 4.2} is newer than {@code 4.2-rc1} and
 * older than {@code 4.10}.
 */
public record Version(String text, List<String> parts) implements Comparable<Version> {

    private static final Pattern PART = Pattern.compile("[0-9]+|[a-z]+", Pattern.CASE_INSENSITIVE);
    private static final Pattern VERSION = Pattern.compile("[0-9][0-9A-Za-z.()_+-]*");

    /** @throws IllegalArgumentException for a text that does not begin with a digit */
    public static Version parse(String text) {
        if (!VERSION.matcher(text).matches()) {
            throw new IllegalArgumentException(FactText.NOT_A_VERSION.text(text));
        }
        return new Version(
                text, PART.matcher(text).results().map(found -> found.group()).toList());
    }

    /** The first version in a text that a machine shows, such as {@code firmware 4.2(1) of May}. */
    public static Optional<Version> find(String text) {
        Matcher matcher = VERSION.matcher(text);
        return matcher.find() ? Optional.of(parse(matcher.group())) : Optional.empty();
    }

    /** Whether it is that version or one of its releases, as 4.2.1 is of 4.2. */
    public boolean beginsWith(Version other) {
        return parts.size() >= other.parts.size()
                && new Version("", parts.subList(0, other.parts.size())).compareTo(other) == 0;
    }

    @Override
    public int compareTo(Version other) {
        for (int i = 0; i < Math.max(parts.size(), other.parts.size()); i++) {
            int order = compare(part(i), other.part(i));
            if (order != 0) {
                return order;
            }
        }
        return 0;
    }

    /** A version that ends here is as new as one that goes on with zero. */
    private String part(int place) {
        return place < parts.size() ? parts.get(place) : "0";
    }

    private static int compare(String one, String other) {
        boolean number = Character.isDigit(one.charAt(0));
        boolean otherNumber = Character.isDigit(other.charAt(0));
        if (number && otherNumber) {
            String plain = one.replaceFirst("^0+", "");
            String otherPlain = other.replaceFirst("^0+", "");
            int longer = Integer.compare(plain.length(), otherPlain.length());
            return longer == 0 ? plain.compareTo(otherPlain) : longer;
        }
        return number == otherNumber ? one.compareToIgnoreCase(other) : number ? 1 : -1;
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Version version && compareTo(version) == 0;
    }

    @Override
    public int hashCode() {
        return parts.isEmpty()
                ? 0
                : parts.get(0).toLowerCase(Locale.ROOT).replaceFirst("^0+", "").hashCode();
    }

    @Override
    public String toString() {
        return text;
    }
}
