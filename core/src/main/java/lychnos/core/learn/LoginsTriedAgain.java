package lychnos.core.learn;

import java.util.List;
import java.util.function.Function;
import java.util.stream.IntStream;

/** A login that was valid before a new password was set, typed again afterwards. */
final class LoginsTriedAgain {

    private LoginsTriedAgain() {}

    /**
     * Whether an entry is such a password, and the machine asked for the log-in again.
     *
     * @param after what was asked behind the last entry
     * @param look what a question looks like, however often it is asked
     */
    static boolean refused(List<Entry> entries, int place, Entry after, Function<Entry, String> look) {
        Entry entry = entries.get(place);
        if (!entry.hidden() || entry.typed().isEmpty()) {
            return false;
        }
        int first = IntStream.range(0, place)
                .filter(i -> entries.get(i).hidden() && entries.get(i).sameAs(entry))
                .findFirst()
                .orElse(place);
        boolean newOneSince = IntStream.range(first + 1, place - 1)
                .anyMatch(i -> entries.get(i).hidden()
                        && entries.get(i).sameAs(entries.get(i + 1))
                        && !entries.get(i).sameAs(entry));
        String next = look.apply(place + 1 < entries.size() ? entries.get(place + 1) : after);
        return newOneSince && (next.equals(look.apply(entry)) || next.equals(look.apply(entries.get(place - 1))));
    }
}
