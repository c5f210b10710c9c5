package lychnos.core.text;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.MatchResult;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A message with its values.
 *
 * @param message whose pattern names the values
 * @param values by name, in the order of the pattern; none is null
 */
public record Said(Message message, Map<String, String> values) {

    private static final Pattern NAME = Pattern.compile("\\{([a-zA-Z][a-zA-Z0-9]*)(?:\\|([^|}]*)\\|([^|}]*))?}");

    /**
     * With this property set to "codes", each text is its code with its values in brackets. What still works then
     * decides by codes, not by sentences.
     */
    private static final boolean CODES = "codes".equals(System.getProperty("texts"));

    /** The names in a pattern, each once, in its order. */
    static List<String> names(String pattern) {
        return NAME.matcher(pattern)
                .results()
                .map(place -> place.group(1))
                .distinct()
                .toList();
    }

    static Said of(Message message, Object... values) {
        List<String> names = message.names();
        if (names.size() != values.length) {
            throw new IllegalArgumentException(
                    message.name() + " needs " + names.size() + " values, not " + values.length);
        }
        Map<String, String> named = new LinkedHashMap<>();
        for (int i = 0; i < values.length; i++) {
            named.put(names.get(i), String.valueOf(values[i]));
        }
        return new Said(message, Collections.unmodifiableMap(named));
    }

    /** The code of the message. */
    public String code() {
        return message.name();
    }

    /** The sentence. */
    public String text() {
        if (CODES) {
            return values.isEmpty() ? code() : code() + "[" + String.join("|", values.values()) + "]";
        }
        return NAME.matcher(message.pattern()).replaceAll(place -> Matcher.quoteReplacement(filled(place)));
    }

    private String filled(MatchResult place) {
        String value = values.get(place.group(1));
        if (place.group(2) == null) {
            return value;
        }
        return value.equals("1") ? place.group(2) : place.group(3);
    }
}
