package lychnos.core.kind;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;

/**
 * What differs between two versions of a kind, as people need it to decide whether a unit may move from one to the
 * other.
 */
public final class KindDifference {

    /** What it is about. */
    public enum KindPart {
        FACT,
        ADDRESS,
        NAME,
        STEP,
        CHECK,
        FLOW,
        LOGIN
    }

    /** How it changed. */
    public enum Sort {
        ADDED,
        REMOVED,
        CHANGED,
        /** The same, but in another place. */
        MOVED
    }

    /**
     * One difference.
     *
     * @param what its title
     * @param before how it was; empty for what was added
     * @param after how it is; empty for what was removed
     */
    public record KindChange(KindPart part, Sort sort, String what, String before, String after) {}

    private final List<KindChange> changes = new ArrayList<>();

    private KindDifference() {}

    /** Every difference, by part and in the order of the newer kind; removed ones last. */
    public static List<KindChange> between(Kind before, Kind after) {
        KindDifference all = new KindDifference();
        KindSummary was = KindSummary.of(before);
        KindSummary is = KindSummary.of(after);
        all.compare(
                KindPart.FACT,
                keyed(was.facts(), KindSummary.FactLine::title, fact -> text(fact, before)),
                keyed(is.facts(), KindSummary.FactLine::title, fact -> text(fact, after)));
        all.compare(KindPart.ADDRESS, alone(was.addresses()), alone(is.addresses()));
        all.compare(KindPart.NAME, Map.of("name", text(was.name())), Map.of("name", text(is.name())));
        all.compare(
                KindPart.STEP,
                keyed(was.setup().steps(), KindSummary.KindStep::title, KindDifference::text),
                keyed(is.setup().steps(), KindSummary.KindStep::title, KindDifference::text));
        all.compare(KindPart.CHECK, alone(was.proven()), alone(is.proven()));
        all.compare(KindPart.FLOW, alone(was.flows()), alone(is.flows()));
        all.compare(KindPart.LOGIN, logins(before), logins(after));
        return List.copyOf(all.changes);
    }

    /** Whether a unit that has its addresses keeps them as they are. */
    public static boolean sameAddresses(Kind before, Kind after) {
        return before.addresses().equals(after.addresses()) && before.members().equals(after.members());
    }

    private void compare(KindPart part, Map<String, String> before, Map<String, String> after) {
        List<String> common =
                before.keySet().stream().filter(after::containsKey).toList();
        List<String> kept = after.keySet().stream().filter(before::containsKey).toList();
        Map<String, Integer> place = new LinkedHashMap<>();
        common.forEach(key -> place.put(key, place.size()));
        int at = 0;
        for (Map.Entry<String, String> each : after.entrySet()) {
            String key = each.getKey();
            String was = before.get(key);
            if (was == null) {
                changes.add(new KindChange(part, Sort.ADDED, title(key), "", each.getValue()));
                continue;
            }
            if (!was.equals(each.getValue())) {
                changes.add(new KindChange(part, Sort.CHANGED, title(key), was, each.getValue()));
            }
            if (place.get(key) != at && part == KindPart.STEP && movedBehind(kept, place, at)) {
                changes.add(new KindChange(
                        part, Sort.MOVED, title(key), "place " + (place.get(key) + 1), "place " + (at + 1)));
            }
            at++;
        }
        before.forEach((key, was) -> {
            if (!after.containsKey(key)) {
                changes.add(new KindChange(part, Sort.REMOVED, title(key), was, ""));
            }
        });
    }

    /** Of two neighbours that changed places only the one that came forward is told. */
    private static boolean movedBehind(List<String> kept, Map<String, Integer> place, int at) {
        return place.get(kept.get(at)) > at;
    }

    /** By title; a second one of the same title is another one. */
    private static <T> Map<String, String> keyed(List<T> all, Function<T, String> title, Function<T, String> text) {
        Map<String, String> keyed = new LinkedHashMap<>();
        for (T each : all) {
            String key = title.apply(each);
            for (int n = 2; keyed.containsKey(key); n++) {
                key = title.apply(each) + "\u0000" + n;
            }
            keyed.put(key, text.apply(each));
        }
        return keyed;
    }

    private static String title(String key) {
        return key.split("\u0000")[0];
    }

    private static Map<String, String> alone(List<String> texts) {
        return keyed(texts, text -> text, text -> text);
    }

    /** Where a fact is asked is no difference of its own: the steps tell that. */
    private static String text(KindSummary.FactLine fact, Kind kind) {
        return joined(List.of(
                fact.whose(),
                fact.find(),
                kind.fact(fact.name()).orElseThrow().asked(),
                remarks(fact.remarks()),
                fact.fallback().isEmpty() ? "" : fact.fallback() + " unless stated"));
    }

    private static String text(KindSummary.NameLine name) {
        return name.pattern() + ", at most " + name.longest() + " characters";
    }

    private static String text(KindSummary.KindStep step) {
        return joined(List.of(step.answer().isEmpty() ? "" : "answers " + step.answer(), remarks(step.remarks())));
    }

    private static String remarks(List<KindSummary.Remark> remarks) {
        return remarks.stream().map(KindSummary.Remark::toString).collect(Collectors.joining(", "));
    }

    private static String joined(List<String> parts) {
        return parts.stream().filter(part -> !part.isEmpty()).collect(Collectors.joining("; "));
    }

    /** By way, the account as the maker ships it; both stand in the text of the kind, which everyone may read. */
    private static Map<String, String> logins(Kind kind) {
        return keyed(
                kind.logins(),
                Kind.FactoryLogin::way,
                login -> login.login().user() + ", password “"
                        + login.login().phrase().use(text -> text) + "”");
    }
}
