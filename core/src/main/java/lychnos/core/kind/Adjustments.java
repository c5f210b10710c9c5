package lychnos.core.kind;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.BiConsumer;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lychnos.core.fact.FactSpec;
import lychnos.core.fact.FactType;
import lychnos.core.fact.Secret;
import lychnos.core.name.Hostname;
import lychnos.core.name.NamePattern;

/**
 * What a site may do otherwise than a kind describes, without another version of the kind. Each place is read and
 * written as one text, so that the value of the kind and the value of the site can be shown beside each other.
 */
public final class Adjustments {

    private static final String LOGIN = "login:";
    private static final String DEFAULT = "default:";
    private static final int LONGEST_TEXT = 400;

    private Adjustments() {}

    /**
     * Something that can be adjusted.
     *
     * @param what by which an adjustment names it, such as {@code login:redfish} or {@code restart}
     * @param title as people read it
     * @param value what the kind says, as it is typed; empty where it says nothing
     * @param form how a value is typed, with an example
     * @param secret whether a password belongs to it
     */
    public record Place(String what, String title, String value, String form, boolean secret) {}

    /** How a place is written, beside what is read from it. */
    private record Writer(Place place, BiConsumer<KindCopy, Change> write) {}

    private record Change(String value, Optional<Secret> secret) {}

    /** Everything that can be adjusted in a kind, in the order in which it is shown. */
    public static List<Place> places(Kind kind) {
        return writers(kind).stream().map(Writer::place).toList();
    }

    /**
     * The kind with one adjustment.
     *
     * @param value as it is typed
     * @param secret the password, for a login
     * @return the kind itself where it has no such place, as a version may lack what an earlier one had
     * @throws IllegalArgumentException with a sentence that says what is wrong with the value
     */
    public static Kind apply(Kind kind, String what, String value, Optional<Secret> secret) {
        Optional<Writer> writer = writers(kind).stream()
                .filter(each -> each.place.what.equals(what))
                .findFirst();
        if (writer.isEmpty()) {
            return kind;
        }
        if (value.length() > LONGEST_TEXT) {
            throw new IllegalArgumentException(KindFaultText.TEXT_TOO_LONG.text(LONGEST_TEXT));
        }
        KindCopy copy = new KindCopy(kind);
        writer.get().write.accept(copy, new Change(value.strip(), secret));
        KindChecks checks = copy.checks;
        if (checks.shut().stream()
                .anyMatch(port -> port == checks.port() || checks.open().contains(port))) {
            throw new IllegalArgumentException(KindFaultText.PORT_TWICE.text());
        }
        return copy.kind();
    }

    private static List<Writer> writers(Kind kind) {
        List<Writer> all = new ArrayList<>();
        for (Kind.FactoryLogin login : kind.logins()) {
            all.add(new Writer(
                    new Place(
                            LOGIN + login.way(),
                            "factory login, " + login.way(),
                            login.login().user(),
                            "the account's name, and its password",
                            true),
                    (copy, change) -> copy.logins = withLogin(copy.logins, login.way(), change)));
        }
        KindChecks checks = kind.checks();
        all.add(text(
                "presence",
                "presence ping (RMCP)",
                checks.presence().word(),
                "expected, forbidden or not checked",
                (copy, typed) -> copy.checks = copy.checks.withPresence(Expectation.parse(typed))));
        all.add(text(
                "port",
                "TCP port of the management service",
                String.valueOf(checks.port()),
                "443",
                (copy, typed) -> copy.checks = copy.checks.withPort(port(typed))));
        all.add(text(
                "ssh",
                "SSH",
                checks.sshExpectation().word(),
                "expected, forbidden or not checked",
                (copy, typed) -> copy.checks = copy.checks.withSsh(Expectation.parse(typed))));
        all.add(text(
                "open",
                "other TCP ports that must answer",
                joined(checks.open().stream()),
                "5900, 8443",
                (copy, typed) -> copy.checks = copy.checks.withOpen(ports(typed))));
        all.add(text(
                "shut",
                "TCP ports that must be closed",
                joined(checks.shut().stream()),
                "23, 80",
                (copy, typed) -> copy.checks = copy.checks.withShut(ports(typed))));
        all.add(text(
                "community",
                "SNMP community that must not be answered",
                checks.community(),
                "public; empty if this is not checked",
                (copy, typed) -> copy.checks = copy.checks.withCommunity(community(typed))));
        all.add(text(
                "restart",
                "time for a restart",
                KindReader.text(kind.waits().about()) + ", at most "
                        + KindReader.text(kind.waits().atMost()),
                "3 min, at most 10 min",
                (copy, typed) -> copy.waits = restart(typed)));
        all.add(text(
                "unit-name",
                "pattern of a unit's name",
                kind.names().unit().toString(),
                "{site}-{kind}-{n:2}",
                (copy, typed) -> copy.unitName = NamePattern.parse(typed)));
        all.add(text(
                "bring",
                "what to bring",
                String.join("; ", kind.bring()),
                "console cable; label printer",
                (copy, typed) -> copy.bring = list(typed, ";")));
        all.add(text("plug", "where to plug in", kind.plug(), "the port marked M", (copy, typed) -> copy.plug = typed));
        all.add(text(
                "flows",
                "flows for the firewall",
                flows(kind.flows()),
                "engineers > all tcp 443; all > time " + "service udp 123",
                (copy, typed) -> copy.flows = flows(typed)));
        all.add(text(
                "note",
                "note of the site",
                "",
                "what an engineer should know here",
                (copy, typed) -> copy.about = copy.about + " " + typed));
        for (FactSpec fact : kind.facts()) {
            if (mayHaveDefault(fact)) {
                all.add(text(
                        DEFAULT + fact.name(),
                        "default for “" + fact.title() + "”",
                        fact.fallback() == null ? "" : fact.fallback(),
                        fact.type() == FactType.CHOICE
                                ? String.join(", ", fact.choices())
                                : fact.type().example(),
                        (copy, typed) -> copy.facts = withDefault(copy.facts, fact.name(), typed)));
            }
        }
        return all;
    }

