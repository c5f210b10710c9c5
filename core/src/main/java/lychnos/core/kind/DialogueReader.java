package lychnos.core.kind;

import java.time.Duration;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.DialogueStep;
import lychnos.core.dialogue.DialogueStep.Mark;
import lychnos.core.dialogue.LineSettings;
import lychnos.core.dialogue.Look;
import lychnos.core.dialogue.Template;
import lychnos.core.fact.FactSpec;
import lychnos.core.fact.FactType;

/** Reads the part of a description that says what first setup asks on the console. */
final class DialogueReader {

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

    private static final List<String> OF_ROLE = List.of("address", "name", "address-6", "length", "mask", "gateway");

    /** The log-in that the maker ships for one way in. */
    private static final Pattern FACTORY = Pattern.compile("factory\\.[a-z]+\\.(user|phrase)");

    /** Roles that stand as often as a fact says are known to a dialogue up to this number. */
    private static final int MOST_REPEATED = 32;

    private static final Pattern GROUP = Pattern.compile("\\(\\?<([a-zA-Z][a-zA-Z0-9]*)>");

    private final List<FactSpec> facts;
    private final Members members;
    private final Set<String> roles;
    private final Set<String> told = new HashSet<>();

    DialogueReader(List<FactSpec> facts, Members members, List<AddressPlan> addresses) {
        this.facts = facts;
        this.members = members;
        roles = addresses.stream()
                .flatMap(plan -> plan.roles(members.most(), MOST_REPEATED).stream())
                .map(role -> role.name(members.labels()))
                .collect(Collectors.toSet());
    }

    Dialogue read(YamlPlace place) {
        place.only(Set.of(
                "line",
                "nudge",
                "chatter",
                "paging",
                "refused",
                "identify",
                "log-in",
                "wipe",
                "setup",
                "one-by-one",
                "before",
                "interface",
                "pages"));
        List<DialogueStep> logIn = steps(place.at("log-in"));
        List<DialogueStep> wipe = steps(place.at("wipe"));
        List<DialogueStep> setup = steps(place.at("setup"));
        List<DialogueStep.Remote> pages = Stream.concat(
                        place.at("before").list().stream().flatMap(entry -> pages(entry, true)),
                        place.at("pages").list().stream()
                                .flatMap(entry ->
                                        entry.at("controller").there() ? controllers(entry) : pages(entry, false)))
                .toList();
        if (setup.isEmpty() && pages.isEmpty()) {
            place.fault("A dialogue has setup: with at least one step, or pages: with at least one page.");
        }
        Dialogue.PageInterface over = place.at("interface").there() ? pageInterface(place.at("interface")) : null;
        if (over == null && pages.stream().anyMatch(each -> each instanceof DialogueStep.Page page && page.driven())) {
            place.fault("A page has a resource, and interface: does not say where those begin.");
        }
        return new Dialogue(
                place.at("line").there()
                        ? place.at("line").read(LineSettings::parse, LineSettings.USUAL)
                        : LineSettings.USUAL,
                place.at("nudge").there() ? place.at("nudge").read(DialogueReader::key, "") : "",
                place.at("chatter").list().stream().map(DialogueReader::look).toList(),
                paging(place.at("paging")),
                place.at("refused").there() ? look(place.at("refused")) : null,
                setup.isEmpty() ? Dialogue.Identify.NOTHING : identify(place.at("identify")),
                logIn,
                wipe,
                setup,
                place.at("one-by-one").yes(false),
                pages,
                over);
    }

    private Dialogue.PageInterface pageInterface(YamlPlace place) {
        place.only(Set.of("at", "user", "phrase", "first", "identify"));
        YamlPlace identify = place.at("identify");
        identify.only(Set.of("resource", "must"));
        Map<String, Template> must = new LinkedHashMap<>();
        if (identify.at("must").there()) {
            identify.at("must").map().forEach((at, value) -> must.put(pointer(value, at), template(value)));
        }
        if (must.isEmpty()) {
            place.fault("An interface must identify the machine before anything is written: identify: { resource: "
                    + "/about, must: { /serial: \"{serial}\" } }.");
        }
        return new Dialogue.PageInterface(
                template(place.at("at")),
                template(place.at("user")),
                password(place.at("phrase")),
                password(place.at("first")),
                identify.at("resource").text("/"),
                must);
    }

