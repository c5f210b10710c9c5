package lychnos.core.proof;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;

/**
 * One cause that explains several endpoints, so that one thing is fixed and not many looked at.
 *
 * @param title what it is, in a few words
 * @param sentence what it explains
 * @param press what to do
 * @param endpoints the names of those that it explains, two or more
 * @param records whether sending their records again may fix it
 */
public record SharedCause(String title, String sentence, String press, List<String> endpoints, boolean records) {

    /**
     * An endpoint at which something does not hold.
     *
     * @param name what people call it
     * @param unit which unit it belongs to
     * @param rack where that stands
     * @param network the name of its network
     * @param gateway the network's gateway, or empty
     * @param zone the zone that its reverse name lies in
     * @param trouble what does not hold
     * @param seen what was measured for that
     * @param parts what it is made of
     * @param fields what was read back, if anything was
     */
    public record Off(
            String name,
            String unit,
            String rack,
            String network,
            String gateway,
            String zone,
            Trouble trouble,
            String seen,
            List<Part> parts,
            List<Settings.Field> fields) {}

    /**
     * Finds them. Each endpoint is explained once at most, by the widest cause first.
     *
     * @param silentGateways gateways that were asked and did not answer
     * @param unitSizes by unit, how many endpoints it has
     */
    public static List<SharedCause> of(List<Off> off, Set<String> silentGateways, Map<String, Integer> unitSizes) {
        List<SharedCause> causes = new ArrayList<>();
        List<Off> left = new ArrayList<>(off);
        group(
                left,
                causes,
                each -> each.trouble == Trouble.SILENT && silentGateways.contains(each.gateway) ? each.gateway : null,
                (gateway, of) -> new SharedCause(
                        ProofText.GATEWAY_SILENT.text(gateway),
                        ProofText.GATEWAY_SILENT_WHY.text(names(of), of.get(0).network),
                        ProofText.GATEWAY_SILENT_FIX.text(),
                        ends(of),
                        false));
        for (String server : servers(left)) {
            group(
                    left,
                    causes,
                    each -> silentAt(each, server) ? server : null,
                    (silent, of) -> new SharedCause(
                            ProofText.NAME_SERVER_SILENT.text(silent),
                            ProofText.NAME_SERVER_SILENT_WHY.text(names(of)),
                            ProofText.NAME_SERVER_SILENT_FIX.text(),
                            ends(of),
                            false));
        }
        group(
                left,
                causes,
                each -> each.trouble == Trouble.NAME_LAGS ? lagging(each) : null,
                (server, of) -> new SharedCause(
                        ProofText.NAME_SERVER_LAGS.text(server),
                        ProofText.NAME_SERVER_LAGS_WHY.text(names(of)),
                        ProofText.NAME_SERVER_LAGS_FIX.text(),
                        ends(of),
                        false));
        group(
                left,
                causes,
                each -> each.trouble == Trouble.REVERSE_MISSING ? each.zone : null,
                (zone, of) -> new SharedCause(
                        ProofText.REVERSE_MISSING.text(zone),
                        ProofText.REVERSE_MISSING_WHY.text(names(of)),
                        ProofText.PUSH_AGAIN.text(),
                        ends(of),
                        true));
        group(
                left,
                causes,
                each -> each.trouble == Trouble.NAME_MISSING ? domain(each.seen) : null,
                (domain, of) -> new SharedCause(
                        ProofText.NAMES_MISSING.text(domain),
                        ProofText.NAMES_MISSING_WHY.text(names(of)),
                        ProofText.PUSH_AGAIN.text(),
                        ends(of),
                        true));
        wholeUnits(left, causes, unitSizes);
        group(
                left,
                causes,
                each -> each.trouble == Trouble.NOT_AS_PLANNED ? setting(each) : null,
                (setting, of) -> new SharedCause(
                        ProofText.SAME_SETTING.text(setting),
                        ProofText.SAME_SETTING_WHY.text(names(of)),
                        ProofText.SAME_SETTING_FIX.text(),
                        ends(of),
                        false));
        return causes;
    }

    @FunctionalInterface
    private interface Told {
        SharedCause of(String key, List<Off> endpoints);
    }

