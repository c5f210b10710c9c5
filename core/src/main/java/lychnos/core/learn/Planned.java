package lychnos.core.learn;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.MatchResult;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import lychnos.core.dialogue.Values;
import lychnos.core.fact.FactSpec;
import lychnos.core.fact.Secret;
import lychnos.core.kind.Kind;

/** What was planned for the unit, and which of it an entry may have been. */
public final class Planned {

    private static final Pattern WORD = Pattern.compile("[\\p{L}]+|[0-9]+");

    /** What stands between the words of a command. */
    private static final Pattern TOKEN = Pattern.compile("[^\\s,;=\"'()]+");

    /** A shorter value stands for itself in most places. */
    private static final int SHORTEST = 4;

    /** By what a value is, the words by which machines ask for it. */
    private static final Map<String, Set<String>> ASKED_BY = Map.of(
            "address", Set.of("address", "ip", "ipv4", "ipv6", "inet", "lives", "live"),
            "mask", Set.of("mask", "netmask", "subnet"),
            "length", Set.of("length", "prefix", "bits"),
            "gateway", Set.of("gateway", "router", "hop", "route", "way", "out"),
            "name", Set.of("name", "host", "hostname", "called", "system"),
            "domain", Set.of("domain", "zone", "suffix"),
            "name-server", Set.of("dns", "resolver", "nameserver", "names", "lookup"),
            "time-server", Set.of("time", "ntp", "clock", "sntp", "timeserver"),
            "serial", Set.of("serial"),
            "vlan", Set.of("vlan", "tag"));

    private static final Map<Integer, Set<String>> ORDINALS = Map.of(
            1, Set.of("first", "primary", "1"),
            2, Set.of("second", "secondary", "other", "spare", "2"),
            3, Set.of("third", "tertiary", "3"));

    private final Map<String, String> values = new LinkedHashMap<>();
    private final Map<String, Secret> secrets;

    /**
     * What is known of a unit, by the names that a description uses.
     *
     * @param known addresses, names and facts
     * @param secrets passwords of the unit and of its factory
     */
    public Planned(Map<String, String> known, Map<String, Secret> secrets) {
        this.secrets = Map.copyOf(secrets);
        Map<String, String> texts = new HashMap<>(known);
        // a value with two names goes by the shorter one: management.address is address too
        texts.keySet()
                .removeIf(name -> name.indexOf('.') > 0
                        && known.get(name).equals(known.get(name.substring(name.lastIndexOf('.') + 1))));
        texts.remove("unit", known.get("name"));
        // in one order, so that a log always gives the same draft
        texts.keySet().stream().sorted().forEach(name -> put("{" + name + "}", texts.get(name)));
        texts.keySet().stream().sorted().forEach(name -> {
            together(known, name, "address", "/", "length");
            together(known, name, "name", ".", "domain");
        });
        for (String list : List.of("name-server", "time-server")) {
            for (String between : List.of(",", ", ", " ", ";")) {
                String all = list(texts, list, between);
                if (all.contains(between)) {
                    put("{" + list + "s:" + between + "}", all);
                }
            }
        }
    }

    /** What a unit of a kind has: what every description may use, and the facts of its own. */
    public static Planned of(Kind kind, Values values) {
        Map<String, String> texts = new HashMap<>();
        Map<String, Secret> secrets = new HashMap<>();
        Stream<String> names =
                Stream.concat(Kind.givenNames().stream(), kind.facts().stream().map(FactSpec::name));
        Stream.concat(names, kind.roleNames().stream()).forEach(name -> {
            values.secret(name).ifPresent(secret -> secrets.put(name, secret));
            if (!secrets.containsKey(name)) {
                values.text(name).ifPresent(text -> texts.put(name, text));
            }
        });
        return new Planned(texts, secrets);
    }

    private static String list(Map<String, String> texts, String list, String between) {
        List<String> entries = new ArrayList<>();
        for (int i = 1; texts.containsKey(list + "-" + i); i++) {
            entries.add(texts.get(list + "-" + i));
        }
        return String.join(between, entries);
    }

    /** Two values that machines ask for as one; the second may be that of the unit. */
    private void together(Map<String, String> known, String name, String first, String between, String second) {
        if (!name.equals(first) && !name.endsWith("." + first)) {
            return;
        }
        String own = name.substring(0, name.length() - first.length()) + second;
        String other = known.containsKey(own) ? own : second;
        if (known.containsKey(other)) {
            put("{" + name + "}" + between + "{" + other + "}", known.get(name) + between + known.get(other));
        }
    }

    private void put(String template, String value) {
        if (!value.isBlank()) {
            values.put(template, value);
        }
    }

