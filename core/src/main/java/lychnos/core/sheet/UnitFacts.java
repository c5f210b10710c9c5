package lychnos.core.sheet;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import lychnos.core.fact.Fact;
import lychnos.core.fact.FactSpec;
import lychnos.core.kind.Kind;
import lychnos.core.site.SitePolicies;

/**
 * What is known of one unit: what people gave, then what the site's policies answer, then what its kind answers.
 *
 * @param kind what has to be known
 * @param members how many members it has
 * @param facts by member (the empty text for the unit's own) and name
 * @param missing everything that first setup asks and has no value
 */
public record UnitFacts(Kind kind, int members, Map<String, Map<String, Fact>> facts, List<Missing> missing) {

    public UnitFacts(Kind kind, int members, Map<String, Map<String, Fact>> facts) {
        this(kind, members, facts, missing(kind, members, facts));
    }

    /** One fact without a value. */
    public record Missing(String member, FactSpec fact) {}

    /**
     * Puts together what is known.
     *
     * @param given by member and name, what people typed, imported or read off labels
     * @param policies by name, what the site answers
     */
    public static UnitFacts resolve(
            Kind kind, int members, Map<String, Map<String, Fact>> given, Map<String, String> policies) {
        Map<String, Map<String, Fact>> all = new HashMap<>();
        given.forEach((member, facts) -> all.put(member, new HashMap<>(facts)));
        for (FactSpec spec : kind.facts()) {
            for (String member : owners(kind, members, spec)) {
                Map<String, Fact> facts = all.computeIfAbsent(member, key -> new HashMap<>());
                answer(spec, policies).ifPresent(fact -> facts.putIfAbsent(spec.name(), fact));
            }
        }
        return new UnitFacts(kind, members, all);
    }

    private static Optional<Fact> answer(FactSpec spec, Map<String, String> policies) {
        if (spec.is(FactSpec.Trait.ACCESS) && policies.containsKey(SitePolicies.ACCESS)) {
            return Optional.of(new Fact(policies.get(SitePolicies.ACCESS), Fact.Source.SITE));
        }
        if (spec.is(FactSpec.Trait.POLICY)) {
            return Optional.ofNullable(policies.get(spec.name())).map(value -> new Fact(value, Fact.Source.SITE));
        }
        return Optional.ofNullable(spec.fallback()).map(value -> new Fact(value, Fact.Source.KIND));
    }

    /** Who has such a fact: the unit itself, or each member. The only member of a unit has the empty label. */
    public static List<String> owners(Kind kind, int members, FactSpec spec) {
        return spec.scope() == FactSpec.Scope.UNIT
                ? List.of("")
                : kind.members().of(members);
    }

    public Optional<Fact> fact(String member, String name) {
        return Optional.ofNullable(facts.getOrDefault(member, Map.of()).get(name));
    }

    private static List<Missing> missing(Kind kind, int members, Map<String, Map<String, Fact>> facts) {
        List<Missing> missing = new ArrayList<>();
        for (FactSpec spec : kind.facts()) {
            if (spec.wanted()) {
                for (String member : owners(kind, members, spec)) {
                    if (!facts.getOrDefault(member, Map.of()).containsKey(spec.name())) {
                        missing.add(new Missing(member, spec));
                    }
                }
            }
        }
        return List.copyOf(missing);
    }

    /** Known: every fact that first setup asks is there. */
    public boolean known() {
        return missing.isEmpty();
    }

    /**
     * Days on which something of it ends, such as a temporary licence.
     *
     * @return by the title of the fact, with the label of the member before it where each has its own
     */
    public Map<String, LocalDate> ends() {
        Map<String, LocalDate> ends = new LinkedHashMap<>();
        for (FactSpec spec : kind.facts()) {
            if (spec.is(FactSpec.Trait.ENDS)) {
                for (String member : owners(kind, members, spec)) {
                    fact(member, spec.name())
                            .ifPresent(fact -> ends.put(
                                    (member.isEmpty() ? "" : member + ", ") + spec.title(),
                                    LocalDate.parse(fact.value())));
                }
            }
        }
        return ends;
    }

    /** The unit's own values, for what is counted by them. */
    public Map<String, String> unitValues() {
        Map<String, String> values = new HashMap<>();
        facts.getOrDefault("", Map.of()).forEach((name, fact) -> values.put(name, fact.value()));
        return values;
    }
}
