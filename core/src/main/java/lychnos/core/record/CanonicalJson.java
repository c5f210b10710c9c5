package lychnos.core.record;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import lychnos.core.text.Sha256;

/**
 * JSON in the one form that has a digest (JSON Canonicalization Scheme, RFC 8785): no blanks, members sorted by UTF-16
 * code units, only what must be escaped is. Of numbers it takes whole ones alone, up to what a double holds exactly
 * (RFC 7493, section 2.2), so that nobody's way of rounding matters; figures with a fraction are written as text.
 */
public final class CanonicalJson {

    private static final long MOST = (1L << 53) - 1;

    private CanonicalJson() {}

    /**
     * Writes a value.
     *
     * @param value maps with text for keys, lists, texts, whole numbers, instants, yes and no, and null
     * @throws IllegalArgumentException for anything else
     */
    public static String write(Object value) {
        StringBuilder text = new StringBuilder();
        write(text, value);
        return text.toString();
    }

    /** SHA-256 of the canonical form in UTF-8, in hexadecimal. */
    public static String digest(Object value) {
        return Sha256.hex(write(value));
    }

    private static void write(StringBuilder text, Object value) {
        if (value == null || value instanceof Boolean) {
            text.append(value);
        } else if (value instanceof String string) {
            string(text, string);
        } else if (value instanceof Instant instant) {
            string(text, instant.toString());
        } else if (value instanceof Integer || value instanceof Long) {
            long number = ((Number) value).longValue();
            if (Math.abs(number) > MOST) {
                throw new IllegalArgumentException(number + " is more than a double holds exactly");
            }
            text.append(number);
        } else if (value instanceof List<?> list) {
            text.append('[');
            for (int i = 0; i < list.size(); i++) {
                text.append(i == 0 ? "" : ",");
                write(text, list.get(i));
            }
            text.append(']');
        } else if (value instanceof Map<?, ?> map) {
            object(text, map);
        } else {
            throw new IllegalArgumentException("a " + value.getClass().getSimpleName() + " has no canonical form");
        }
    }

    private static void object(StringBuilder text, Map<?, ?> map) {
        // the order of texts in Java is that of their UTF-16 code units, as section 3.2.3 wants it
        TreeMap<String, Object> sorted = new TreeMap<>();
        map.forEach((key, value) -> sorted.put((String) key, value));
        text.append('{');
        boolean first = true;
        for (Map.Entry<String, Object> each : sorted.entrySet()) {
            text.append(first ? "" : ",");
            first = false;
            string(text, each.getKey());
            text.append(':');
            write(text, each.getValue());
        }
        text.append('}');
    }

    private static void string(StringBuilder text, String string) {
        text.append('"');
        for (int i = 0; i < string.length(); i++) {
            char letter = string.charAt(i);
            switch (letter) {
                case '"' -> text.append("\\\"");
                case '\\' -> text.append("\\\\");
                case '\b' -> text.append("\\b");
                case '\t' -> text.append("\\t");
                case '\n' -> text.append("\\n");
                case '\f' -> text.append("\\f");
                case '\r' -> text.append("\\r");
                default -> {
                    if (Character.isSurrogate(letter)) {
                        i = pair(text, string, i);
                    } else if (letter < ' ') {
                        text.append(String.format("\\u%04x", (int) letter));
                    } else {
                        text.append(letter);
                    }
                }
            }
        }
        text.append('"');
    }

    /** Half a character has no form in UTF-8 (section 3.2.2.2). */
    private static int pair(StringBuilder text, String string, int at) {
        if (!Character.isHighSurrogate(string.charAt(at))
                || at + 1 >= string.length()
                || !Character.isLowSurrogate(string.charAt(at + 1))) {
            throw new IllegalArgumentException("half of a character stands in a text");
        }
        text.append(string, at, at + 2);
        return at + 1;
    }
}
