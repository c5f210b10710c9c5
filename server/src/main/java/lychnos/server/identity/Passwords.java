package lychnos.server.identity;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lychnos.server.text.IdentityText;

/**
 * Which passwords people may choose.
 */
final class Passwords {

    static final int SHORTEST = 12;
    /** What bcrypt takes in; it would leave out the rest without a word. */
    static final int LONGEST_BYTES = 72;

    private static final int FEWEST_CHARACTERS = 5;
    private static final int SHORTEST_RUN = 3;
    /** Whole runs of keys; a password of nothing but pieces of them is guessed first. */
    private static final List<String> RUNS = List.of(
            "abcdefghijklmnopqrstuvwxyz", "01234567890", "qwertyuiop", "asdfghjkl", "zxcvbnm", "1q2w3e4r5t6y7u8i9o0p");
    /** Words that most guessed passwords are put together from. */
    private static final Set<String> COMMON = Set.of(
            "password",
            "passwort",
            "passphrase",
            "secret",
            "letmein",
            "welcome",
            "admin",
            "administrator",
            "root",
            "user",
            "login",
            "master",
            "dragon",
            "monkey",
            "shadow",
            "sunshine",
            "princess",
            "football",
            "baseball",
            "iloveyou",
            "trustno",
            "changeme",
            "change",
            "default",
            "system",
            "server",
            "network",
            "manager",
            "switch",
            "router",
            "superuser",
            "test",
            "testing",
            "temp",
            "guest",
            "hello",
            "world",
            "spring",
            "summer",
            "autumn",
            "winter",
            "january",
            "february",
            "march",
            "april",
            "june",
            "july",
            "august",
            "september",
            "october",
            "november",
            "december",
            "monday",
            "tuesday",
            "wednesday",
            "thursday",
            "friday",
            "saturday",
            "sunday",
            "company",
            "office",
            "internet",
            "computer",
            "datacenter",
            "lychnos",
            "correct",
            "horse",
            "battery",
            "staple",
            "the",
            "and",
            "my",
            "is",
            "your",
            "me",
            "in");

    private static final Pattern NOT_A_LETTER = Pattern.compile("[^a-z]");

    private Passwords() {}

    /** What is wrong with a password that somebody chose, as a sentence. */
    static Optional<String> fault(String password, String login, String name) {
        if (password.length() < SHORTEST) {
            return Optional.of(IdentityText.PASSWORD_HAS_AT_LEAST_CHARACTERS.text(SHORTEST));
        }
        if (password.getBytes(StandardCharsets.UTF_8).length > LONGEST_BYTES) {
            return Optional.of(IdentityText.PASSWORD_HAS_AT_MOST_BYTES.text(LONGEST_BYTES));
        }
        String lower = password.toLowerCase(Locale.ROOT);
        if (lower.chars().distinct().count() < FEWEST_CHARACTERS || isRuns(lower)) {
            return Optional.of(IdentityText.PASSWORD_IS_A_SIMPLE_PATTERN.text());
        }
        // a digit may stand for a letter, or just be added
        if (Stream.of(lower, plain(lower))
                .map(text -> NOT_A_LETTER.matcher(text).replaceAll(""))
                .anyMatch(letters -> !letters.isEmpty()
                        && isCommon(letters, login.toLowerCase(Locale.ROOT), name.toLowerCase(Locale.ROOT)))) {
            return Optional.of(IdentityText.PASSWORD_CONSISTS_OF_COMMON_WORDS.text());
        }
        return Optional.empty();
    }

    /** Letters in place of the digits and signs that people write for them. */
    private static String plain(String text) {
        return text.replace('0', 'o')
                .replace('1', 'l')
                .replace('3', 'e')
                .replace('4', 'a')
                .replace('@', 'a')
                .replace('5', 's')
                .replace('$', 's')
                .replace('7', 't');
    }

    private static boolean isRuns(String text) {
        String rest = text;
        while (!rest.isEmpty()) {
            int longest = 0;
            for (String run : RUNS) {
                for (String way : List.of(run, new StringBuilder(run).reverse().toString())) {
                    while (longest < rest.length() && way.contains(rest.substring(0, longest + 1))) {
                        longest++;
                    }
                }
            }
            if (longest < Math.min(SHORTEST_RUN, rest.length())) {
                return false;
            }
            rest = rest.substring(longest);
        }
        return true;
    }

    /** Whether nothing is left once every common word and the person's own name is taken away. */
    private static boolean isCommon(String letters, String login, String name) {
        boolean[] reached = new boolean[letters.length() + 1];
        reached[0] = true;
        Set<String> own = Stream.of(login + " " + name)
                .flatMap(text -> Arrays.stream(text.split("[^a-z]+")))
                .filter(word -> word.length() > 2)
                .collect(Collectors.toSet());
        for (int end = 1; end <= letters.length(); end++) {
            for (int begin = 0; begin < end && !reached[end]; begin++) {
                String word = letters.substring(begin, end);
                reached[end] = reached[begin] && (COMMON.contains(word) || own.contains(word));
            }
        }
        return reached[letters.length()];
    }
}
