package lychnos.core.dialogue;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.regex.MatchResult;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A text with names in braces that stand for facts, addresses and what was read on the way: {@code {address}/{length}}.
 * A list with what stands between its entries stands for as many as there are: {@code {name-servers:,}}.
 */
public record Template(String text) {

    /** A name, and behind a colon what stands between the entries of a list. */
    private static final Pattern NAME = Pattern.compile("\\{([a-z][a-z0-9-]*(?:\\.[a-z][a-z0-9-]*)*)(?::([^{}]*))?}");

    /** Lists, by the names of their entries without the number. */
    private static final Set<String> LISTS = Set.of("name-server", "time-server");

    private static final int LONGEST_LIST = 9;

    /** @throws IllegalArgumentException for braces that hold no name, and for a list that does not exist */
    public static Template parse(String text) {
        String rest = NAME.matcher(text).replaceAll("");
        if (rest.indexOf('{') >= 0 || rest.indexOf('}') >= 0) {
            throw new IllegalArgumentException(
                    "“" + text + "” has braces without a name in them, such as {serial} or {network.gateway}.");
        }
        NAME.matcher(text)
                .results()
                .filter(Template::isList)
                .map(Template::entry)
                .forEach(entry -> {
                    if (!LISTS.contains(entry)) {
                        throw new IllegalArgumentException(
                                "“" + entry + "s” is no list. Lists are {name-servers:,} and "
                                        + "{time-servers:,}; what stands behind the colon is put between the entries.");
                    }
                });
        return new Template(text);
    }

    private static boolean isList(MatchResult found) {
        return found.group(2) != null;
    }

    /** What an entry of a list is called, without its number. */
    private static String entry(MatchResult list) {
        return list.group(1).replaceFirst("s$", "");
    }

    /** The names in it, in order; of a list the first entry, which must be known. */
    public Set<String> names() {
        Set<String> names = new LinkedHashSet<>();
        NAME.matcher(text).results().forEach(found -> names.add(isList(found) ? entry(found) + "-1" : found.group(1)));
        return names;
    }

    /** The text with every name filled in; empty while one of them is not known. */
    public Optional<String> fill(Function<String, Optional<String>> values) {
        StringBuilder filled = new StringBuilder();
        Matcher matcher = NAME.matcher(text);
        while (matcher.find()) {
            Optional<String> value = isList(matcher) ? list(matcher, values) : values.apply(matcher.group(1));
            if (value.isEmpty()) {
                return Optional.empty();
            }
            matcher.appendReplacement(filled, Matcher.quoteReplacement(value.get()));
        }
        return Optional.of(matcher.appendTail(filled).toString());
    }

    private static Optional<String> list(MatchResult found, Function<String, Optional<String>> values) {
        List<String> entries = new ArrayList<>();
        for (int i = 1; i <= LONGEST_LIST; i++) {
            Optional<String> entry = values.apply(entry(found) + "-" + i);
            if (entry.isEmpty()) {
                break;
            }
            entries.add(entry.get());
        }
        return entries.isEmpty() ? Optional.empty() : Optional.of(String.join(found.group(2), entries));
    }

    @Override
    public String toString() {
        return text;
    }
}
