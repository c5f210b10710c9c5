package lychnos.core.sheet;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lychnos.core.dialogue.Values;
import lychnos.core.fact.FactSpec;
import lychnos.core.fact.FactType;
import lychnos.core.kind.Kind;

/** What is known of a machine, for a person who sets it up by hand. */
public final class ValueList {

    /** What is known of a machine for work at the rack, and never typed into it. */
    private static final Set<FactType> AT_RACK = Set.of(FactType.POSITION);

    private ValueList() {}

    /**
     * A value.
     *
     * @param name as descriptions call it, such as {@code address}
     * @param title as people call it
     * @param text empty where it is a password
     */
    public record PlannedValue(String name, String title, Optional<String> text) {}

    /**
     * Every value of a member that can be typed: what every machine is asked for, then the addresses of its other roles
     * and its facts, passwords last. A value that has two names is listed once, and the number of a single machine
     * not at all.
     */
    public static List<PlannedValue> of(Kind kind, Values values) {
        Map<String, String> titles =
                kind.facts().stream().collect(Collectors.toMap(FactSpec::name, FactSpec::title, (one, other) -> one));
        List<String> facts = kind.facts().stream()
                .filter(fact -> !AT_RACK.contains(fact.type()))
                .map(FactSpec::name)
                .filter(name -> !Kind.STANDARD.contains(name) && !Kind.LINES.contains(name))
                .toList();
        List<String> names = Stream.of(Kind.givenNames(), kind.roleNames(), facts)
                .flatMap(List::stream)
                .distinct()
                .toList();
        Function<String, String> title =
                name -> titles.getOrDefault(name, name.replace('-', ' ').replace('.', ' '));
        List<PlannedValue> all = new ArrayList<>();
        Set<String> listed = new HashSet<>();
        for (String name : names) {
            Optional<String> text = values.text(name).filter(each -> !each.isBlank());
            boolean again = (name.equals("unit") || name.indexOf('.') > 0)
                    && text.filter(listed::contains).isPresent();
            boolean tells =
                    !name.equals("member-number") || kind.members().labels().size() > 1;
            if (text.isPresent() && tells && !again) {
                listed.add(text.get());
                all.add(new PlannedValue(name, title.apply(name), text));
            }
        }
        names.stream()
                .filter(name -> values.secret(name).isPresent())
                .map(name -> new PlannedValue(name, title.apply(name), Optional.empty()))
                .forEach(all::add);
        return List.copyOf(all);
    }
}
