package lychnos.core.kind;

import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.DialogueStep;
import lychnos.core.dialogue.DialogueStep.Mark;
import lychnos.core.fact.FactSpec;
import lychnos.core.fact.FactSpec.Trait;

/**
 * The page of a kind in the reference, in Markdown: what to have ready, what it gets, what its first setup does, what
 * is proven of it.
 */
public final class KindPage {

    private static final Map<String, String> BY = Map.of(
            "redfish",
            "over Redfish, by itself",
            "console",
            "on its console line",
            "pages",
            "on its own web pages",
            "screen",
            "in its setup screen, over its line");

    private final StringBuilder text = new StringBuilder();
    private final Kind kind;

    private KindPage(Kind kind) {
        this.kind = kind;
    }

    /** The whole reference: every kind in its order, with a list of them at the head. */
    public static String reference(List<Kind> kinds) {
        String list = kinds.stream()
                .map(each -> "- [" + each.title() + "](#"
                        + each.title().toLowerCase(Locale.ROOT).replace(' ', '-') + ")\n")
                .collect(Collectors.joining());
        String head =
                "# Kinds of equipment\n\nWritten by `./lychnos record` from the descriptions in `kinds/`, whose form "
                        + "is [explained here](kinds.md).\n\n";
        return head + list + "\n"
                + kinds.stream().map(KindPage::of).collect(Collectors.joining()).stripTrailing() + "\n";
    }

    /** The page of one kind. */
    public static String of(Kind kind) {
        return new KindPage(kind).written();
    }

    private String written() {
        line("## " + kind.title());
        line(kind.about());
        line("`" + kind.id() + "`, in names `" + kind.shortName() + "`. Set up "
                + BY.getOrDefault(kind.setup().by(), "by " + kind.setup().by()) + "." + members() + before());
        facts();
        addresses();
        kind.dialogue().ifPresent(this::dialogue);
        proofs();
        return text.toString();
    }

    private void line(String words) {
        text.append(words).append("\n\n");
    }

    private String members() {
        List<String> labels = kind.members().labels();
        if (labels.size() == 1 && labels.get(0).isEmpty()) {
            return "";
        }
        String counts = kind.members().counts().size() == 1
                ? ""
                : ", " + kind.members().counts().stream().map(String::valueOf).collect(Collectors.joining(", "))
                        + " of them";
        return " Its members: " + String.join(", ", labels) + counts + ".";
    }

    /** What is good to know before one goes to the rack. */
    private String before() {
        List<String> parts = new ArrayList<>();
        if (kind.setup().factoryAddress() != null) {
            parts.add("Every copy leaves the factory at " + kind.setup().factoryAddress()
                    + ", so they are joined to the network one at a time.");
        }
        if (kind.setup().dhcpFirst()) {
            parts.add("It begins with an address from DHCP.");
        }
        if (kind.setup().internet()) {
            parts.add("It must reach the internet to activate itself.");
        }
        if (!kind.setup().proxy() && !kind.setup().wayRound().isEmpty()) {
            parts.add("Its first setup takes no proxy: " + kind.setup().wayRound() + ".");
        }
        if (!kind.bring().isEmpty()) {
            parts.add("Bring: " + String.join(", ", kind.bring()) + ".");
        }
        if (!kind.plug().isEmpty()) {
            parts.add("Plug: " + kind.plug() + ".");
        }
        kind.machine()
                .ifPresent(machine -> parts.add(
                        "A virtual machine of " + machine.cores() + " cores, " + machine.memory() + " memory and "
                                + machine.disk() + " disk, joined to " + String.join(", ", machine.networks()) + "."));
        return parts.stream().map(part -> " " + part).collect(Collectors.joining());
    }

    private void facts() {
        text.append("| to know | whose | where it is found | who asks | |\n|---|---|---|---|---|\n");
        for (FactSpec fact : kind.facts()) {
            String whose =
                    fact.scope() == FactSpec.Scope.MEMBER && kind.members().most() > 1 ? "each member's" : "the unit's";
            text.append(row(fact.title(), whose, fact.find(), fact.asked(), traits(fact)));
        }
        text.append("\n");
    }

    private static String traits(FactSpec fact) {
        List<String> all = new ArrayList<>();
        if (fact.is(Trait.PERMANENT)) {
            all.add("**permanent**");
        }
        if (fact.is(Trait.SAME)) {
            all.add("the same on every member");
        }
        if (fact.is(Trait.MADE)) {
            all.add("made and sealed");
        }
        if (fact.is(Trait.POLICY)) {
            all.add("from the site's policy");
        }
        if (fact.is(Trait.OPTIONAL)) {
            all.add("not asked");
        }
        if (fact.fallback() != null) {
            all.add("`" + fact.fallback() + "` unless stated");
        }
        return String.join(", ", all);
    }

    private static String row(String... cells) {
        return Arrays.stream(cells)
                .map(cell -> cell.replace("|", "\\|"))
                .collect(Collectors.joining(" | ", "| ", " |\n"));
    }

