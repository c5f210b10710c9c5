package lychnos.server.configure.bench;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.DialogueStep;
import lychnos.core.fact.FactType;
import lychnos.core.kind.Kind;
import lychnos.core.sheet.MemberValues;
import lychnos.core.sheet.ValueList;
import lychnos.server.configure.model.ConsoleReader;
import lychnos.server.configure.model.HoldView;
import lychnos.server.configure.model.MachineLogs;
import lychnos.server.configure.model.MemberDialogue;
import lychnos.server.configure.plan.Answers;
import lychnos.server.configure.plan.ChangeWindows;
import lychnos.server.configure.plan.Comparisons;
import lychnos.server.configure.plan.Setups;
import lychnos.server.jobs.Run;
import lychnos.server.kinds.Kinds;
import lychnos.server.text.ConfigureText;
import lychnos.server.units.BringUps;
import lychnos.server.units.Unit;
import org.hibernate.Session;
import org.jspecify.annotations.Nullable;

/** What screens show of the setup of one unit on its consoles. */
@ApplicationScoped
public class BenchViews {

    private final ChangeWindows windows;
    private final Session db;
    private final BringUps bringUps;
    private final Kinds kinds;
    private final Answers answers;
    private final ConsoleReader consoleReader;
    private final MachineLogs logs;
    private final Setups setups;

    BenchViews(
            Session db,
            BringUps bringUps,
            Kinds kinds,
            Answers answers,
            ConsoleReader consoleReader,
            MachineLogs logs,
            Setups setups,
            ChangeWindows windows) {
        this.windows = windows;
        this.db = db;
        this.bringUps = bringUps;
        this.kinds = kinds;
        this.answers = answers;
        this.consoleReader = consoleReader;
        this.logs = logs;
        this.setups = setups;
    }

    /**
     * A step as people read it.
     *
     * @param sort asked, summary, waits or page
     * @param answer what is typed; dots for a password
     * @param source where the answer comes from
     * @param marks what is particular about it
     * @param about how long it usually takes, in seconds; 0 where that is not known
     * @param fields of a page, what is entered by what the page calls it
     * @param differ which of these are another one on each member, and must be
     * @param told what the machine has shown there for use elsewhere, such as a licence request, by what it is called
     */
    public record BenchStep(
            int place,
            String title,
            String sort,
            String answer,
            String source,
            List<String> marks,
            String progress,
            @Nullable String sent,
            int times,
            String by,
            @Nullable Instant at,
            String evidence,
            long about,
            long atMost,
            Map<String, String> fields,
            Set<String> differ,
            Map<String, String> told) {

        /** The same with one more mark. */
        BenchStep marked(String mark) {
            List<String> more = Stream.concat(marks.stream(), Stream.of(mark)).toList();
            return new BenchStep(
                    place, title, sort, answer, source, more, progress, sent, times, by, at, evidence, about, atMost,
                    fields, differ, told);
        }

        boolean open() {
            return progress.equals("OPEN") || progress.equals("SENT");
        }
    }

    /**
     * A member's dialogue.
     *
     * @param identity what it must show before anything is written
     * @param atPages whether its line has asked everything, or it has none, and pages are left
     * @param cable whether its line is, or can be, a serial port of the browser
     * @param fillsPages whether some of its pages are filled in without a person
     * @param compare what a person read on it; null where it identifies itself
     * @param values of a setup by hand, what can be typed; else none
     */
    public record BenchMember(
            @Nullable Long dialogueId,
            String label,
            String line,
            CableUse cable,
            String settings,
            String state,
            String mode,
            @Nullable HoldView hold,
            String note,
            String prerequisite,
            boolean identified,
            String identity,
            @Nullable Instant openedAt,
            @Nullable Instant endedAt,
            List<BenchStep> steps,
            boolean atPages,
            boolean fillsPages,
            @Nullable BenchComparison compare,
            List<BenchValue> values) {}

    /**
     * A value of the plan that a person can type in a setup by hand.
     *
     * @param name as descriptions call it, such as {@code address}
     * @param text null for a password
     */
    public record BenchValue(String name, String title, @Nullable String text) {

        static BenchValue of(ValueList.PlannedValue value) {
            return new BenchValue(value.name(), value.title(), value.text().orElse(null));
        }
    }

    /** Whether the line of a member is a serial port of the browser in which a person works. */
    public enum CableUse {
        /** Its line leads elsewhere and always does, such as that of a virtual machine. */
        NONE,
        POSSIBLE,
        CHOSEN
    }

    /** What a person read on a machine that does not identify itself; {@code at} is null until then. */
    public record BenchComparison(@Nullable String read, @Nullable String by, @Nullable Instant at) {}

    /**
     * A unit at the bench; {@code runState} is empty where its setup was never begun.
     *
     * @param kind the word for its kind
     * @param byHand whether the setup is not described yet, so that a person does it and Lychnos learns
     * @param fetchesLog whether its kind says how the machine's own log is fetched
     * @param logs those that were fetched, the newest first
     * @param recover how a person at the machine gives it its planned network again; empty where its kind does not say
     * @param window null where the unit has no change window
     * @param servicePort null where its setup is not begun at one
     */
    public record BenchView(
            long unitId,
            String name,
            String kind,
            String kindTitle,
            String position,
            String plug,
            List<String> bring,
            String runState,
            String runNote,
            List<BenchMember> members,
            boolean byHand,
            boolean fetchesLog,
            List<MachineLogs.MachineLogLine> logs,
            String recover,
            @Nullable BenchWindow window,
            @Nullable BenchServicePort servicePort) {}

    /** The address of a service port, its first page, and what a laptop is set to for it. */
    public record BenchServicePort(String address, String page, String laptop) {}

