package lychnos.core.address;

import java.util.ArrayList;
import java.util.List;

/** Reads and writes the textual forms of addresses: one strict pass, ASCII digits only, nothing trailing. */
final class AddressText {

    /** Longest legal text: six groups of four and a dotted quad. */
    private static final int LONGEST = 45;

    private AddressText() {}

    static Address parse(String text) {
        if (text == null || text.isEmpty()) {
            throw new MalformedAddress(AddressFaultText.MISSING.text());
        }
        if (text.length() > LONGEST) {
            throw new MalformedAddress(AddressFaultText.TOO_LONG.text());
        }
        if (text.indexOf('%') >= 0) {
            throw new MalformedAddress(AddressFaultText.ZONE.text(text));
        }
        return text.indexOf(':') >= 0 ? parseV6(text) : Address.v4(quad(text, text));
    }

    /** Reads four numbers in one pass: halls of thousands are read address by address, for every view. */
    private static long quad(String text, String whole) {
        long value = 0;
        int begin = 0;
        for (int part = 1; part <= 4; part++) {
            int dot = text.indexOf('.', begin);
            int end = dot < 0 ? text.length() : dot;
            if (part < 4 ? dot < 0 : dot >= 0) {
                throw new MalformedAddress(AddressFaultText.NOT_DOTTED.text(whole));
            }
            value = value << 8 | octet(text, begin, end, whole);
            begin = end + 1;
        }
        return value;
    }

    private static int octet(String text, int begin, int end, String whole) {
        int value = 0;
        for (int i = begin; i < end; i++) {
            int digit = text.charAt(i) - '0';
            if (digit < 0 || digit > 9 || end - begin > 3) {
                throw noNumber(text.substring(begin, end), whole);
            }
            value = value * 10 + digit;
        }
        if (begin == end) {
            throw noNumber("", whole);
        }
        if (end - begin > 1 && text.charAt(begin) == '0') {
            throw new MalformedAddress(AddressFaultText.LEADING_ZERO.text(whole, text.substring(begin, end)));
        }
        if (value > 255) {
            throw new MalformedAddress(AddressFaultText.NUMBER_TOO_LARGE.text(whole, value));
        }
        return value;
    }

    private static MalformedAddress noNumber(String part, String whole) {
        return new MalformedAddress(AddressFaultText.NOT_A_NUMBER.text(whole, part));
    }

    private static Address parseV6(String text) {
        int gap = text.indexOf("::");
        if (gap >= 0 && text.indexOf("::", gap + 1) >= 0) {
            throw new MalformedAddress(AddressFaultText.TWO_GAPS.text(text));
        }
        List<Integer> head = groups(gap >= 0 ? text.substring(0, gap) : text, text, gap < 0);
        List<Integer> tail = gap >= 0 ? groups(text.substring(gap + 2), text, true) : List.of();
        int given = head.size() + tail.size();
        if (gap < 0 ? given != 8 : given > 7) {
            throw new MalformedAddress(AddressFaultText.WRONG_GROUPS.text(text, given));
        }
        int[] all = new int[8];
        for (int i = 0; i < head.size(); i++) {
            all[i] = head.get(i);
        }
        for (int i = 0; i < tail.size(); i++) {
            all[8 - tail.size() + i] = tail.get(i);
        }
        return new Address(Address.Family.IPV6, join(all, 0), join(all, 4));
    }

    private static long join(int[] groups, int from) {
        return (long) groups[from] << 48
                | (long) groups[from + 1] << 32
                | (long) groups[from + 2] << 16
                | groups[from + 3];
    }

    private static List<Integer> groups(String part, String whole, boolean mayEndInQuad) {
        List<Integer> groups = new ArrayList<>();
        if (part.isEmpty()) {
            return groups;
        }
        String[] pieces = part.split(":", -1);
        for (int i = 0; i < pieces.length; i++) {
            String piece = pieces[i];
            if (piece.indexOf('.') >= 0 && mayEndInQuad && i == pieces.length - 1) {
                long quad = quad(piece, whole);
                groups.add((int) (quad >>> 16));
                groups.add((int) (quad & 0xffff));
            } else if (piece.isEmpty() || piece.length() > 4 || !piece.chars().allMatch(AddressText::isHex)) {
                throw new MalformedAddress(AddressFaultText.NOT_A_GROUP.text(whole, piece));
            } else {
                groups.add(Integer.parseInt(piece, 16));
            }
        }
        return groups;
    }

    private static boolean isHex(int c) {
        return c >= '0' && c <= '9' || c >= 'a' && c <= 'f' || c >= 'A' && c <= 'F';
    }

    static String format(Address address) {
        if (address.isV4()) {
            long v = address.low();
            return (v >> 24) + "." + (v >> 16 & 255) + "." + (v >> 8 & 255) + "." + (v & 255);
        }
        int[] groups = new int[8];
        for (int i = 0; i < 8; i++) {
            long half = i < 4 ? address.high() : address.low();
            groups[i] = (int) (half >>> (3 - i % 4) * 16 & 0xffff);
        }
        return formatGroups(groups);
    }

    /** RFC 5952 section 4: lower case, no leading zeros, the first longest row of two or more zero groups as “::”. */
    private static String formatGroups(int[] groups) {
        int start = -1;
        int length = 1;
        for (int i = 0; i < 8; i++) {
            int j = i;
            while (j < 8 && groups[j] == 0) {
                j++;
            }
            if (j - i > length) {
                start = i;
                length = j - i;
            }
        }
        StringBuilder text = new StringBuilder();
        for (int i = 0; i < 8; i++) {
            if (i == start) {
                text.append("::");
                i += length - 1;
            } else {
                if (i > 0 && i != start + length) {
                    text.append(':');
                }
                text.append(Integer.toHexString(groups[i]));
            }
        }
        return text.toString();
    }
}
