package lychnos.core.learn;

import java.util.List;
import java.util.Optional;

/**
 * Where the machine said which one it is.
 *
 * @param entry before which entry
 * @param see the pattern of that line
 * @param unused what it called itself before it was set up; empty where it said nothing of it
 */
record Identity(int entry, String see, String unused) {

    private static final String SERIAL = "(?<serial>\\S+)";

    static Optional<Identity> of(List<Entry> entries, Entry after, String serial, Looks looks) {
        for (int i = 0; i < entries.size(); i++) {
            for (String line : lines(entries.get(i))) {
                int at = line.indexOf(serial);
                if (at >= 0) {
                    return Optional.of(at(i, line, at, serial, entries, after, looks));
                }
            }
        }
        return Optional.empty();
    }

    private static List<String> lines(Entry entry) {
        List<String> lines = new java.util.ArrayList<>(entry.shown());
        lines.add(entry.question());
        return lines;
    }

    private static Identity at(
            int entry, String line, int at, String serial, List<Entry> entries, Entry after, Looks looks) {
        String before = line.substring(0, at);
        String behind = line.substring(at + serial.length());
        String start = "/^ *" + spaced(before, looks);
        Optional<String> later = later(entry, before + serial, behind, entries, after);
        if (later.isEmpty()) {
            String sign = behind.isEmpty() || Character.isWhitespace(behind.charAt(0)) ? "" : behind.substring(0, 1);
            return new Identity(entry, start + SERIAL + looks.quoted(sign) + "/", "");
        }
        int same = commonStart(behind, later.get());
        int end = commonEnd(behind.substring(same), later.get().substring(same));
        String first = behind.substring(same, behind.length() - end);
        String second = later.get().substring(same, later.get().length() - end);
        String see = start + SERIAL + spaced(behind.substring(0, same), looks) + "(?<state>" + looks.quoted(first) + "|"
                + looks.quoted(second) + ")" + spaced(behind.substring(behind.length() - end), looks) + "/";
        return new Identity(entry, see, first.strip());
    }

    /** A part of a line, with the blanks around it. */
    private static String spaced(String part, Looks looks) {
        if (part.isBlank()) {
            return part.isEmpty() ? "" : " +";
        }
        return (part.startsWith(" ") ? " +" : "") + looks.quoted(part) + (part.endsWith(" ") ? " +" : "");
    }

    /** What the same line says behind the serial number later on, where it says something else. */
    private static Optional<String> later(int entry, String start, String behind, List<Entry> entries, Entry after) {
        return java.util.stream.Stream.concat(entries.stream().skip(entry + 1L), java.util.stream.Stream.of(after))
                .flatMap(each -> lines(each).stream())
                .filter(line -> line.startsWith(start))
                .map(line -> line.substring(start.length()))
                .filter(rest -> !rest.equals(behind))
                .findFirst();
    }

    /** How far two texts are the same, in whole words. */
    private static int commonStart(String one, String other) {
        int same = 0;
        while (same < Math.min(one.length(), other.length()) && one.charAt(same) == other.charAt(same)) {
            same++;
        }
        while (same > 0 && Character.isLetterOrDigit(one.charAt(same - 1))) {
            same--;
        }
        return same;
    }

    private static int commonEnd(String one, String other) {
        int same = 0;
        while (same < Math.min(one.length(), other.length())
                && one.charAt(one.length() - 1 - same) == other.charAt(other.length() - 1 - same)) {
            same++;
        }
        while (same > 0 && Character.isLetterOrDigit(one.charAt(one.length() - same))) {
            same--;
        }
        return same;
    }
}
