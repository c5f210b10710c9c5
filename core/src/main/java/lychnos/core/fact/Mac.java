package lychnos.core.fact;

import java.util.Locale;

/**
 * A 48-bit MAC address (EUI-48, IEEE 802).
 *
 * @param bits the address in the low 48 bits, first octet highest
 */
public record Mac(long bits) implements Comparable<Mac> {

    public Mac {
        if (bits >>> 48 != 0) {
            throw new IllegalArgumentException("a MAC address has 48 bits");
        }
    }

    /**
     * Reads any of the notations that labels and tools use: {@code 02:4c:59:a1:00:01}, {@code 02-4C-59-A1-00-01},
     * {@code 024c.59a1.0001}, {@code 024c59-a10001}, {@code 024C59A10001}.
     *
     * @throws IllegalArgumentException with a sentence that says what is wrong
     */
    public static Mac parse(String text) {
        String trimmed = text.strip();
        if (!trimmed.matches("[0-9A-Fa-f]{12}|[0-9A-Fa-f]{2}([:-])[0-9A-Fa-f]{2}(\\1[0-9A-Fa-f]{2}){4}"
                + "|[0-9A-Fa-f]{4}([.:-])[0-9A-Fa-f]{4}\\3[0-9A-Fa-f]{4}|[0-9A-Fa-f]{6}[.:-][0-9A-Fa-f]{6}")) {
            String digits = trimmed.replaceAll("[:.\\- ]", "");
            if (digits.matches("[0-9A-Fa-f]*") && digits.length() != 12) {
                throw new IllegalArgumentException(FactText.MAC_DIGITS.text(trimmed, digits.length()));
            }
            throw new IllegalArgumentException(FactText.NOT_A_MAC.text(trimmed));
        }
        long bits = Long.parseLong(trimmed.replaceAll("[:.\\-]", ""), 16);
        if (bits == 0 || bits == 0xffffffffffffL || (bits >> 40 & 1) == 1) {
            throw new IllegalArgumentException(FactText.MAC_OF_A_GROUP.text(trimmed));
        }
        return new Mac(bits);
    }

    @Override
    public int compareTo(Mac other) {
        return Long.compare(bits, other.bits);
    }

    /** Six pairs of lower-case digits with colons. */
    @Override
    public String toString() {
        String hex = String.format(Locale.ROOT, "%012x", bits);
        StringBuilder text = new StringBuilder(17);
        for (int i = 0; i < 12; i += 2) {
            text.append(i == 0 ? "" : ":").append(hex, i, i + 2);
        }
        return text.toString();
    }
}
