package lychnos.core.kind;

import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lychnos.core.dialogue.Hold;
import lychnos.core.dialogue.Look;
import lychnos.core.dialogue.Template;
import lychnos.core.fact.FactSpec;
import lychnos.core.fact.FactType;

/**
 * The names that a dialogue may use as placeholders: facts of its kind, addresses of roles, what is given for every
 * machine, and what earlier steps have read.
 */
final class DialogueNames {

    /** What an answer may name besides facts: what a member is given in Allocate, and where it leans. */
    static final List<String> GIVEN = List.of(
            "address",
            "length",
            "mask",
            "gateway",
            "address-6",
            "length-6",
            "gateway-6",
            "vlan",
            "name",
            "member-number",
            "domain",
            "unit",
            "name-server-1",
            "name-server-2",
            "time-server-1",
            "time-server-2",
            "time-server-3",
            "factory.user",
            "factory.phrase",
            "mail-relay",
            "proxy",
            "proxy-port",
            "proxy-user",
            "proxy-word");

    static final List<String> OF_ROLE = List.of("address", "name", "address-6", "length", "mask", "gateway");

    /** What is given and is a number. */
    private static final Set<String> NUMBERS = Set.of("member-number", "length", "length-6", "vlan", "proxy-port");

    private static final Set<FactType> COUNTING = Set.of(FactType.NUMBER, FactType.PORT, FactType.VLAN, FactType.MTU);

    /** The log-in that the maker ships for one way in. */
    private static final Pattern FACTORY = Pattern.compile("factory\\.[a-z]+\\.(user|phrase)");

    /** Roles that stand as often as a fact says are known to a dialogue up to this number. */
    private static final int MOST_REPEATED = 32;

    private final List<FactSpec> facts;
    private final Members members;
    private final Set<String> roles;
    private final Set<String> told = new HashSet<>();

    DialogueNames(List<FactSpec> facts, Members members, List<AddressPlan> addresses) {
        this.facts = facts;
        this.members = members;
        roles = addresses.stream()
                .flatMap(plan -> plan.roles(members.most(), MOST_REPEATED).stream())
                .map(role -> role.name(members.labels()))
                .collect(Collectors.toSet());
    }

    /** From here on a dialogue may use these, which a step reads. */
    void read(Collection<String> names) {
        told.addAll(names);
    }

    /** The fact of this name, if there is one. */
    Optional<FactSpec> fact(String name) {
        return facts.stream().filter(fact -> fact.name().equals(name)).findFirst();
    }

    /** Whether a name stands for a number. */
    boolean counts(String name) {
        return NUMBERS.contains(name)
                || fact(name).filter(fact -> COUNTING.contains(fact.type())).isPresent();
    }

    private boolean isAddress(String name) {
        return name.replaceFirst(".*\\.", "").matches("address(-6)?|gateway(-6)?|(name|time)-server-[1-3]")
                || fact(name).filter(fact -> fact.type() == FactType.ADDRESS).isPresent();
    }

    /** The facts of an answer. */
    Stream<FactSpec> facts(Template answer) {
        return facts.stream().filter(fact -> answer.names().contains(fact.name()));
    }

    /** The name of a password, in braces as everywhere. */
    String password(YamlPlace place) {
        Template template = template(place);
        if (!secret(template) || !alone(template)) {
            place.fault(KindFaultText.PASSWORD_ALONE.text("{web-password} or {factory.web.phrase}"));
            return "";
        }
        return template.names().iterator().next();
    }

    /** What is looked for on the line. The values in it are those that are known before the first step. */
    Look look(YamlPlace place) {
        return known(place, DialogueReader.look(place));
    }

    /**
     * The same for what is looked for in a key.
     *
     * @throws IllegalArgumentException for a pattern that is none
     */
    Look look(YamlPlace place, String key) {
        return known(place, Look.parse(key));
    }

    private Look known(YamlPlace place, Look look) {
        for (String name : look.names()) {
            if (told.contains(name) || !known(name)) {
                place.fault(KindFaultText.UNKNOWN_IN_PATTERN.text(name));
            }
        }
        return look;
    }

    Template template(YamlPlace place) {
        Template template = place.read(Template::parse, new Template(""));
        for (String name : template.names()) {
            if (!known(name)) {
                place.fault(KindFaultText.UNKNOWN_PLACEHOLDER.text(name));
            }
        }
        Stream.concat(
                        template.sums().stream().filter(name -> !counts(name) && !isAddress(name)),
                        template.added().stream().filter(name -> !counts(name)))
                .filter(this::known)
                .forEach(name -> place.fault(KindFaultText.NOT_A_NUMBER_TO_ADD.text(name)));
        return template;
    }

    boolean known(String name) {
        if (GIVEN.contains(name)
                || FACTORY.matcher(name).matches()
                || told.contains(name)
                || facts.stream().anyMatch(fact -> fact.name().equals(name))) {
            return true;
        }
        if (name.endsWith(Hold.REACHED)) {
            String day = name.substring(0, name.length() - Hold.REACHED.length());
            return fact(day).filter(fact -> fact.type() == FactType.DATE).isPresent();
        }
        int dot = name.indexOf('.');
        if (dot < 0) {
            return false;
        }
        String before = name.substring(0, dot).replace('-', ' ');
        String behind = name.substring(dot + 1);
        return ofRole(before) && OF_ROLE.contains(behind) || members.labels().contains(before) && told.contains(behind);
    }

    /** Whether there is such a role, of the unit or of each member. */
    boolean ofRole(String role) {
        return roles.contains(role) || members.labels().stream().anyMatch(label -> roles.contains(label + " " + role));
    }

    boolean secret(Template template) {
        return template.names().stream()
                .anyMatch(name -> name.equals("proxy-word")
                        || name.startsWith("factory.") && name.endsWith("phrase")
                        || facts.stream().anyMatch(fact -> fact.name().equals(name) && fact.type() == FactType.SECRET));
    }

    static boolean alone(Template template) {
        return template.names().size() == 1
                && template.text().equals("{" + template.names().iterator().next() + "}");
    }

    String on(YamlPlace entry) {
        return member(entry.at("on"), entry.at("on").text(""));
    }

    /** The members that something is done on, several or one; an empty text for all of them. */
    Stream<String> each(YamlPlace entry) {
        YamlPlace on = entry.at("on");
        return on.isList() ? on.texts().stream().map(label -> member(on, label)) : Stream.of(on(entry));
    }

    String member(YamlPlace place, String label) {
        if (!label.isEmpty() && !members.labels().contains(label)) {
            place.fault(KindFaultText.NO_SUCH_MEMBER.text(label));
        }
        return label;
    }

    String title(String name) {
        return facts.stream()
                .filter(fact -> fact.name().equals(name))
                .map(FactSpec::title)
                .findFirst()
                .orElse(name.replace('-', ' ').replace('.', ' '));
    }
}
