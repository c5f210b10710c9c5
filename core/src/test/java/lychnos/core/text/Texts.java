package lychnos.core.text;

import java.util.Arrays;
import java.util.regex.Pattern;

/**
 * Compares a text with a message whatever its sentence is, so that a sentence can be rewritten without a test of
 * something else failing.
 */
public final class Texts {

    private static final Pattern PLACE = Pattern.compile("\\{[a-zA-Z][a-zA-Z0-9]*(\\|[^|}]*\\|[^|}]*)?}");

    private Texts() {}

    /** Whether the text is this message, or has it in it, with any values. */
    public static boolean says(Message message, String text) {
        if (message.text(new Object[message.names().size()]).startsWith(message.name())) {
            return text.contains(message.name()); // the texts of this run are their codes
        }
        StringBuilder regex = new StringBuilder();
        int from = 0;
        var places = PLACE.matcher(message.pattern());
        while (places.find()) {
            regex.append(Pattern.quote(message.pattern().substring(from, places.start())))
                    .append(".*");
            from = places.end();
        }
        regex.append(Pattern.quote(message.pattern().substring(from)));
        return Pattern.compile(regex.toString(), Pattern.DOTALL).matcher(text).find();
    }

    /**
     * The same for tables of a test.
     *
     * @param message a catalogue behind {@code lychnos.} and its code, such as {@code
     *     core.kind.KindFaultText.KEY_MISSING}
     */
    public static boolean says(String message, String text) {
        return says(message(message), text);
    }

    private static Message message(String name) {
        int dot = name.lastIndexOf('.');
        try {
            return (Message) Arrays.stream(
                            Class.forName("lychnos." + name.substring(0, dot)).getEnumConstants())
                    .filter(each -> ((Message) each).name().equals(name.substring(dot + 1)))
                    .findFirst()
                    .orElseThrow(() -> new AssertionError("there is no " + name));
        } catch (ClassNotFoundException e) {
            throw new AssertionError(e);
        }
    }
}
