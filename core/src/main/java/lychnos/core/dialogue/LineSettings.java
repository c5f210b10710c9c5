package lychnos.core.dialogue;

import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * How the bits go over a serial line.
 *
 * @param rate bits a second, one of {@link #RATES}
 * @param dataBits 5 to 8
 * @param stopBits 1 or 2
 */
public record LineSettings(int rate, int dataBits, Parity parity, int stopBits) {

    /** The rates that serial servers and adapters have in common. */
    public static final List<Integer> RATES = List.of(1200, 2400, 4800, 9600, 19200, 38400, 57600, 115200, 230400);

    /** What most machines have as they leave the factory. */
    public static final LineSettings USUAL = new LineSettings(9600, 8, Parity.NONE, 1);

    private static final Pattern TEXT = Pattern.compile("(\\d{4,6}) ([5-8])([NEO])([12])");

    /** Parity, in the order of its numbers in RFC 2217, section 3 (SET-PARITY), from 1 on. */
    public enum Parity {
        NONE,
        ODD,
        EVEN;

        char letter() {
            return name().charAt(0);
        }
    }

    public LineSettings {
        if (!RATES.contains(rate)) {
            throw new IllegalArgumentException(rate + " is no usual rate; those are "
                    + RATES.toString().replaceAll("[\\[\\]]", "") + " bits a second.");
        }
        if (dataBits < 5 || dataBits > 8) {
            throw new IllegalArgumentException(DialogueText.DATA_BITS.text(dataBits));
        }
        if (stopBits < 1 || stopBits > 2) {
            throw new IllegalArgumentException(DialogueText.STOP_BITS.text(stopBits));
        }
    }

    /** Reads {@code 57600 8N1}. */
    public static LineSettings parse(String text) {
        Matcher matcher = TEXT.matcher(text);
        if (!matcher.matches()) {
            throw new IllegalArgumentException(DialogueText.LINE_SETTING.text(text));
        }
        Parity parity =
                switch (matcher.group(3)) {
                    case "N" -> Parity.NONE;
                    case "O" -> Parity.ODD;
                    default -> Parity.EVEN;
                };
        return new LineSettings(
                Integer.parseInt(matcher.group(1)),
                Integer.parseInt(matcher.group(2)),
                parity,
                Integer.parseInt(matcher.group(4)));
    }

    @Override
    public String toString() {
        return rate + " " + dataBits + parity.letter() + stopBits;
    }
}
