package lychnos.core.learn;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.regex.Pattern;

/**
 * Leaves out what was not taken: an answer after which the machine said why not and asked again, and Enter that only
 * made it ask again.
 *
 * @param kept the entries that led on
 * @param refused how the machine says that it does not take an answer, as a pattern; empty where it took all
 */
record Corrections(List<Entry> kept, Optional<String> refused) {

    private static final int PAIR = 2;

    /** How machines say that they did not take a command. */
    private static final Pattern COMPLAINT = Pattern.compile("(?i)^ *%|\\b(error|invalid|unknown|unrecognized|incorrect"
            + "|failed|refused|not (taken|valid|found|accepted|recognized|a valid))\\b");

    static Corrections of(List<Entry> entries, Looks looks, Function<Entry, String> look) {
        List<Entry> kept = new ArrayList<>(entries);
        String refused = null;
        for (int i = 0; i + 1 < kept.size(); i++) {
            Entry entry = kept.get(i);
            Entry next = kept.get(i + 1);
            if (LoginsTriedAgain.refused(kept, i, next, look)) {
                continue; // no correction: it shows that the factory login is refused
            }
            boolean again = look.apply(entry).equals(look.apply(next)) && !next.key() && !entry.key();
            if (again && entry.typed().isEmpty() && next.shown().isEmpty()) {
                kept.set(i + 1, merged(entry, next));
                kept.remove(i--);
            } else if (again && said(next) && next.typed().isPresent() && !isPrompt(kept, i, look)) {
                refused = refused == null ? pattern(next, looks) : refused;
                kept.set(i + 1, merged(entry, next));
                kept.remove(i--);
            } else if (next.shown().size() == 1
                    && complains(next)
                    && !entry.key()
                    && entry.typed().isPresent()) {
                refused = refused == null ? pattern(next, looks) : refused;
                kept.set(i + 1, merged(entry, next));
                kept.remove(i--);
            } else if (pairRefused(kept, i, look)) {
                refused = refused == null ? pattern(kept.get(i + PAIR), looks) : refused;
                kept.set(i + PAIR, merged(entry, kept.get(i + PAIR)));
                kept.remove(i);
                kept.remove(i--);
            }
        }
        return new Corrections(kept, Optional.ofNullable(refused));
    }

    /** A password and its repetition that were not equal, and both once more. */
    private static boolean pairRefused(List<Entry> all, int i, Function<Entry, String> look) {
        if (i + PAIR + 1 >= all.size()) {
            return false;
        }
        for (int each = 0; each < PAIR; each++) {
            Entry first = all.get(i + each);
            Entry second = all.get(i + PAIR + each);
            if (!first.hidden() || !second.hidden() || !look.apply(first).equals(look.apply(second))) {
                return false;
            }
        }
        return said(all.get(i + PAIR)) && !all.get(i).sameAs(all.get(i + 1));
    }

    private static boolean complains(Entry next) {
        return COMPLAINT.matcher(next.shown().get(0)).find();
    }

    private static boolean said(Entry entry) {
        return !entry.shown().isEmpty();
    }

    /** A prompt comes back after each command, whatever was typed. */
    private static boolean isPrompt(List<Entry> all, int i, Function<Entry, String> look) {
        String same = look.apply(all.get(i));
        return all.stream().filter(each -> look.apply(each).equals(same)).count() > PAIR
                || all.get(i + 1).shown().size() > PAIR;
    }

    private static Entry merged(Entry refused, Entry next) {
        return next.with(refused.shown(), refused.silence());
    }

    private static String pattern(Entry after, Looks looks) {
        String line = after.shown().get(after.shown().size() - 1);
        int colon = line.indexOf(": ");
        return colon > 0
                ? "/^ *" + looks.quoted(line.substring(0, colon + 1)) + " *(?<why>.+)/"
                : "/^ *(?<why>" + looks.quoted(line) + ")/";
    }
}
