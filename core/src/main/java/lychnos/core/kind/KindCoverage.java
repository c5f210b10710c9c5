package lychnos.core.kind;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.DialogueStep;
import lychnos.core.dialogue.DialogueStep.Mark;
import lychnos.core.fact.FactSpec.Trait;
import lychnos.core.fact.FactType;
import lychnos.core.proof.OwnValue;

/**
 * How far the work on a kind goes without a person, and how far it is measured. Written from the description alone, so
 * that it cannot promise what the program does not do.
 *
 * @param automatic what needs no person
 * @param guided what a person does, with the values beside it, or decides
 * @param proven what each check measures, besides that the machine answers at its address, its port and its names
 * @param notMeasured what no check can tell of this kind
 */
public record KindCoverage(List<String> automatic, List<String> guided, List<String> proven, List<String> notMeasured) {

    private static final Set<Mark> DECIDED = Set.of(Mark.PERMANENT, Mark.DESTROYS, Mark.TERMS, Mark.CONSENT);

    /** Reads a kind. */
    static KindCoverage of(Kind kind) {
        return new KindCoverage(automatic(kind), guided(kind), proven(kind), notMeasured(kind));
    }

    private static List<String> automatic(Kind kind) {
        List<String> all = new ArrayList<>();
        if (kind.driven()) {
            all.add(KindSummaryText.WHOLE_SETUP_REDFISH.text());
        }
        long answers = steps(kind, DialogueStep.Asked.class)
                .filter(step -> !decided(step.marks()))
                .count();
        if (answers > 0) {
            all.add(KindSummaryText.ANSWERS_ON_LINE.text(answers));
        }
        long pages = steps(kind, DialogueStep.Page.class)
                .filter(page -> page.driven() && !decided(page.marks()))
                .count();
        if (pages > 0) {
            all.add(KindSummaryText.PAGES_OVER_INTERFACE.text(pages));
        }
        if (steps(kind, DialogueStep.Controller.class).findAny().isPresent()) {
            all.add(KindSummaryText.CONTROLLER_OVER_REDFISH.text());
        }
        long made = kind.facts().stream().filter(fact -> fact.is(Trait.MADE)).count();
        if (made > 0) {
            all.add(KindSummaryText.PASSWORDS_MADE.text(made));
        }
        return List.copyOf(all);
    }

    private static List<String> guided(Kind kind) {
        List<String> all = new ArrayList<>();
        Set<String> decisions = new LinkedHashSet<>();
        steps(kind, DialogueStep.Asked.class)
                .filter(step -> decided(step.marks()))
                .forEach(step -> decisions.add(step.title()));
        steps(kind, DialogueStep.Page.class)
                .filter(page -> page.driven() && decided(page.marks()))
                .forEach(page -> decisions.add(page.title()));
        if (!decisions.isEmpty()) {
            all.add(KindSummaryText.PERSON_DECIDES.text(String.join(", ", decisions)));
        }
        long restarts = steps(kind, DialogueStep.Asked.class)
                .filter(step -> step.is(Mark.RESTARTS) && !decided(step.marks()))
                .count();
        if (restarts > 0) {
            all.add(KindSummaryText.RESTARTS_CONFIRMED.text(restarts));
        }
        List<String> pages = steps(kind, DialogueStep.Page.class)
                .filter(page -> !page.driven())
                .map(DialogueStep.Page::title)
                .toList();
        if (!pages.isEmpty()) {
            all.add(KindSummaryText.PAGES_BY_PERSON.text(String.join(", ", pages)));
        }
        if (!kind.driven() && (kind.dialogue().isEmpty() || kind.byHand())) {
            all.add(KindSummaryText.WHOLE_SETUP_BY_PERSON.text());
        }
        int atRack = kind.atRack().checks().size();
        if (atRack > 0) {
            all.add(KindSummaryText.CHECKS_AT_RACK.text(atRack));
        }
        return List.copyOf(all);
    }

