package lychnos.core.fact;

import java.util.regex.Pattern;

/** What a spreadsheet makes of serials and MAC addresses that look like numbers or days to it: it cannot be undone. */
public final class AsPrinted {

    /** A long number is shortened: 1.23457E+11. */
    private static final Pattern SHORTENED = Pattern.compile("[0-9]+[.,][0-9]+[eE][+-]?[0-9]+|[0-9]+[eE]\\+[0-9]+");

    private static final Pattern DATE = Pattern.compile(
            "[0-9]{1,2}[./][0-9]{1,2}[./][0-9]{2,4}( .*)?|[0-9]{4}-[0-9]{2}-[0-9]{2}([ T].*)?|[0-9]{1,2}[-. /]"
                    + "(Jan|Feb|Mar|Apr|May|Jun|Jul|Aug|Sep|Oct|Nov|Dec)[a-z]*([-. /][0-9]{2,4})?",
            Pattern.CASE_INSENSITIVE);

    private AsPrinted() {}

    /**
     * The same text.
     *
     * @throws IllegalArgumentException with a sentence, where a spreadsheet has changed it
     */
    public static String text(String text) {
        if (SHORTENED.matcher(text).matches()) {
            throw new IllegalArgumentException(FactText.NUMBER_OF_SPREADSHEET.text(text));
        }
        if (DATE.matcher(text).matches()) {
            throw new IllegalArgumentException(FactText.DATE_OF_SPREADSHEET.text(text));
        }
        return text;
    }

    /** The same for a MAC address, which may have lost zeros in front as well. */
    public static String mac(String text) {
        if (text(text).matches("[0-9]{1,11}")) {
            throw new IllegalArgumentException(FactText.MAC_ZEROS.text(text, text.length()));
        }
        return text;
    }
}