    private static Writer text(
            String what, String title, String value, String form, BiConsumer<KindCopy, String> write) {
        return new Writer(
                new Place(what, title, value, form, false), (copy, change) -> write.accept(copy, change.value));
    }

    private static boolean mayHaveDefault(FactSpec fact) {
        return switch (fact.type()) {
            case SECRET, SERIAL, MAC, POSITION, LINE -> false;
            default -> !fact.is(FactSpec.Trait.MADE) && !Kind.STANDARD.contains(fact.name());
        };
    }

    private static List<Kind.FactoryLogin> withLogin(List<Kind.FactoryLogin> logins, String way, Change change) {
        if (change.value.isEmpty() || change.value.length() > 64) {
            throw new IllegalArgumentException(KindFaultText.ACCOUNT_NAME.text());
        }
        return logins.stream()
                .map(each -> each.way().equals(way)
                        ? new Kind.FactoryLogin(
                                way,
                                new Kind.Login(
                                        change.value,
                                        change.secret.orElse(each.login().phrase())))
                        : each)
                .toList();
    }

    private static List<FactSpec> withDefault(List<FactSpec> facts, String name, String typed) {
        return facts.stream()
                .map(fact ->
                        fact.name().equals(name) ? fact.withFallback(typed.isEmpty() ? null : fact.read(typed)) : fact)
                .toList();
    }

    private static List<String> list(String typed, String between) {
        return Stream.of(typed.split(between))
                .map(String::strip)
                .filter(each -> !each.isEmpty())
                .toList();
    }

    private static List<Integer> ports(String typed) {
        return list(typed, ",").stream().map(Adjustments::port).distinct().toList();
    }

    private static int port(String text) {
        if (!text.matches("[1-9][0-9]{0,4}") || Integer.parseInt(text) > 65535) {
            throw new IllegalArgumentException(KindFaultText.NOT_A_PORT.text(text));
        }
        return Integer.parseInt(text);
    }

    private static String community(String typed) {
        if (!typed.matches("[!-~]{0,32}")) {
            throw new IllegalArgumentException(KindFaultText.COMMUNITY.text());
        }
        return typed;
    }

    private static Kind.Waits restart(String typed) {
        String[] parts = typed.split(", at most ");
        if (parts.length != 2) {
            throw new IllegalArgumentException(KindFaultText.TWO_TIMES.text());
        }
        Kind.Waits waits = new Kind.Waits(KindReader.duration(parts[0].strip()), KindReader.duration(parts[1].strip()));
        if (waits.atMost().compareTo(waits.about()) < 0) {
            throw new IllegalArgumentException(KindFaultText.TIMES_REVERSED.text());
        }
        return waits;
    }

    private static String flows(List<Kind.Flow> flows) {
        return flows.stream().map(flow -> flow.text(" > ")).collect(Collectors.joining("; "));
    }

    private static List<Kind.Flow> flows(String typed) {
        return list(typed, ";").stream().map(Adjustments::flow).toList();
    }

    private static Kind.Flow flow(String text) {
        java.util.regex.Matcher matcher = java.util.regex.Pattern.compile(
                        "(?<from>[^>]+) > (?<to>[^>]+?) (?<port>(tcp|udp) [1-9][0-9]{0,4})"
                                + "( or (?<fallback>(tcp|udp) [1-9][0-9]{0,4}))?( \\((?<hosts>[^()]+)\\))?")
                .matcher(text);
        if (!matcher.matches()) {
            throw new IllegalArgumentException(KindFaultText.NOT_A_FLOW.text(text));
        }
        String fallback = matcher.group("fallback");
        String hosts = matcher.group("hosts");
        return new Kind.Flow(
                matcher.group("from").strip(),
                matcher.group("to").strip(),
                matcher.group("port"),
                fallback == null ? "" : fallback,
                hosts == null
                        ? List.of()
                        : list(hosts, ",").stream().map(Hostname::requireDomain).toList());
    }

    private static String joined(Stream<Integer> numbers) {
        return numbers.map(String::valueOf).collect(Collectors.joining(", "));
    }
}
