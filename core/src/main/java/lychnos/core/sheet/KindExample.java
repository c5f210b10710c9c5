package lychnos.core.sheet;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import lychnos.core.address.Address;
import lychnos.core.address.AddressRun;
import lychnos.core.address.Prefix;
import lychnos.core.dialogue.AgreedTerms;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.DialogueStep;
import lychnos.core.dialogue.Template;
import lychnos.core.fact.Fact;
import lychnos.core.fact.FactSpec;
import lychnos.core.fact.FactType;
import lychnos.core.fact.Secret;
import lychnos.core.kind.Kind;
import lychnos.core.kind.KindReader;
import lychnos.core.place.FreeSpace;
import lychnos.core.place.Placement;
import lychnos.core.place.Placer;

/**
 * A unit as it would be with made-up values, so that the author of a kind sees what it comes to: its addresses in an
 * empty network of each purpose, its names, what each page and each question is answered with.
 *
 * @param unit its name
 * @param places its addresses; none where they fit no network of 254 hosts
 * @param members what each member is answered with
 */
public record KindExample(String unit, List<ExamplePlace> places, List<ExampleMember> members) {

    private static final String HIDDEN = "••••••••";
    private static final String DOMAIN = "ardal.example";
    private static final int VLAN = 408;

    /** An address, and the name that it gets; the name is empty where the kind gives it none. */
    public record ExamplePlace(String purpose, String role, String address, String name) {}

    /**
     * A member.
     *
     * @param label empty for a single machine
     * @param steps what its console asks, then its pages
     */
    public record ExampleMember(String label, List<ExampleStep> steps) {}

    /**
     * A step.
     *
     * @param sort {@code asked}, {@code summary}, {@code waits}, {@code page} or {@code controller}
     * @param asked whether its condition is met with these values; one that depends on what the machine shows counts
     * as met
     * @param answer what is sent; dots for a password, the placeholders where a value is read from a machine
     * @param fields of a page, by their labels, and of a summary, by what is looked for; empty for an optional field
     * without a value
     */
    public record ExampleStep(String title, String sort, boolean asked, String answer, Map<String, String> fields) {}

    /** An example of a kind, with as many members as it has at least. */
    public static KindExample of(Kind kind) {
        int count = kind.members().least();
        UnitFacts known = facts(kind, count);
        Map<String, String> own = new HashMap<>();
        known.facts().getOrDefault("", Map.of()).forEach((name, fact) -> own.put(name, fact.value()));
        String unit = kind.names().unit().name(words(kind), 1);
        List<Placement.Seat> seats = seats(kind, count, own);
        Map<String, String> names = kind.hostNames(unit, count, own);
        List<MemberValues.Seat> placed = seats.stream()
                .map(seat -> new MemberValues.Seat(
                        seat.role(),
                        seat.address(),
                        names.getOrDefault(seat.role(), unit),
                        DOMAIN,
                        network(seat.network(), seat.address())))
                .toList();
        return new KindExample(
                unit,
                seats.stream()
                        .map(seat -> new ExamplePlace(
                                seat.network(),
                                seat.role(),
                                seat.address().toString(),
                                names.getOrDefault(seat.role(), "")))
                        .toList(),
                kind.members().of(count).stream()
                        .map(label -> member(kind, label, known, unit, placed))
                        .toList());
    }

    private static Map<String, String> words(Kind kind) {
        return Map.of("site", "ard", "kind", kind.shortName(), "rack", "r1", "u", "12");
    }

    private static UnitFacts facts(Kind kind, int count) {
        Map<String, Map<String, Fact>> given = new HashMap<>();
        for (FactSpec spec : kind.facts()) {
            if (spec.type() == FactType.SECRET || spec.fallback() != null) {
                continue;
            }
            String value =
                    spec.choices().isEmpty() ? example(spec) : spec.choices().get(0);
            UnitFacts.owners(kind, count, spec).forEach(member -> given.computeIfAbsent(member, key -> new HashMap<>())
                    .put(spec.name(), new Fact(value, Fact.Source.TYPED)));
        }
        return UnitFacts.resolve(kind, count, given, Map.of());
    }