    /** The change window of a unit, and whether it is open now. */
    public record BenchWindow(Instant from, Instant to, boolean open) {}

    @Transactional
    public long bringUpOf(long unitId) {
        return bringUps.unit(unitId).bringUpId;
    }

    @Transactional
    public BenchView view(long unitId) {
        Unit unit = bringUps.unit(unitId);
        Kind kind = kinds.of(unit);
        Optional<Run> run = setups.newest(unitId);
        Map<String, String> told =
                run.map(each -> consoleReader.toldByAll(each.id)).orElse(Map.of());
        Map<String, MemberDialogue> rows = run.map(each -> consoleReader.dialogues(each.id)).orElse(List.of()).stream()
                .collect(Collectors.toMap(row -> row.member, row -> row));
        List<BenchMember> members = new ArrayList<>();
        if (kind.dialogue().isPresent()) {
            answers.of(unit, told)
                    .forEach((label, values) -> members.add(member(kind, label, values, rows.get(label))));
        }
        return new BenchView(
                unitId,
                unit.label(),
                kind.id(),
                kind.title(),
                unit.place(),
                kind.plug(),
                kind.bring(),
                run.map(each -> each.state.name()).orElse(""),
                run.map(each -> each.note).orElse(""),
                members,
                kind.byHand(),
                kind.dialogue().filter(dialogue -> dialogue.log() != null).isPresent(),
                logs.of(unitId),
                kind.setup().recover(),
                windows.of(answers.known(unit))
                        .map(window -> new BenchWindow(window.from(), window.to(), windows.isOpen(window)))
                        .orElse(null),
                ServicePorts.ServicePort.of(kind)
                        .map(port -> new BenchServicePort(
                                port.address().toString(),
                                port.page().toString(),
                                port.laptop().toString()))
                        .orElse(null));
    }

    private BenchMember member(Kind kind, String label, MemberValues values, MemberDialogue row) {
        Dialogue dialogue = kind.dialogue().orElseThrow();
        List<DialogueStep> steps = dialogue.withPages(label, row != null && row.wiped);
        Map<Integer, Object[]> kept = row == null ? Map.of() : kept(row.id);
        List<BenchStep> shown = new ArrayList<>();
        for (int i = 0; i < steps.size(); i++) {
            shown.add(BenchSteps.of(i, steps.get(i), values, kept.get(i)));
        }
        int compares = row != null && Comparisons.needed(kind, row) ? Comparisons.page(kind, steps) : -1;
        if (compares >= 0) {
            shown.set(compares, shown.get(compares).marked("COMPARES"));
        }
        int asked = dialogue.steps(label, row != null && row.wiped).size();
        List<BenchStep> onPages = shown.subList(asked, shown.size()).stream()
                .filter(step -> !step.marks.contains("FIRST"))
                .toList();
        boolean atPages = row != null
                && shown.stream().limit(asked).noneMatch(BenchStep::open)
                && onPages.stream().anyMatch(BenchStep::open);
        boolean fills = onPages.stream().anyMatch(step -> step.open() && step.marks.contains("DRIVEN"));
        String port = values.text("console").or(() -> values.text("line")).orElse("");
        CableUse cable = port.equals(FactType.BROWSER)
                ? CableUse.CHOSEN
                : kind.fact("console").isPresent() ? CableUse.POSSIBLE : CableUse.NONE;
        // what must be shown on the line, or on pages where there is no line
        List<BenchValue> typed = dialogue.byHand()
                ? ValueList.of(kind, values).stream().map(BenchValue::of).toList()
                : List.of();
        boolean line = !dialogue.identify().must().isEmpty() || dialogue.over() == null;
        boolean known = row != null
                && (line
                        ? row.identified
                        : onPages.stream()
                                .anyMatch(step -> step.marks.contains("DRIVEN") && step.progress.equals("DONE")));
        String identity = (line ? dialogue.identify().must() : dialogue.over().must())
                .values().stream()
                        .map(template -> BenchSteps.filled(template, values))
                        .collect(Collectors.joining(", "));
        return row == null
                ? new BenchMember(
                        null,
                        label,
                        portTitle(port),
                        cable,
                        dialogue.line().toString(),
                        "",
                        "",
                        null,
                        "",
                        "",
                        false,
                        identity,
                        null,
                        null,
                        shown,
                        false,
                        fills,
                        null,
                        typed)
                : new BenchMember(
                        row.id,
                        label,
                        row.line,
                        cable,
                        dialogue.line().toString(),
                        row.state.name(),
                        row.mode.name(),
                        HoldView.of(row.hold),
                        row.note,
                        row.prerequisite,
                        known,
                        identity,
                        row.openedAt,
                        row.endedAt,
                        shown,
                        atPages,
                        fills,
                        Comparisons.needed(kind, row)
                                ? new BenchComparison(row.comparedText, row.comparedBy, row.comparedAt)
                                : null,
                        typed);
    }

    private static String portTitle(String port) {
        if (port.equals(FactType.BROWSER)) {
            return ConfigureText.LINE_OF_BROWSER.text();
        }
        return port.isEmpty() ? "" : "port " + port;
    }

    private Map<Integer, Object[]> kept(long dialogueId) {
        Map<Integer, Object[]> kept = new HashMap<>();
        db.createNativeQuery(
                        "select place, progress, answer, times_sent, by_whom, coalesce(done_at, sent_at), evidence "
                                + "from dialogue_step where dialogue_id = :id",
                        Object[].class)
                .setParameter("id", dialogueId)
                .getResultStream()
                .forEach(row -> kept.put((Integer) row[0], row));
        return kept;
    }
}
