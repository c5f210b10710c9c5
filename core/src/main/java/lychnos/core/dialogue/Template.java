package lychnos.core.dialogue;

import java.util.LinkedHashSet;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A text with names in braces that stand for facts, addresses and what was read on the way: {@code {address}/{length}}.
 */
public record Template(String text) {

    private static final Pattern NAME = Pattern.compile("\\{([a-z][a-z0-9-]*(?:\\.[a-z][a-z0-9-]*)*)}");

    /** @throws IllegalArgumentException for braces that hold no name */
    public static Template parse(String text) {
        String rest = NAME.matcher(text).replaceAll("");
        if (rest.indexOf('{') >= 0 || rest.indexOf('}') >= 0) {
            throw new IllegalArgumentException(
                    "“" + text + "” has braces without a name in them, such as {serial} or {network.gateway}.");
        }
        return new Template(text);
    }

    /** The names in it, in order. */
    public Set<String> names() {
        Set<String> names = new LinkedHashSet<>();
        Matcher matcher = NAME.matcher(text);
        while (matcher.find()) {
            names.add(matcher.group(1));
        }
        return names;
    }

    /** The text with every name filled in; empty while one of them is not known. */
    public Optional<String> fill(Function<String, Optional<String>> values) {
        StringBuilder filled = new StringBuilder();
        Matcher matcher = NAME.matcher(text);
        while (matcher.find()) {
            Optional<String> value = values.apply(matcher.group(1));
            if (value.isEmpty()) {
                return Optional.empty();
            }
            matcher.appendReplacement(filled, Matcher.quoteReplacement(value.get()));
        }
        return Optional.of(matcher.appendTail(filled).toString());
    }

    @Override
    public String toString() {
        return text;
    }
}
