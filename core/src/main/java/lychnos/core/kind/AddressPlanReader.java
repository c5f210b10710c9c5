package lychnos.core.kind;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import lychnos.core.fact.FactSpec;
import lychnos.core.fact.FactType;
import lychnos.core.name.NamePattern;
import lychnos.core.place.Need;

/** Reads what addresses a kind takes, and how they are named, from its description. */
final class AddressPlanReader {

    private AddressPlanReader() {}

    static List<AddressPlan> addresses(YamlPlace place, Members members, List<FactSpec> facts) {
        List<AddressPlan> plans = new ArrayList<>();
        for (YamlPlace entry : place.list()) {
            entry.only("run");
            List<List<String>> roles = entry.at("run").list().stream()
                    .map(item -> item.isList() ? item.texts() : List.of(item.text()))
                    .toList();
            if (roles.isEmpty()) {
                entry.fault(KindFaultText.NO_RUN.text());
                continue;
            }
            List<String> networks = entry.at("in").list().stream()
                    .map(item -> item.read(KindReader::purpose, "management"))
                    .toList();
            if (networks.isEmpty()) {
                entry.fault(KindFaultText.NO_NETWORK.text());
                continue;
            }
            YamlPlace start = entry.at("start");
            Need.Start begin = start.there()
                    ? Need.Start.onMultipleOf(start.at("on-multiple-of").number(1, 256, 1))
                    : Need.Start.ANYWHERE;
            String growth = entry.at("growth").text("0");
            int grow = growth.equals("members")
                    ? AddressPlan.FOR_MEMBERS
                    : entry.at("growth").number(0, 256, 0);
            Need.Paths paths = entry.at("paths").there()
                    ? entry.at("paths")
                            .read(
                                    text -> switch (text) {
                                        case "halves" -> Need.Paths.HALVES;
                                        case "alternating" -> Need.Paths.ALTERNATING;
                                        default -> throw new IllegalArgumentException(KindFaultText.PATHS.text());
                                    },
                                    Need.Paths.ONE)
                    : Need.Paths.ONE;
            String times = entry.at("times").there() ? entry.at("times").read(text -> times(text, facts), "1") : "1";
            AddressPlan plan = new AddressPlan(
                    roles, networks, times, begin, grow, paths, entry.at("ipv6").yes(false));
            try {
                plan.need(members, members.least(), times.matches("[0-9]+") ? Integer.parseInt(times) : 2);
                plans.add(plan);
            } catch (IllegalArgumentException e) {
                entry.fault(KindFaultText.CANNOT_BE_PLACED.text(e.getMessage()));
            }
        }
        return plans;
    }

    private static String times(String text, List<FactSpec> facts) {
        if (text.matches("[1-9][0-9]?")
                || facts.stream()
                        .anyMatch(fact -> fact.name().equals(text)
                                && fact.type() == FactType.NUMBER
                                && fact.scope() == FactSpec.Scope.UNIT)) {
            return text;
        }
        throw new IllegalArgumentException(KindFaultText.NOT_A_COUNT.text(text));
    }

    static Kind.Names names(YamlPlace place, List<AddressPlan> addresses) {
        NamePattern unit = place.at("unit").read(NamePattern::parse, NamePattern.parse("{n}"));
        Set<String> roles = new java.util.LinkedHashSet<>();
        addresses.forEach(plan -> plan.roles().forEach(roles::addAll));
        Map<String, NamePattern> patterns = patterns(place.at("roles"), roles);
        for (String role : roles) {
            if (!patterns.containsKey(role)) {
                if (roles.size() > 1) {
                    place.fault(KindFaultText.NO_NAME_PATTERN.text(role));
                }
                patterns.put(role, NamePattern.forRole("{unit}"));
            }
        }
        return new Kind.Names(
                unit,
                patterns,
                patterns(place.at("aliases"), roles),
                place.at("longest").number(1, 63, 63));
    }

    private static Map<String, NamePattern> patterns(YamlPlace place, Set<String> roles) {
        Map<String, NamePattern> patterns = new LinkedHashMap<>();
        if (place.there()) {
            place.map().forEach((role, entry) -> {
                if (!roles.contains(role)) {
                    entry.fault(KindFaultText.NO_SUCH_ROLE.text(role));
                }
                patterns.put(role, entry.read(NamePattern::forRole, NamePattern.forRole("{unit}")));
            });
        }
        return patterns;
    }
}