    /** How one signs in over SSH to look at what the machine keeps. */
    Kind.SignsIn signsIn(YamlPlace place) {
        place.only(Set.of("user", "phrase"));
        return new Kind.SignsIn(template(place.at("user")), password(place.at("phrase")));
    }

    /** The name of a password, in braces as everywhere. */
    private String password(YamlPlace place) {
        Template template = template(place);
        if (!secret(template) || !alone(template)) {
            place.fault("A password stands alone, such as {web-word} or {factory.web.phrase}.");
            return "";
        }
        return template.names().iterator().next();
    }

    /** One for each member that it is done on, where those are named. */
    private Stream<DialogueStep.Remote> pages(YamlPlace entry, boolean first) {
        return each(entry).map(member -> page(entry, first, member));
    }

    private Stream<DialogueStep.Remote> controllers(YamlPlace entry) {
        return each(entry).map(member -> controller(entry, member));
    }

    private DialogueStep.Controller controller(YamlPlace entry, String member) {
        entry.only(Set.of("controller", "on", "role", "mac", "serial", "user", "phrase", "first", "about", "at-most"));
        String role = entry.at("role").text("");
        if (!ofRole(role)) {
            entry.at("role").fault("No address of this kind has the role “" + role + "”.");
        }
        Duration about = about(entry);
        return new DialogueStep.Controller(
                entry.at("controller").text("controller"),
                member,
                role,
                template(entry.at("mac")),
                template(entry.at("serial")),
                template(entry.at("user")),
                password(entry.at("phrase")),
                password(entry.at("first")),
                about,
                atMost(entry, about));
    }

    private DialogueStep.Page page(YamlPlace entry, boolean first, String on) {
        entry.only(Set.of(
                "page",
                "open",
                "fields",
                "on",
                "resource",
                "after",
                "shows",
                "waits",
                "tells",
                "permanent",
                "destroys",
                "terms",
                "restarts",
                "proves"));
        Map<String, DialogueStep.Field> fields = new LinkedHashMap<>();
        entry.at("fields").map().forEach((label, value) -> fields.put(label, field(value)));
        if (fields.isEmpty()) {
            entry.fault("A page has fields: with at least one of them.");
        }
        String resource = entry.at("resource").text("");
        if (!resource.isEmpty() && !resource.matches("/[a-zA-Z0-9/_.-]*")) {
            entry.at("resource").fault("A resource is a path that starts with a slash, such as /subnets/data.");
        }
        boolean driven = !resource.isEmpty() && !first;
        if (driven && fields.values().stream().anyMatch(field -> field.at().isEmpty())) {
            entry.at("fields")
                    .fault("Each field of a page with a resource says where that has it: { is: …, at: /mtu }.");
        }
        Set<Mark> marks = marks(entry, Mark.PERMANENT, Mark.DESTROYS, Mark.TERMS, Mark.RESTARTS, Mark.PROVES);
        List<DialogueStep.Shown> shows = new ArrayList<>();
        if (entry.at("shows").there()) {
            entry.at("shows")
                    .map()
                    .forEach((at, value) -> shows.add(new DialogueStep.Shown(pointer(value, at), look(value))));
        }
        Map<String, String> tells = new LinkedHashMap<>();
        if (entry.at("tells").there()) {
            entry.at("tells").map().forEach((name, value) -> tells.put(name, pointer(value, value.text(""))));
            told.addAll(tells.keySet());
        }
        String after = entry.at("after").text("");
        if (!after.isEmpty() && !known(after)) {
            entry.at("after").fault("No step before this page reads “" + after + "”.");
        }
        return new DialogueStep.Page(
                entry.at("page").text("page"),
                on,
                entry.at("open").there() ? template(entry.at("open")) : new Template(""),
                fields,
                first,
                driven ? resource : "",
                after,
                marks,
                shows,
                entry.at("waits").there() ? working(entry.at("waits")) : null,
                tells);
    }