    private void addresses() {
        for (AddressPlan plan : kind.addresses()) {
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
                                    + kind.fact(plan.times())
                                            .map(FactSpec::title)
                                            .orElse(plan.times()) + "” says");
            text.append("- ")
                    .append(together)
                    .append(" in ")
                    .append(String.join(", ", plan.networks()))
                    .append(": ")
                    .append(String.join(", ", roles))
                    .append(more)
                    .append(".\n");
        }
        line("- Its name: `" + kind.names().unit() + "`, at most "
                + kind.names().longest() + " letters.");
    }

    private void dialogue(Dialogue dialogue) {
        boolean line = !dialogue.setup().isEmpty();
        line("**First setup" + (line ? ", at " + dialogue.line() : "")
                + (dialogue.oneByOne() ? ", one member after the other" : "") + "**");
        List<String> steps = new ArrayList<>();
        dialogue.pages().stream()
                .filter(DialogueStep.Remote::first)
                .map(KindPage::step)
                .forEach(steps::add);
        dialogue.setup().stream().map(KindPage::step).forEach(steps::add);
        dialogue.pages().stream()
                .filter(page -> !page.first())
                .map(KindPage::step)
                .forEach(steps::add);
        line(IntStream.range(0, steps.size())
                .mapToObj(i -> (i + 1) + ". " + steps.get(i))
                .collect(Collectors.joining("\n")));
        if (!dialogue.wipe().isEmpty()) {
            line("One that was used before is made blank first: "
                    + dialogue.wipe().stream().map(DialogueStep::title).collect(Collectors.joining(", "))
                    + ". A person types its name for that.");
        }
    }

    private static String step(DialogueStep step) {
        List<String> all = new ArrayList<>();
        if (!step.on().isEmpty()) {
            all.add("on " + step.on());
        }
        if (step instanceof DialogueStep.Asked asked) {
            marks(asked.marks(), all);
        } else if (step instanceof DialogueStep.Waits waits) {
            all.add(usually(waits.about(), waits.atMost()));
        } else if (step instanceof DialogueStep.Remote remote) {
            if (step instanceof DialogueStep.Page page) {
                marks(page.marks(), all);
            }
            all.add(remote.driven() ? "over the network, by itself" : "a page, by a person from the value sheet");
            if (remote.usually() != null) {
                all.add(usually(remote.usually(), remote.longest()));
            }
        }
        return step.title() + (all.isEmpty() ? "" : " (" + String.join("; ", all) + ")");
    }

    private static void marks(Set<Mark> marks, List<String> all) {
        Map<Mark, String> said = Map.of(
                Mark.PERMANENT, "**permanent**, typed by a person",
                Mark.DESTROYS, "**destroys what is there**",
                Mark.TERMS, "agrees to terms, by the site's recorded consent",
                Mark.RESTARTS, "restarts",
                Mark.SECRET, "a password",
                Mark.OPTIONAL, "not always asked",
                Mark.AGAIN, "asked again at each check");
        for (Mark mark : Mark.values()) {
            if (marks.contains(mark) && said.containsKey(mark)) {
                all.add(said.get(mark));
            }
        }
    }

    private static String usually(Duration about, Duration atMost) {
        return "usually " + length(about) + ", a fault after " + length(atMost);
    }

    private static String length(Duration time) {
        return time.toSeconds() % 60 == 0 ? time.toMinutes() + " min" : time.toSeconds() + " s";
    }

    private void proofs() {
        Kind.Checks checks = kind.checks();
        List<String> all = new ArrayList<>(List.of("answers at TCP " + checks.port()));
        if (checks.ssh()) {
            all.add("greets over SSH" + (checks.signsIn().isPresent() ? ", where what it keeps is read back" : ""));
        }
        if (checks.presence()) {
            all.add("answers a presence ping (RMCP)");
        }
        if (!checks.iscsi().isEmpty()) {
            all.add("portals of iSCSI answer: " + String.join(", ", checks.iscsi()));
        }
        if (!checks.nfs().isEmpty()) {
            all.add("NFS is served: " + String.join(", ", checks.nfs()));
        }
        if (!checks.shut().isEmpty()) {
            all.add("shut: TCP " + checks.shut().stream().map(String::valueOf).collect(Collectors.joining(", ")));
        }
        if (!checks.community().isEmpty()) {
            all.add("answers no SNMP to “" + checks.community() + "”");
        }
        List<String> ways =
                kind.logins().stream().map(Kind.FactoryLogin::way).distinct().toList();
        all.add("the maker's way in is refused (" + String.join(", ", ways) + ")");
        line("**Proven of it:** " + String.join("; ", all) + ". A restart takes "
                + length(kind.waits().about()) + ", and is a fault after "
                + length(kind.waits().atMost()) + ".");
        if (!kind.flows().isEmpty()) {
            line("**Firewalls let through:** "
                    + kind.flows().stream()
                            .map(flow -> flow.from() + " → " + flow.to() + " " + flow.port())
                            .collect(Collectors.joining("; "))
                    + ".");
        }
    }
}