    private static void group(List<Off> left, List<SharedCause> causes, Function<Off, String> key, Told told) {
        Map<String, List<Off>> groups = new LinkedHashMap<>();
        left.forEach(each -> {
            String found = key.apply(each);
            if (found != null && !found.isEmpty()) {
                groups.computeIfAbsent(found, none -> new ArrayList<>()).add(each);
            }
        });
        groups.forEach((found, of) -> {
            if (of.size() > 1) {
                causes.add(told.of(found, of));
                left.removeAll(of);
            }
        });
    }

    /** Units of which nothing answers, and racks in which that is so for more than one of them. */
    private static void wholeUnits(List<Off> left, List<SharedCause> causes, Map<String, Integer> unitSizes) {
        Map<String, List<Off>> silent = new LinkedHashMap<>();
        left.stream().filter(each -> each.trouble == Trouble.SILENT).forEach(each -> silent.computeIfAbsent(
                        each.unit, none -> new ArrayList<>())
                .add(each));
        silent.entrySet().removeIf(unit -> unit.getValue().size() < unitSizes.getOrDefault(unit.getKey(), 0));
        Map<String, Set<String>> racks = new LinkedHashMap<>();
        silent.forEach((unit, of) -> racks.computeIfAbsent(of.get(0).rack, none -> new LinkedHashSet<>())
                .add(unit));
        racks.values().removeIf(units -> units.size() < 2);
        group(
                left,
                causes,
                each -> silent.containsKey(each.unit) && racks.containsKey(each.rack) && !each.rack.isEmpty()
                        ? each.rack
                        : null,
                (rack, of) -> new SharedCause(
                        ProofText.RACK_SILENT.text(racks.get(rack).size(), rack),
                        ProofText.NOTHING_ANSWERS_AT.text(names(of)),
                        ProofText.RACK_SILENT_FIX.text(),
                        ends(of),
                        false));
        group(
                left,
                causes,
                each -> silent.containsKey(each.unit) ? each.unit : null,
                (unit, of) -> new SharedCause(
                        ProofText.UNIT_SILENT.text(unit),
                        ProofText.NOTHING_ANSWERS_AT.text(names(of)),
                        ProofText.UNIT_SILENT_FIX.text(),
                        ends(of),
                        false));
    }

    private static Set<String> servers(List<Off> off) {
        Set<String> servers = new LinkedHashSet<>();
        off.stream().filter(each -> each.trouble == Trouble.NAME_SERVER_SILENT).forEach(each -> each.parts.stream()
                .filter(part -> part.standing() == Outcome.Standing.BROKEN)
                .forEach(part -> servers.add(part.name())));
        return servers;
    }

    private static boolean silentAt(Off off, String server) {
        return off.trouble == Trouble.NAME_SERVER_SILENT
                && off.parts.stream()
                        .anyMatch(part -> part.name().equals(server) && part.standing() == Outcome.Standing.BROKEN);
    }

    private static String lagging(Off off) {
        return off.parts.stream()
                .filter(part -> part.standing() == Outcome.Standing.BROKEN)
                .map(Part::name)
                .findFirst()
                .orElse(null);
    }

    private static String domain(String fqdn) {
        int dot = fqdn.indexOf('.');
        return dot < 0 ? fqdn : fqdn.substring(dot + 1);
    }

    /** The first difference that a whole network would have; an address or a name is each machine's own. */
    private static String setting(Off off) {
        return off.fields.stream()
                .filter(field -> !field.agrees() && Settings.OF_THE_NETWORK.contains(field.name()))
                .map(Settings.Field::difference)
                .findFirst()
                .orElse(null);
    }

    private static List<String> ends(List<Off> of) {
        return of.stream().map(Off::name).toList();
    }

    private static String names(List<Off> of) {
        int most = 3;
        List<String> names = ends(of);
        if (names.size() <= most) {
            return ProofText.NAMES.text(
                    String.join(", ", names.subList(0, names.size() - 1)), names.get(names.size() - 1));
        }
        return ProofText.NAMES_AND_MORE.text(String.join(", ", names.subList(0, most)), names.size() - most);
    }
}