    private DialogueStep.Field field(YamlPlace value) {
        if (!value.isMap()) {
            return new DialogueStep.Field(template(value), "", false);
        }
        value.only(Set.of("is", "at", "optional"));
        Template template = template(value.at("is"));
        if (secret(template) && !alone(template)) {
            value.fault("A password stands alone in its field: nothing else is ever sent with it.");
        }
        return new DialogueStep.Field(
                template,
                pointer(value.at("at"), value.at("at").text("")),
                value.at("optional").yes(false));
    }

    /** A place in a resource, as RFC 6901 writes it. */
    private static String pointer(YamlPlace place, String text) {
        if (!text.isEmpty() && !text.startsWith("/")) {
            place.fault("A place in a resource starts with a slash, such as /mtu or /ports/0.");
        }
        return text;
    }

    private static DialogueStep.Working working(YamlPlace waits) {
        waits.only(Set.of("about", "at-most", "at", "see"));
        DialogueStep.Shown until =
                new DialogueStep.Shown(pointer(waits.at("at"), waits.at("at").text("")), look(waits.at("see")));
        Duration about = about(waits);
        return new DialogueStep.Working(about, atMost(waits, about), until);
    }

    private static Duration about(YamlPlace waits) {
        return waits.at("about").read(KindReader::duration, Duration.ofMinutes(1));
    }

    private static Duration atMost(YamlPlace waits, Duration about) {
        Duration atMost = waits.at("at-most").read(KindReader::duration, Duration.ofMinutes(10));
        if (atMost.compareTo(about) < 0) {
            waits.at("at-most").fault("The longest time is shorter than the usual one.");
        }
        return atMost;
    }

    private static Look look(YamlPlace place) {
        return place.read(Look::parse, Look.NOTHING);
    }

    private static String key(String text) {
        return switch (text) {
            case "none" -> "";
            case "enter" -> "\r";
            case "space" -> " ";
            case "redraw" -> "\f";
            default -> {
                if (text.matches("ctrl [a-z]")) {
                    yield String.valueOf((char) (text.charAt(5) - 'a' + 1));
                }
                if (text.length() != 1) {
                    throw new IllegalArgumentException(
                            "A key is enter, space, redraw, none, one letter, or one with Ctrl, such as ctrl w.");
                }
                yield text;
            }
        };
    }

    private static Map<Look, String> paging(YamlPlace place) {
        Map<Look, String> keys = new LinkedHashMap<>();
        for (YamlPlace entry : place.isMap() ? List.of(place) : place.list()) {
            entry.only(Set.of("see", "press"));
            keys.put(look(entry.at("see")), entry.at("press").read(DialogueReader::key, " "));
        }
        return keys;
    }

    private Dialogue.Identify identify(YamlPlace place) {
        place.only(Set.of("see", "must", "unused", "standby", "probe"));
        Look see = look(place.at("see"));
        Map<String, Template> must = new LinkedHashMap<>();
        if (place.at("must").there()) {
            place.at("must").map().forEach((group, entry) -> {
                if (!groups(see).contains(group)) {
                    entry.fault("What is looked for under see has no group (?<" + group + ">…).");
                }
                must.put(group, template(entry));
            });
        }
        if (must.isEmpty()) {
            place.fault("A machine is identified by at least one value: must: { serial: \"{serial}\" }.");
        }
        Set<String> unused = Set.copyOf(place.at("unused").texts());
        Set<String> standby = Set.copyOf(place.at("standby").texts());
        if (!(unused.isEmpty() && standby.isEmpty()) && !groups(see).contains("state")) {
            place.fault("What is looked for under see has no group (?<state>…).");
        }
        return new Dialogue.Identify(
                see,
                must,
                unused,
                standby,
                place.at("probe").there() ? place.at("probe").read(DialogueReader::key, "") : "");
    }

