package lychnos.core.fact;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;

/**
 * Looks for many passwords in one long text. A text is looked through once for each length that passwords have, with a
 * rolling hash (R. M. Karp and M. O. Rabin, 1987), so that thousands of them cost no more than a few.
 */
public final class SecretSearch {

    /** Shorter ones are found in any text, and would tell nothing. */
    public static final int SHORTEST = 4;

    private static final char BLANK = '•';
    private static final long BASE = 1_000_003;

    /** By length, the hash of each password with those that have it. */
    private final Map<Integer, Map<Long, List<Secret>>> byLength = new TreeMap<>();

    /** @param secrets those to look for; the shortest are left out */
    public SecretSearch(Collection<Secret> secrets) {
        Map<Integer, List<Secret>> lengths =
                secrets.stream().collect(Collectors.groupingBy(secret -> secret.use(String::length)));
        lengths.forEach((length, all) -> {
            if (length >= SHORTEST) {
                byLength.put(
                        length, all.stream().collect(Collectors.groupingBy(secret -> secret.use(SecretSearch::hash))));
            }
        });
    }

    /**
     * A text without passwords.
     *
     * @param text of the same length, with a dot for each character of a password
     * @param found how many passwords were in it, each counted wherever it stands
     */
    public record Blanked(String text, int found) {}

    /** Blanks every password in a text. */
    public Blanked blank(String text) {
        List<int[]> places = new ArrayList<>();
        byLength.forEach((length, secrets) -> find(text, length, secrets, places));
        StringBuilder blanked = new StringBuilder(text);
        for (int[] place : places) {
            for (int i = place[0]; i < place[1]; i++) {
                blanked.setCharAt(i, BLANK);
            }
        }
        return new Blanked(blanked.toString(), places.size());
    }

    private static void find(String text, int length, Map<Long, List<Secret>> secrets, List<int[]> places) {
        if (text.length() < length) {
            return;
        }
        Set<Long> hashes = secrets.keySet();
        long leaving = 1;
        for (int i = 1; i < length; i++) {
            leaving *= BASE;
        }
        long hash = hash(text.substring(0, length));
        for (int at = 0; ; at++) {
            if (hashes.contains(hash)) {
                int start = at;
                boolean same = secrets.get(hash).stream()
                        .anyMatch(secret -> secret.use(word -> text.regionMatches(start, word, 0, length)));
                if (same) {
                    places.add(new int[] {at, at + length});
                }
            }
            if (at + length >= text.length()) {
                return;
            }
            hash = (hash - text.charAt(at) * leaving) * BASE + text.charAt(at + length);
        }
    }

    private static long hash(String text) {
        long hash = 0;
        for (int i = 0; i < text.length(); i++) {
            hash = hash * BASE + text.charAt(i);
        }
        return hash;
    }
}