    private static List<String> proven(Kind kind) {
        List<String> all = new ArrayList<>();
        if (kind.facts().stream()
                .anyMatch(fact -> fact.type() == FactType.MAC && fact.name().equals("mac"))) {
            all.add(KindSummaryText.IDENTITY_BY_MAC.text());
        }
        readBack(kind).ifPresent(way -> all.add(KindSummaryText.SETTINGS_OVER.text(way)));
        String shown = KindProof.shown(kind).stream().map(OwnValue::word).collect(Collectors.joining(", "));
        if (!shown.isEmpty()) {
            all.add(shown);
        }
        List<String> tried = ways(kind).filter(way -> tried(kind, way)).toList();
        if (!tried.isEmpty()) {
            all.add(KindSummaryText.FACTORY_REFUSED.text(String.join(", ", tried)));
        }
        if (!kind.checks().iscsi().isEmpty()) {
            all.add(KindSummaryText.PORTALS.text(String.join(", ", kind.checks().iscsi())));
        }
        if (!kind.checks().nfs().isEmpty()) {
            all.add(KindSummaryText.NFS.text(String.join(", ", kind.checks().nfs())));
        }
        int shut =
                kind.checks().shut().size() + kind.checks().ports().restricted().size();
        if (shut > 0) {
            all.add(KindSummaryText.PORTS_KEPT_SHUT.text(shut));
        }
        return List.copyOf(all);
    }

    private static List<String> notMeasured(Kind kind) {
        List<String> all = new ArrayList<>();
        if (readBack(kind).isEmpty()) {
            all.add(KindSummaryText.SETTINGS_IN_SETUP_ONLY.text());
        }
        List<String> untried = ways(kind).filter(way -> !tried(kind, way)).toList();
        if (!untried.isEmpty()) {
            all.add(KindSummaryText.FACTORY_NOT_TRIED.text(String.join(", ", untried)));
        }
        Stream.of(OwnValue.FIRMWARE, OwnValue.CLOCK)
                .filter(value -> !KindProof.shown(kind).contains(value))
                .forEach(value -> all.add(value.word()));
        return List.copyOf(all);
    }

    /** How the settings are read again at each check, if they are. */
    private static Optional<String> readBack(Kind kind) {
        if (kind.driven()) {
            return Optional.of("Redfish");
        }
        boolean ssh = kind.checks().signsIn().isPresent()
                && steps(kind, DialogueStep.Asked.class).anyMatch(step -> step.is(Mark.AGAIN));
        boolean pages = kind.checkedPages().isPresent()
                && (steps(kind, DialogueStep.Page.class).anyMatch(DialogueStep.Page::driven)
                        || !kind.checkedPages().get().reads().isEmpty());
        return Stream.of(ssh ? "SSH" : "", pages ? KindSummaryText.DOCUMENTED_INTERFACE.text() : "")
                .filter(way -> !way.isEmpty())
                .reduce((one, other) -> one + ", " + other);
    }

    private static Stream<String> ways(Kind kind) {
        return kind.logins().stream().map(Kind.FactoryLogin::way).distinct().filter(kind.shippedWays()::contains);
    }

    private static boolean tried(Kind kind, String way) {
        return switch (way) {
            case "redfish" -> kind.driven();
            case "ssh" -> kind.checks().signsIn().isPresent();
            case "web" ->
                kind.checks().webForm().isPresent()
                        || kind.checkedPages()
                                .filter(Dialogue.PageInterface::hasFirst)
                                .isPresent();
            default ->
                Kind.LINE_WAYS.contains(way)
                        && steps(kind, DialogueStep.Asked.class).anyMatch(step -> step.is(Mark.MUST_BE_REFUSED));
        };
    }

    private static boolean decided(Set<Mark> marks) {
        return marks.stream().anyMatch(DECIDED::contains);
    }

    private static <T extends DialogueStep> Stream<T> steps(Kind kind, Class<T> sort) {
        return kind.dialogue().stream()
                .flatMap(dialogue -> Stream.concat(dialogue.setup().stream(), dialogue.pages().stream()))
                .filter(sort::isInstance)
                .map(sort::cast);
    }
}