    /**
     * What an entry may have been.
     *
     * @param template the one that fits the question best
     * @param others those that fit as well
     */
    record Guess(String template, List<String> others) {

        Certainty certainty() {
            return others.isEmpty() ? Certainty.SURE : Certainty.OPEN;
        }
    }

    /**
     * The values that a whole entry is equal to.
     *
     * @param words of the question, or what stands before it in a command
     */
    Optional<Guess> whole(String typed, String words) {
        List<String> equal = values.entrySet().stream()
                .filter(value -> value.getValue().equals(typed))
                .map(Map.Entry::getKey)
                .toList();
        if (equal.isEmpty()) {
            return Optional.empty();
        }
        Set<String> asked = words(words);
        int best = equal.stream().mapToInt(each -> score(each, asked)).max().orElse(0);
        if (best <= 0 && typed.length() < SHORTEST) {
            return Optional.empty(); // a 1 or a 24 may be anything
        }
        List<String> fit = equal.stream()
                .filter(each -> score(each, asked) == best)
                .sorted(Comparator.comparing(String::length))
                .toList();
        return Optional.of(new Guess(fit.get(0), fit.subList(1, fit.size())));
    }

    /** The password that an entry is equal to. */
    Optional<String> password(Secret typed) {
        return secrets.entrySet().stream()
                .filter(each -> each.getValue().equals(typed))
                .map(each -> "{" + each.getKey() + "}")
                .sorted()
                .findFirst();
    }

    /** A command with names in place of the planned values in it. */
    String filled(String command) {
        StringBuilder filled = new StringBuilder();
        Matcher tokens = TOKEN.matcher(command);
        while (tokens.find()) {
            String token = tokens.group();
            String before = command.substring(0, tokens.start());
            boolean telling = token.length() >= SHORTEST || token.chars().anyMatch(Character::isDigit);
            Optional<Guess> guess = telling ? whole(token, before) : Optional.empty();
            tokens.appendReplacement(
                    filled, Matcher.quoteReplacement(guess.map(Guess::template).orElse(token)));
        }
        return tokens.appendTail(filled).toString();
    }

    /** An entry that is made of planned values alone, such as two addresses with a blank between them. */
    Optional<String> together(String typed, String words) {
        List<String> tokens =
                TOKEN.matcher(typed).results().map(MatchResult::group).toList();
        boolean all = tokens.size() > 1
                && tokens.stream()
                        .allMatch(token -> token.length() >= SHORTEST
                                && whole(token, words)
                                        .filter(guess -> guess.certainty() == Certainty.SURE)
                                        .isPresent());
        return all ? Optional.of(filled(typed)) : Optional.empty();
    }

    /** The values that are long enough to be told from other text, the longest first. */
    List<Map.Entry<String, String>> telling() {
        return values.entrySet().stream()
                .filter(value -> value.getValue().length() >= SHORTEST)
                .sorted(Comparator.comparing((Map.Entry<String, String> value) ->
                                -value.getValue().length())
                        .thenComparing(Map.Entry::getKey))
                .toList();
    }

    private static int score(String template, Set<String> asked) {
        int score = 0;
        boolean two = template.contains("}/{") || template.contains("}.{");
        for (MatchResult name :
                Pattern.compile("[a-z0-9.-]+").matcher(template).results().toList()) {
            String last = name.group().substring(name.group().lastIndexOf('.') + 1);
            Matcher number = Pattern.compile("(.+)-([0-9])").matcher(last);
            String stem = number.matches() ? number.group(1) : last.replaceAll("s$", "");
            Set<String> words = new TreeSet<>(ASKED_BY.getOrDefault(stem, Set.of()));
            words.addAll(words(stem));
            words.retainAll(asked);
            score += Math.min(2, words.size()) * 4;
            score += number.matches() ? ordinal(Integer.parseInt(number.group(2)), asked) : 0;
        }
        return two ? score / 2 : score;
    }

    /** Where a question counts, the first is asked without a number as often as with one. */
    private static int ordinal(int number, Set<String> asked) {
        boolean counted = ORDINALS.values().stream().flatMap(Set::stream).anyMatch(asked::contains);
        if (!counted) {
            return number == 1 ? 1 : 0;
        }
        return ORDINALS.getOrDefault(number, Set.of()).stream().anyMatch(asked::contains) ? 1 : 0;
    }

    static Set<String> words(String text) {
        Set<String> words = new TreeSet<>();
        WORD.matcher(text.toLowerCase(Locale.ROOT)).results().forEach(word -> words.add(word.group()));
        return words;
    }
}