    private static String example(FactSpec spec) {
        return switch (spec.type()) {
            case YES_NO -> "no";
            case TEXT, CHOICE, SITE_RESOURCE -> spec.title();
            case DIGEST -> "0".repeat(64);
            default -> spec.type().example().replaceFirst(" or .*", "");
        };
    }

    private static List<Placement.Seat> seats(Kind kind, int count, Map<String, String> values) {
        List<FreeSpace> grounds = new ArrayList<>();
        for (String purpose : KindReader.PURPOSES) {
            grounds.add(space(purpose, prefix(purpose, true)));
            grounds.add(space(purpose, prefix(purpose, false)));
        }
        return new Placer(grounds).place(kind.needs(count, values)).fold(Placement::seats, none -> List.of());
    }

    private static FreeSpace space(String purpose, Prefix prefix) {
        AddressRun pool = AddressRun.of(prefix.network().plus(20), 220);
        return new FreeSpace(purpose, prefix, prefix.network().next(), List.of(pool), List.of(), List.of(), List.of());
    }

    /** Each purpose has a network of its own: 10.40.8.0/24, 10.40.12.0/24 and so on, and the same in IPv6. */
    private static Prefix prefix(String purpose, boolean v4) {
        int number = 8 + 4 * KindReader.PURPOSES.indexOf(purpose);
        return Prefix.parse(v4 ? "10.40." + number + ".0/24" : "fd40:a4da:1:" + number + "::/64");
    }

    private static MemberValues.Net network(String purpose, Address address) {
        Prefix prefix = prefix(purpose, address.isV4());
        return new MemberValues.Net(
                purpose,
                prefix,
                prefix.network().next(),
                VLAN + 4 * KindReader.PURPOSES.indexOf(purpose),
                List.of("10.40.8.3", "10.40.8.4"),
                List.of("10.40.8.6", "10.40.8.7"));
    }

    private static ExampleMember member(
            Kind kind, String label, UnitFacts known, String unit, List<MemberValues.Seat> seats) {
        Map<String, Secret> passwords = new HashMap<>();
        kind.facts().stream()
                .filter(fact -> fact.type() == FactType.SECRET)
                .forEach(fact -> passwords.put(fact.name(), Secret.of(HIDDEN)));
        MemberValues values = new MemberValues(
                known,
                label,
                unit,
                seats,
                Map.of("mail-relay", "10.40.8.9"),
                Map.of(),
                passwords,
                AgreedTerms.toTheFirst());
        List<ExampleStep> steps = new ArrayList<>();
        kind.dialogue().ifPresent(dialogue -> dialogue.withPages(label, false)
                .forEach(step -> steps.add(step(dialogue, step, values))));
        return new ExampleMember(label, steps);
    }

    private static ExampleStep step(Dialogue dialogue, DialogueStep step, MemberValues values) {
        boolean asked = dialogue.mayApply(step, values::text);
        if (step instanceof DialogueStep.Asked each) {
            boolean secret = each.is(DialogueStep.Mark.SECRET);
            return new ExampleStep(
                    each.title(), "asked", asked, secret ? HIDDEN : filled(each.answer(), values), Map.of());
        }
        if (step instanceof DialogueStep.Summary summary) {
            Map<String, String> fields = new LinkedHashMap<>();
            summary.fields().forEach((look, wanted) -> fields.put(look.toString(), filled(wanted, values)));
            return new ExampleStep(step.title(), "summary", asked, "", fields);
        }
        if (step instanceof DialogueStep.Page page) {
            Map<String, String> fields = new LinkedHashMap<>();
            page.fields().forEach((name, field) -> fields.put(name, entered(field, values)));
            return new ExampleStep(step.title(), "page", true, filled(page.open(), values), fields);
        }
        return new ExampleStep(
                step.title(), step instanceof DialogueStep.Waits ? "waits" : "controller", asked, "", Map.of());
    }

    private static String entered(DialogueStep.Field field, MemberValues values) {
        Set<String> names = field.value().names();
        boolean secret = names.stream().anyMatch(name -> values.secret(name).isPresent() || name.endsWith(".phrase"));
        return secret
                ? HIDDEN
                : field.optional() ? field.value().fill(values::text).orElse("") : filled(field.value(), values);
    }

    private static String filled(Template template, MemberValues values) {
        return template.fill(values::text).orElse(template.text());
    }
}