    private static Set<String> groups(Look look) {
        Set<String> groups = new HashSet<>();
        Matcher matcher = GROUP.matcher(look.toString());
        while (matcher.find()) {
            groups.add(matcher.group(1));
        }
        return groups;
    }

    private Template template(YamlPlace place) {
        Template template = place.read(Template::parse, new Template(""));
        for (String name : template.names()) {
            if (!known(name)) {
                place.fault("Unknown placeholder “" + name
                        + "”: not a fact of this kind, not an address of a role, and not a value that an earlier "
                        + "step reads.");
            }
        }
        return template;
    }

    private boolean known(String name) {
        if (GIVEN.contains(name)
                || FACTORY.matcher(name).matches()
                || told.contains(name)
                || facts.stream().anyMatch(fact -> fact.name().equals(name))) {
            return true;
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
    private boolean ofRole(String role) {
        return roles.contains(role) || members.labels().stream().anyMatch(label -> roles.contains(label + " " + role));
    }

    private boolean secret(Template template) {
        return template.names().stream()
                .anyMatch(name -> name.equals("proxy-word")
                        || name.startsWith("factory.") && name.endsWith("phrase")
                        || facts.stream().anyMatch(fact -> fact.name().equals(name) && fact.type() == FactType.SECRET));
    }

    private static boolean alone(Template template) {
        return template.names().size() == 1
                && template.text().equals("{" + template.names().iterator().next() + "}");
    }

    private static Set<Mark> marks(YamlPlace entry, Mark... possible) {
        Set<Mark> marks = EnumSet.noneOf(Mark.class);
        for (Mark mark : possible) {
            if (entry.at(mark.name().toLowerCase(java.util.Locale.ROOT)).yes(false)) {
                marks.add(mark);
            }
        }
        return marks;
    }

    private List<DialogueStep> steps(YamlPlace place) {
        List<DialogueStep> steps = new ArrayList<>();
        for (YamlPlace entry : place.list()) {
            if (entry.at("waits").there()) {
                steps.add(waits(entry));
            } else if (entry.at("summary").there()) {
                steps.add(summary(entry));
            } else {
                steps.add(asked(entry));
            }
        }
        return steps;
    }

    private String on(YamlPlace entry) {
        return member(entry.at("on"), entry.at("on").text(""));
    }

    /** The members that something is done on, several or one; an empty text for all of them. */
    private Stream<String> each(YamlPlace entry) {
        YamlPlace on = entry.at("on");
        return on.isList() ? on.texts().stream().map(label -> member(on, label)) : Stream.of(on(entry));
    }

    private String member(YamlPlace place, String label) {
        if (!label.isEmpty() && !members.labels().contains(label)) {
            place.fault("No member is called “" + label + "”.");
        }
        return label;
    }

    private DialogueStep waits(YamlPlace entry) {
        entry.only(Set.of("waits", "title", "on"));
        YamlPlace waits = entry.at("waits");
        waits.only(Set.of("about", "at-most", "until", "ask"));
        Duration about = about(waits);
        return new DialogueStep.Waits(
                entry.at("title").text("works"),
                on(entry),
                about,
                atMost(waits, about),
                look(waits.at("until")),
                waits.at("ask").text(""));
    }

    private DialogueStep summary(YamlPlace entry) {
        entry.only(Set.of("summary", "title", "on"));
        Map<Look, Template> fields = new LinkedHashMap<>();
        entry.at("summary").map().forEach((key, value) -> {
            try {
                fields.put(Look.parse(key), template(value));
            } catch (IllegalArgumentException e) {
                value.fault(e.getMessage());
            }
        });
        if (fields.isEmpty()) {
            entry.fault("A summary compares at least one field.");
        }
        return new DialogueStep.Summary(entry.at("title").text("what it shows"), on(entry), fields);
    }

    private DialogueStep asked(YamlPlace entry) {
        entry.only(Set.of(
                "asked",
                "answer",
                "at",
                "send",
                "read",
                "title",
                "on",
                "after",
                "suggested",
                "permanent",
                "destroys",
                "terms",
                "restarts",
                "warning",
                "differs",
                "optional",
                "proves",
                "row",
                "expect",
                "opens",
                "again"));
        if (entry.at("opens").there()) {
            return opens(entry);
        }
        boolean command = entry.at("at").there();
        Look look = look(entry.at(command ? "at" : "asked"));
        Template answer =
                entry.at("answer").isEmptyText() ? new Template("") : template(entry.at(command ? "send" : "answer"));
        Set<Mark> marks = marks(
                entry,
                Mark.PERMANENT,
                Mark.DESTROYS,
                Mark.TERMS,
                Mark.RESTARTS,
                Mark.DIFFERS,
                Mark.OPTIONAL,
                Mark.PROVES,
                Mark.AGAIN);
        if (marks.contains(Mark.AGAIN)
                && (!command || marks.contains(Mark.RESTARTS) || marks.contains(Mark.DESTROYS))) {
            entry.at("again")
                    .fault("Only a command that changes nothing is sent again at each check: at: and send:, without "
                            + "restarts or destroys.");
        }
        String warning = entry.at("warning").text("");
        if (!warning.isEmpty() && !marks.contains(Mark.RESTARTS)) {
            entry.at("warning").fault("A warning belongs to what restarts: restarts: yes.");
        }
        facts.stream()
                .filter(fact -> answer.names().contains(fact.name()) && fact.is(FactSpec.Trait.PERMANENT))
                .forEach(fact -> marks.add(Mark.PERMANENT));
        if (secret(answer)) {
            marks.add(Mark.SECRET);
            if (!alone(answer)) {
                entry.fault("A password stands alone in its answer: nothing else is ever sent with it.");
            }
        }
        Look read = entry.at("read").there() ? look(entry.at("read")) : null;
        if (read != null) {
            told.addAll(groups(read));
        }
        String after = entry.at("after").text("");
        if (!after.isEmpty() && !known(after)) {
            entry.at("after").fault("No step before this one reads “" + after + "”.");
        }
        String title = entry.at("title")
                .text(
                        answer.names().size() == 1
                                ? title(answer.names().iterator().next())
                                : look.toString());
        return new DialogueStep.Asked(
                title,
                on(entry),
                look,
                answer,
                command,
                entry.at("suggested").yes(false),
                read,
                after,
                marks,
                entry.at("row").there() ? look(entry.at("row")) : null,
                expected(entry),
                warning);
    }

    /** A row that asks nothing and opens another page, told by what that page shows. */
    private DialogueStep opens(YamlPlace entry) {
        entry.only(Set.of("row", "opens", "title", "on"));
        Look row = look(entry.at("row"));
        List<DialogueStep.Expected> shows = List.of(new DialogueStep.Expected(look(entry.at("opens")), true));
        return new DialogueStep.Asked(
                entry.at("title").text("opens “" + row + "”"),
                on(entry),
                Look.NOTHING,
                new Template(""),
                false,
                false,
                null,
                "",
                Set.of(),
                row,
                shows);
    }

    private static List<DialogueStep.Expected> expected(YamlPlace entry) {
        List<DialogueStep.Expected> expected = new ArrayList<>();
        if (entry.at("expect").there()) {
            entry.at("expect").map().forEach((key, value) -> {
                if (!List.of("required", "possible").contains(value.text(""))) {
                    value.fault("What is expected is required or possible.");
                }
                try {
                    expected.add(new DialogueStep.Expected(
                            Look.parse(key), value.text("").equals("required")));
                } catch (IllegalArgumentException e) {
                    value.fault(e.getMessage());
                }
            });
        }
        return expected;
    }

    private String title(String name) {
        return facts.stream()
                .filter(fact -> fact.name().equals(name))
                .map(FactSpec::title)
                .findFirst()
                .orElse(name.replace('-', ' ').replace('.', ' '));
    }
}
