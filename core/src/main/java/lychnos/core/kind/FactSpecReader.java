package lychnos.core.kind;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.regex.Pattern;
import lychnos.core.fact.DataSize;
import lychnos.core.fact.FactSpec;
import lychnos.core.fact.FactType;

/** Reads the facts of a kind from its description. */
final class FactSpecReader {

    private static final Pattern WORD = Pattern.compile("[a-z][a-z0-9-]{0,39}");

    private FactSpecReader() {}

    static List<FactSpec> facts(YamlPlace place) {
        List<FactSpec> facts = new ArrayList<>();
        if (place.there()) {
            place.map().forEach((name, entry) -> facts.add(fact(name, entry)));
        }
        String tag = "pull-out tag, where it has its own";
        standard(facts, Kind.OWN_USER, "factory user", FactSpec.Scope.MEMBER, FactType.TEXT, tag);
        standard(facts, Kind.OWN_PASSWORD, "factory password", FactSpec.Scope.MEMBER, FactType.SECRET, tag);
        facts.stream()
                .filter(fact -> fact.type() == FactType.POSITION)
                .findFirst()
                .map(FactSpec::scope)
                .ifPresent(scope -> cabling(facts, scope));
        standard(
                facts,
                Kind.CHANGE_WINDOW,
                "change window",
                FactSpec.Scope.UNIT,
                FactType.WINDOW,
                "agreed with the people who use the machine");
        return facts;
    }

    /** What is mounted in a rack has a management port that is cabled. */
    private static void cabling(List<FactSpec> facts, FactSpec.Scope scope) {
        standard(facts, Kind.SWITCH_PORT, "switch port", scope, FactType.TEXT, "label of the switch, and its port");
        standard(facts, Kind.CABLE, "cable", scope, FactType.TEXT, "label of the cable of the management port");
    }

    /** Any machine may have these; no kind needs to say so. */
    private static void standard(
            List<FactSpec> facts, String name, String title, FactSpec.Scope scope, FactType type, String find) {
        if (facts.stream().noneMatch(fact -> fact.name().equals(name))) {
            facts.add(
                    new FactSpec(name, title, scope, type, find, "", null, List.of(), Set.of(FactSpec.Trait.OPTIONAL)));
        }
    }

    private static FactSpec fact(String name, YamlPlace place) {
        place.only("fact");
        if (!WORD.matcher(name).matches()) {
            place.fault(KindFaultText.FACT_NAME.text(name));
        }
        FactSpec.Scope scope = scope(place.at("of"));
        FactType type = place.at("is")
                .read(
                        text -> FactType.named(text)
                                .orElseThrow(() -> new IllegalArgumentException(KindFaultText.FACT_TYPE.text(
                                        text,
                                        String.join(
                                                ", ",
                                                List.of(FactType.values()).stream()
                                                        .map(FactType::word)
                                                        .toList())))),
                        FactType.TEXT);
        List<String> choices = type == FactType.SITE_RESOURCE
                ? List.of(place.at("from").text())
                : place.at("choices").texts();
        if (type == FactType.CHOICE && choices.size() < 2) {
            place.fault(KindFaultText.NO_CHOICES.text());
        }
        Set<FactSpec.Trait> traits = EnumSet.noneOf(FactSpec.Trait.class);
        for (FactSpec.Trait trait : FactSpec.Trait.values()) {
            if (place.at(trait.name().toLowerCase(java.util.Locale.ROOT)).yes(false)) {
                traits.add(trait);
            }
        }
        FactSpec spec = new FactSpec(
                name,
                place.at("title").text(name.replace('-', ' ')),
                scope,
                type,
                place.at("find").text(""),
                place.at("asked").text(""),
                null,
                choices,
                traits);
        String fallback = place.at("default").there() ? place.at("default").read(spec::read, "") : null;
        if (traits.contains(FactSpec.Trait.MANAGER) && type != FactType.ADDRESS) {
            place.at("manager").fault(KindFaultText.MANAGER_IS_AN_ADDRESS.text());
        }
        if (traits.contains(FactSpec.Trait.ACCESS) && type != FactType.PREFIX) {
            place.at("access").fault(KindFaultText.ACCESS_IS_A_PREFIX.text());
        }
        YamlPlace least = place.at("least");
        if (least.there() && type != FactType.SIZE) {
            least.fault(KindFaultText.LEAST_OF_A_SIZE.text());
        }
        return new FactSpec(
                name,
                spec.title(),
                scope,
                type,
                spec.find(),
                spec.asked(),
                fallback,
                choices,
                traits,
                least.there() ? least.read(DataSize::parse, new DataSize(1)) : null);
    }

    /** Whether the unit has it, or each member its own. */
    static FactSpec.Scope scope(YamlPlace of) {
        return of.read(
                text -> switch (text) {
                    case "unit" -> FactSpec.Scope.UNIT;
                    case "member" -> FactSpec.Scope.MEMBER;
                    default -> throw new IllegalArgumentException(KindFaultText.FACT_SCOPE.text());
                },
                FactSpec.Scope.UNIT);
    }
}
