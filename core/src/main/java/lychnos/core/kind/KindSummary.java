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
 * @param coverage how far it goes without a person, and how far it is measured
 */
public record KindSummary(
        List<String> before,
        List<FactLine> facts,
        List<String> addresses,
        NameLine name,
        KindSetup setup,
        List<String> proven,
        String restart,
        List<String> flows,
        KindCoverage coverage) {

    private static final Map<String, String> BY = Map.of(
            "redfish",
            KindSummaryText.BY_REDFISH.text(),
            "console",
            KindSummaryText.BY_CONSOLE.text(),
            "pages",
            KindSummaryText.BY_PAGES.text(),
            "screen",
            KindSummaryText.BY_SCREEN.text());

    private static final Map<Mark, Remark> MARKS = Map.of(
            Mark.PERMANENT, new Remark("permanent", true, ", typed by a person"),
            Mark.DESTROYS, new Remark(KindSummaryText.DESTROYS.text(), true, ""),
            Mark.TERMS, Remark.plain(KindSummaryText.AGREES_TO_TERMS.text()),
            Mark.CONSENT, new Remark(KindSummaryText.NEEDS_CONSENT.text(), true, ", with a reason"),
            Mark.RESTARTS, Remark.plain("restarts"),
            Mark.SECRET, Remark.plain(KindSummaryText.PASSWORD.text()),
            Mark.LATER, Remark.plain(KindSummaryText.LATER.text()),
            Mark.OPTIONAL, Remark.plain(KindSummaryText.NOT_ALWAYS_ASKED.text()),
            Mark.AGAIN, Remark.plain(KindSummaryText.ASKED_AGAIN.text()));

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
                        .filter(fact -> !Kind.STANDARD.contains(fact.name())) // every kind has them
                        .map(fact -> fact(kind, fact))
                        .toList(),
                kind.addresses().stream().map(plan -> addresses(kind, plan)).toList(),
                new NameLine(kind.names().unit().toString(), kind.names().longest()),
                kind.dialogue()
                        .map(dialogue -> setup(kind, dialogue))
                        .orElse(new KindSetup("", false, List.of(), List.of())),
                KindProof.proven(kind),
                KindSummaryText.RESTART.text(
                        KindReader.text(kind.waits().about()),
                        KindReader.text(kind.waits().atMost())),
                kind.flows().stream().map(flow -> flow.text(" → ")).toList(),
                KindCoverage.of(kind));
    }

    private static List<String> before(Kind kind) {
        List<String> parts = new ArrayList<>();
        parts.add(KindSummaryText.SET_UP_BY.text(BY.getOrDefault(
                kind.setup().by(),
                KindSummaryText.SET_UP_OTHERWISE.text(kind.setup().by()))));
        List<String> labels = kind.members().labels();
        if (labels.size() > 1 || !labels.get(0).isEmpty()) {
            String members = String.join(", ", labels);
            parts.add(
                    kind.members().counts().size() == 1
                            ? KindSummaryText.MEMBERS.text(members)
                            : KindSummaryText.MEMBERS_OF_A_COUNT.text(
                                    members,
                                    kind.members().counts().stream()
                                            .map(String::valueOf)
                                            .collect(Collectors.joining(", "))));
        }
        if (kind.setup().factoryAddress() != null) {
            parts.add(KindSummaryText.ONE_ADDRESS.text(kind.setup().factoryAddress()));
        }
        if (kind.setup().dhcpFirst()) {
            parts.add(KindSummaryText.STARTS_WITH_DHCP.text());
        }
        if (kind.setup().internet()) {
            parts.add(KindSummaryText.NEEDS_INTERNET.text());
        }
        if (!kind.setup().proxy() && !kind.setup().wayRound().isEmpty()) {
            parts.add(KindSummaryText.NO_PROXY.text(kind.setup().wayRound()));
        }
        if (!kind.bring().isEmpty()) {
            parts.add(KindSummaryText.BRING.text(String.join(", ", kind.bring())));
        }
        if (!kind.atRack().checks().isEmpty()) {
            parts.add(KindSummaryText.RACK_CHECKS.text(kind.atRack().checks().stream()
                    .map(check -> check.late() ? KindSummaryText.MAY_BE_LATE.text(check.text()) : check.text())
                    .collect(Collectors.joining(", "))));
        }
        if (!kind.plug().isEmpty()) {
            parts.add(KindSummaryText.PLUG.text(kind.plug()));
        }
        kind.machine()
                .ifPresent(machine -> parts.add(KindSummaryText.VIRTUAL_MACHINE.text(
                        machine.cores(), machine.memory(), machine.disk(), String.join(", ", machine.networks()))));
        kind.machine().map(KindSummary::image).filter(text -> !text.isEmpty()).ifPresent(parts::add);
        return List.copyOf(parts);
    }

    private static String image(Kind.Machine machine) {
        Kind.ImageNeeds image = machine.image();
        List<String> parts = new ArrayList<>();
        if (!image.formats().isEmpty()) {
            parts.add(KindSummaryText.IMAGE_FORMAT.text(
                    image.formats().stream().map(ImageFormat::word).collect(Collectors.joining(" or "))));
        }
        if (!image.from().isEmpty()) {
            parts.add(KindSummaryText.IMAGE_VERSION.text(image.from()));
        }
        if (!image.hostFrom().isEmpty()) {
            parts.add(KindSummaryText.IMAGE_HOST.text(image.hostFrom()));
        }
        return parts.isEmpty() ? "" : KindSummaryText.IMAGE.text(String.join(", ", parts));
    }

    private static FactLine fact(Kind kind, FactSpec fact) {
        String whose = fact.scope() == FactSpec.Scope.MEMBER && kind.members().most() > 1
                ? KindSummaryText.OF_EACH_MEMBER.text()
                : KindSummaryText.OF_UNIT.text();
        List<Remark> remarks = new ArrayList<>();
        if (fact.is(Trait.PERMANENT)) {
            remarks.add(new Remark("permanent", true, ""));
        }
        if (fact.is(Trait.SAME)) {
            remarks.add(Remark.plain((fact.scope() == FactSpec.Scope.MEMBER
                            ? KindSummaryText.SAME_ON_ALL
                            : KindSummaryText.SAME_ON_UNITS)
                    .text()));
        }
        if (fact.is(Trait.MADE)) {
            remarks.add(Remark.plain(KindSummaryText.MADE.text()));
        }
        if (fact.is(Trait.POLICY)) {
            remarks.add(Remark.plain(KindSummaryText.FROM_POLICY.text()));
        }
        if (fact.is(Trait.ACCESS)) {
            remarks.add(Remark.plain(KindSummaryText.FROM_ACCESS.text()));
        }
        if (fact.is(Trait.OPTIONAL)) {
            remarks.add(Remark.plain(KindSummaryText.NOT_ASKED.text()));
        }
        if (fact.is(Trait.MANAGER)) {
            remarks.add(Remark.plain(KindSummaryText.MANAGES_IT.text()));
        }
        if (fact.is(Trait.ENDS)) {
            remarks.add(Remark.plain(KindSummaryText.ENDS.text()));
        }
        if (fact.is(Trait.LATER)) {
            remarks.add(Remark.plain(KindSummaryText.KNOWN_LATER.text()));
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
        List<String> parts = new ArrayList<>();
        parts.add(KindSummaryText.ADDRESSES.text(
                roles.size(), String.join(", ", plan.networks()), String.join(", ", roles)));
        if (plan.ipv6()) {
            parts.add(KindSummaryText.SAME_IN_IPV6.text());
        }
        if (plan.growth() != 0) {
            parts.add(KindSummaryText.ROOM_TO_GROW.text());
        }
        if (!plan.times().matches("[0-9]+")) {
            parts.add(KindSummaryText.AS_MANY_AS.text(
                    kind.fact(plan.times()).map(FactSpec::title).orElse(plan.times())));
        }
        return String.join(", ", parts) + ".";
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
            all.add(Remark.plain(KindSummaryText.ON_MEMBER.text(step.on())));
        }
        if (!step.only().tests().isEmpty()) {
            all.add(Remark.plain(KindSummaryText.ONLY_IF.text(step.only().text(name -> title(kind, name)))));
        }
        if (step instanceof DialogueStep.Asked asked) {
            marks(asked.marks(), all);
            if (asked.within() != null) {
                all.add(Remark.plain(KindSummaryText.CALLS_AFTER.text(KindReader.text(asked.within()))));
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
                    remote.driven() ? KindSummaryText.OVER_NETWORK.text() : KindSummaryText.PAGE_BY_HAND.text()));
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
        return Remark.plain(KindSummaryText.WAIT.text(KindReader.text(about), KindReader.text(atMost)));
    }
}
