package lychnos.core.dialogue;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.regex.MatchResult;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import lychnos.core.address.Address;

/**
 * A text with names in braces that stand for facts, addresses and what was read on the way: {@code {address}/{length}}.
 * A list with what stands between its entries stands for as many as there are: {@code {name-servers:,}}. Numbers are
 * added to a number or an address, and taken from it: {@code {address + 1}}, {@code {first-vlan + member-number - 1}}.
 */
public record Template(String text) {

    private static final String ONE = "[a-z][a-z0-9-]*(?:\\.[a-z][a-z0-9-]*)*";

    /** A name, behind it what is added or taken away, and behind a colon what stands between the entries of a list. */
    private static final Pattern NAME =
            Pattern.compile("\\{(" + ONE + ")((?: [+-] (?:[0-9]{1,9}|" + ONE + "))*)(?::([^{}]*))?}");

    private static final Pattern TERM = Pattern.compile(" ([+-]) (\\S+)");

    /** Lists, by the names of their entries without the number. */
    private static final Set<String> LISTS = Set.of("name-server", "time-server");

    private static final int LONGEST_LIST = 9;

    /** @throws IllegalArgumentException for braces that hold no name, and for a list that does not exist */
    public static Template parse(String text) {
        String rest = NAME.matcher(text).replaceAll("");
        if (rest.indexOf('{') >= 0 || rest.indexOf('}') >= 0) {
            throw new IllegalArgumentException(
                    DialogueText.TEMPLATE_BRACES.text(text, "{serial} or {network.gateway}"));
        }
        NAME.matcher(text)
                .results()
                .filter(Template::isList)
                .peek(found -> {
                    if (!found.group(2).isEmpty()) {
                        throw new IllegalArgumentException(DialogueText.LIST_ADDED.text(text));
                    }
                })
                .map(Template::entry)
                .forEach(entry -> {
                    if (!LISTS.contains(entry)) {
                        throw new IllegalArgumentException(
                                DialogueText.TEMPLATE_LIST.text(entry + "s", "{name-servers:,} and {time-servers:,}"));
                    }
                });
        return new Template(text);
    }

    private static boolean isList(MatchResult found) {
        return found.group(3) != null;
    }

    /** What an entry of a list is called, without its number. */
    private static String entry(MatchResult list) {
        return list.group(1).replaceFirst("s$", "");
    }

    /** The names in it, in order; of a list the first entry, which must be known. */
    public Set<String> names() {
        Set<String> names = new LinkedHashSet<>();
        NAME.matcher(text).results().forEach(found -> {
            names.add(isList(found) ? entry(found) + "-1" : found.group(1));
            terms(found).map(term -> term.group(2)).filter(Template::isName).forEach(names::add);
        });
        return names;
    }

    /** The names that something is added to or taken from. */
    public Set<String> sums() {
        Set<String> names = new LinkedHashSet<>();
        NAME.matcher(text)
                .results()
                .filter(found -> !found.group(2).isEmpty())
                .forEach(found -> names.add(found.group(1)));
        return names;
    }

    /** The names of what is added or taken away. */
    public Set<String> added() {
        Set<String> names = new LinkedHashSet<>();
        NAME.matcher(text)
                .results()
                .flatMap(Template::terms)
                .map(term -> term.group(2))
                .filter(Template::isName)
                .forEach(names::add);
        return names;
    }

    private static Stream<MatchResult> terms(MatchResult found) {
        return TERM.matcher(found.group(2)).results();
    }

    private static boolean isName(String term) {
        return !Character.isDigit(term.charAt(0));
    }

    /** The text with every name filled in; empty while one of them is not known. */
    public Optional<String> fill(Function<String, Optional<String>> values) {
        StringBuilder filled = new StringBuilder();
        Matcher matcher = NAME.matcher(text);
        while (matcher.find()) {
            Optional<String> value = isList(matcher) ? list(matcher, values) : sum(matcher, values);
            if (value.isEmpty()) {
                return Optional.empty();
            }
            matcher.appendReplacement(filled, Matcher.quoteReplacement(value.get()));
        }
        return Optional.of(matcher.appendTail(filled).toString());
    }

    private static Optional<String> sum(MatchResult found, Function<String, Optional<String>> values) {
        Optional<String> first = values.apply(found.group(1));
        if (found.group(2).isEmpty() || first.isEmpty()) {
            return first;
        }
        long more = 0;
        for (MatchResult term : terms(found).toList()) {
            Optional<Long> number = isName(term.group(2))
                    ? values.apply(term.group(2)).flatMap(Template::number)
                    : number(term.group(2));
            if (number.isEmpty()) {
                return Optional.empty();
            }
            more += term.group(1).equals("+") ? number.get() : -number.get();
        }
        long added = more;
        return number(first.get())
                .map(number -> number + added)
                .filter(number -> number >= 0)
                .map(String::valueOf)
                .or(() -> Address.tryParse(first.get())
                        .flatMap(address -> plus(address, added))
                        .map(Address::toString));
    }

    private static Optional<Long> number(String text) {
        return text.matches("[0-9]{1,12}") ? Optional.of(Long.parseLong(text)) : Optional.empty();
    }

    private static Optional<Address> plus(Address address, long more) {
        try {
            return Optional.of(address.plus(more));
        } catch (IllegalArgumentException e) {
            return Optional.empty(); // beyond the last address of its family
        }
    }

    private static Optional<String> list(MatchResult found, Function<String, Optional<String>> values) {
        List<String> entries = new ArrayList<>();
        for (int i = 1; i <= LONGEST_LIST; i++) {
            Optional<String> entry = values.apply(entry(found) + "-" + i);
            if (entry.isEmpty()) {
                break;
            }
            entries.add(entry.get());
        }
        return entries.isEmpty() ? Optional.empty() : Optional.of(String.join(found.group(3), entries));
    }

    @Override
    public String toString() {
        return text;
    }
}
