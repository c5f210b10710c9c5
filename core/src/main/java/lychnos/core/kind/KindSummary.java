package lychnos.core.kind;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.DialogueStep;
import lychnos.core.dialogue.DialogueStep.Mark;
import lychnos.core.fact.FactSpec;
import lychnos.core.fact.FactSpec.Trait;
import lychnos.core.image.ImageFormat;

/**
 * What a kind says, for people: what it asks and of whom, what it gets, its setup step by step, what is proven and what
 * firewalls must let through. The reference page and the screen are both written from it.
 *
 * @param before what is good to know before one goes to the rack, in whole sentences
 * @param facts what has to be known, in the order of the sheet
 * @param addresses what is placed, one line for each entry
 * @param name how a unit is called
 * @param setup its first setup; without steps where nobody described it
 * @param proven what is checked, one clause for each
 * @param restart how long a restart takes
 * @param flows what a firewall must let through
 */
public record KindSummary(
        List<String> before,
        List<FactLine> facts,
        List<String> addresses,
        NameLine name,
        KindSetup setup,
        List<String> proven,
        String restart,
        List<String> flows) {

    private static final Map<String, String> BY = Map.of(
            "redfish",
            "automatically, over Redfish",
            "console",
            "on its console line",
            "pages",
            "on its own web pages",
            "screen",
            "in its setup screen, over its line");

    private static final Map<Mark, Remark> MARKS = Map.of(
            Mark.PERMANENT, new Remark("permanent", true, ", typed by a person"),
            Mark.DESTROYS, new Remark("destroys what is there", true, ""),
            Mark.TERMS, Remark.plain("agrees to terms, by the site's recorded consent"),
            Mark.CONSENT, new Remark("needs consent", true, ", with a reason"),
            Mark.RESTARTS, Remark.plain("restarts"),
            Mark.SECRET, Remark.plain("a password"),
            Mark.LATER, Remark.plain("may be done after the setup, once its value is known"),
            Mark.OPTIONAL, Remark.plain("not always asked"),
            Mark.AGAIN, Remark.plain("asked again at each check"));

    /**
     * Something that is said beside a line.
     *
     * @param grave whether {@code text} is to be marked
     * @param more what follows it without a mark
     */
    public record Remark(String text, boolean grave, String more) {

        static Remark plain(String text) {
            return new Remark(text, false, "");
        }

        @Override
        public String toString() {
            return text + more;
        }
    }

    /**
     * A fact.
     *
     * @param whose the unit's, or each member's
     * @param fallback what counts where nobody says otherwise, or empty
     */
    public record FactLine(
            String name,
            String title,
            String whose,
            String find,
            String asked,
            List<Remark> remarks,
            String fallback) {}

    /** The host name of a unit: the pattern, and how many characters its machine allows. */
    public record NameLine(String pattern, int longest) {}

    /**
     * A step of the setup.
     *
     * @param answer what is sent, or entered in which field of a page, with the names of values in braces; empty for a
     * step that sends nothing
     */
    public record KindStep(String title, List<Remark> remarks, String answer) {}

    /**
     * A first setup.
     *
     * @param line the settings of its line, or empty where it has none
     * @param wipe the titles of the steps that make a used one blank first
     */
    public record KindSetup(String line, boolean oneByOne, List<KindStep> steps, List<String> wipe) {}

    /** Reads a kind. */
    public static KindSummary of(Kind kind) {
        return new KindSummary(
                before(kind),
                kind.facts().stream()
                        .filter(fact -> !fact.name().equals(Kind.OWN_USER)
                                && !fact.name().equals(Kind.OWN_PASSWORD)) // every kind has them
                        .map(fact -> fact(kind, fact))
                        .toList(),
                kind.addresses().stream().map(plan -> addresses(kind, plan)).toList(),
                new NameLine(kind.names().unit().toString(), kind.names().longest()),
                kind.dialogue()
                        .map(dialogue -> setup(kind, dialogue))
                        .orElse(new KindSetup("", false, List.of(), List.of())),
                proven(kind),
                "A restart takes " + KindReader.text(kind.waits().about()) + ", and is a fault after "
                        + KindReader.text(kind.waits().atMost()) + ".",
                kind.flows().stream()
                        .map(flow -> flow.from() + " → " + flow.to() + " " + flow.port())
                        .toList());
    }

    private static List<String> before(Kind kind) {
        List<String> parts = new ArrayList<>();
        parts.add("Set up "
                + BY.getOrDefault(kind.setup().by(), "by " + kind.setup().by()) + ".");
        List<String> labels = kind.members().labels();
        if (labels.size() > 1 || !labels.get(0).isEmpty()) {
            String counts = kind.members().counts().size() == 1
                    ? ""
                    : ", "
                            + kind.members().counts().stream()
                                    .map(String::valueOf)
                                    .collect(Collectors.joining(", "))
                            + " of them";
            parts.add("Its members: " + String.join(", ", labels) + counts + ".");
        }
        if (kind.setup().factoryAddress() != null) {
            parts.add("Every copy leaves the factory at " + kind.setup().factoryAddress()
                    + ", so they are joined to the network one at a time.");
        }
        if (kind.setup().dhcpFirst()) {
            parts.add("It begins with an address from DHCP.");
        }
        if (kind.setup().internet()) {
            parts.add("The machine needs the internet to activate itself.");
        }
        if (!kind.setup().proxy() && !kind.setup().wayRound().isEmpty()) {
            parts.add("Its first setup cannot use a proxy: " + kind.setup().wayRound() + ".");
        }
        if (!kind.bring().isEmpty()) {
            parts.add("Bring: " + String.join(", ", kind.bring()) + ".");
        }
        if (!kind.atRack().checks().isEmpty()) {
            parts.add("Checked at the rack: "
                    + kind.atRack().checks().stream()
                            .map(check -> check.text() + (check.late() ? " (may be late)" : ""))
                            .collect(Collectors.joining(", "))
                    + ".");
        }
        if (!kind.plug().isEmpty()) {
            parts.add("Plug: " + kind.plug() + ".");
        }
        kind.machine()
                .ifPresent(machine -> parts.add(
                        "A virtual machine of " + machine.cores() + " cores, " + machine.memory() + " memory and "
                                + machine.disk() + " disk, joined to " + String.join(", ", machine.networks()) + "."));
        kind.machine().map(KindSummary::image).filter(text -> !text.isEmpty()).ifPresent(parts::add);
        return List.copyOf(parts);
    }

    private static String image(Kind.Machine machine) {
        Kind.ImageNeeds image = machine.image();
        List<String> parts = new ArrayList<>();
        if (!image.formats().isEmpty()) {
            parts.add("in the format "
                    + image.formats().stream().map(ImageFormat::word).collect(Collectors.joining(" or ")));
        }
        if (!image.from().isEmpty()) {
            parts.add("version " + image.from() + " or later");
        }
        if (!image.hostFrom().isEmpty()) {
            parts.add("on a host of version " + image.hostFrom() + " or later");
        }
        return parts.isEmpty() ? "" : "Its image: " + String.join(", ", parts) + ".";
    }

    private static FactLine fact(Kind kind, FactSpec fact) {
        String whose =
                fact.scope() == FactSpec.Scope.MEMBER && kind.members().most() > 1 ? "each member's" : "the unit's";
        List<Remark> remarks = new ArrayList<>();
        if (fact.is(Trait.PERMANENT)) {
            remarks.add(new Remark("permanent", true, ""));
        }
        if (fact.is(Trait.SAME)) {
            remarks.add(Remark.plain("the same on every member"));
        }
        if (fact.is(Trait.MADE)) {
            remarks.add(Remark.plain("made and sealed"));
        }
        if (fact.is(Trait.POLICY)) {
            remarks.add(Remark.plain("from the site's policy"));
        }
        if (fact.is(Trait.OPTIONAL)) {
            remarks.add(Remark.plain("not asked"));
        }
        if (fact.is(Trait.ENDS)) {
            remarks.add(Remark.plain("something ends on that day; people are told before"));
        }
        if (fact.is(Trait.LATER)) {
            remarks.add(Remark.plain("becomes known during the setup, which waits for it"));
        }
        return new FactLine(
                fact.name(),
                fact.title(),
                whose,
                fact.find(),
                kind.usedAt(fact),
                List.copyOf(remarks),
                fact.fallback() == null ? "" : fact.fallback());
    }

    private static String addresses(Kind kind, AddressPlan plan) {
        int counted = kind.times(plan, Map.of());
        List<String> roles = plan.roles(kind.members().most(), counted).stream()
                .map(role -> role.name(kind.members().labels()))
                .toList();
        String together = roles.size() == 1 ? "One address" : roles.size() + " addresses in a row";
        String more = (plan.ipv6() ? ", in IPv6 alike" : "")
                + (plan.growth() != 0 ? ", with room to grow behind them" : "")
                + (plan.times().matches("[0-9]+")
                        ? ""
                        : ", as many as “"
                                + kind.fact(plan.times()).map(FactSpec::title).orElse(plan.times()) + "” says");
        return together + " in " + String.join(", ", plan.networks()) + ": " + String.join(", ", roles) + more + ".";
    }

    private static KindSetup setup(Kind kind, Dialogue dialogue) {
        List<KindStep> steps = Stream.of(
                        dialogue.pages().stream()
                                .filter(DialogueStep.Remote::first)
                                .map(step -> step(kind, step)),
                        dialogue.setup().stream().map(step -> step(kind, step)),
                        dialogue.pages().stream().filter(page -> !page.first()).map(step -> step(kind, step)))
                .flatMap(each -> each)
                .toList();
        return new KindSetup(
                dialogue.setup().isEmpty() ? "" : dialogue.line().toString(),
                dialogue.oneByOne(),
                steps,
                dialogue.wipe().stream().map(DialogueStep::title).toList());
    }

    private static KindStep step(Kind kind, DialogueStep step) {
        List<Remark> all = new ArrayList<>();
        String answer = "";
        if (!step.on().isEmpty()) {
            all.add(Remark.plain("on " + step.on()));
        }
        if (!step.only().tests().isEmpty()) {
            all.add(Remark.plain("only if " + step.only().text(name -> title(kind, name))));
        }
        if (step instanceof DialogueStep.Asked asked) {
            marks(asked.marks(), all);
            if (asked.within() != null) {
                all.add(Remark.plain("a person is called after " + KindReader.text(asked.within())));
            }
            answer = asked.answer().toString();
        } else if (step instanceof DialogueStep.Waits waits) {
            all.add(usually(waits.about(), waits.atMost()));
        } else if (step instanceof DialogueStep.Remote remote) {
            if (step instanceof DialogueStep.Page page) {
                marks(page.marks(), all);
                answer = fields(page);
            }
            all.add(Remark.plain(
                    remote.driven() ? "automatically, over the network" : "a page, by a person from the value sheet"));
            if (remote.usually() != null) {
                all.add(usually(remote.usually(), remote.longest()));
            }
        }
        return new KindStep(step.title(), List.copyOf(all), answer);
    }

    private static String title(Kind kind, String name) {
        return kind.fact(name)
                .map(FactSpec::title)
                .orElse(name.replace('-', ' ').replace('.', ' '));
    }

    /** What is entered on a page, by the labels of its fields. */
    private static String fields(DialogueStep.Page page) {
        return page.fields().entrySet().stream()
                .map(field -> field.getKey() + ": " + field.getValue().value())
                .collect(Collectors.joining("; "));
    }

    private static void marks(Set<Mark> marks, List<Remark> all) {
        for (Mark mark : Mark.values()) {
            if (marks.contains(mark) && MARKS.containsKey(mark)) {
                all.add(MARKS.get(mark));
            }
        }
    }

    private static Remark usually(Duration about, Duration atMost) {
        return Remark.plain("usually " + KindReader.text(about) + ", a fault after " + KindReader.text(atMost));
    }

    private static String listed(List<Integer> ports) {
        return ports.stream().map(String::valueOf).collect(Collectors.joining(", "));
    }

    private static List<String> proven(Kind kind) {
        Kind.Checks checks = kind.checks();
        List<String> all = new ArrayList<>(List.of("TCP " + checks.port() + " answers"));
        if (checks.ssh()) {
            all.add("answers over SSH" + (checks.signsIn().isPresent() ? ", where settings are read back" : ""));
        }
        if (checks.presence() == Expectation.EXPECTED) {
            all.add("answers a presence ping (RMCP)");
        } else if (checks.presence() == Expectation.FORBIDDEN) {
            all.add("answers no presence ping (RMCP)");
        }
        if (!checks.iscsi().isEmpty()) {
            all.add("iSCSI portals answer: " + String.join(", ", checks.iscsi()));
        }
        if (!checks.nfs().isEmpty()) {
            all.add("NFS answers: " + String.join(", ", checks.nfs()));
        }
        if (!checks.open().isEmpty()) {
            all.add("open: TCP " + listed(checks.open()));
        }
        if (!checks.shut().isEmpty()) {
            all.add("closed: TCP " + listed(checks.shut()));
        }
        checks.ports()
                .restricted()
                .forEach(each -> all.add("TCP " + each.port() + " answers the sources of “"
                        + kind.fact(each.from()).map(FactSpec::title).orElse(each.from()) + "” and no others"));
        checks.roles().forEach((role, ports) -> {
            if (!ports.open().isEmpty()) {
                all.add(role + ", open: TCP " + listed(ports.open()));
            }
            if (!ports.shut().isEmpty()) {
                all.add(role + ", closed: TCP " + listed(ports.shut()));
            }
        });
        if (!checks.community().isEmpty()) {
            all.add("answers no SNMP to “" + checks.community() + "”");
        }
        List<String> ways =
                kind.logins().stream().map(Kind.FactoryLogin::way).distinct().toList();
        all.add("factory login is refused (" + String.join(", ", ways) + ")");
        return List.copyOf(all);
    }
}
