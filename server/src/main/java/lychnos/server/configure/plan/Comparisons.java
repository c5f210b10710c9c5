package lychnos.server.configure.plan;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.time.Clock;
import java.util.List;
import java.util.Optional;
import lychnos.core.dialogue.DialogueStep;
import lychnos.core.fact.FactSpec;
import lychnos.core.fact.FactType;
import lychnos.core.fact.Mac;
import lychnos.core.kind.Kind;
import lychnos.core.sheet.MemberValues;
import lychnos.server.api.problem.Refusal;
import lychnos.server.api.problem.Refusal.FieldFault;
import lychnos.server.configure.model.ConsoleReader;
import lychnos.server.configure.model.MemberDialogue;
import lychnos.server.identity.caller.Who;
import lychnos.server.journal.Journal;
import lychnos.server.kinds.Kinds;
import lychnos.server.text.ConfigureText;
import lychnos.server.units.BringUps;
import lychnos.server.units.Unit;
import org.hibernate.Session;

/**
 * Which machine it is, where no machine tells it: a person reads the serial number or the MAC address on it and enters
 * it, and it is compared with the label. Without such a comparison the identity of the machine is not measured.
 */
@ApplicationScoped
public class Comparisons {

    private static final int LONGEST = 120;

    private final Session db;
    private final MemberSteps memberSteps;
    private final BringUps bringUps;
    private final Kinds kinds;
    private final Answers answers;
    private final ConsoleReader consoleReader;
    private final Journal journal;
    private final Clock clock;

    Comparisons(
            Session db,
            MemberSteps memberSteps,
            BringUps bringUps,
            Kinds kinds,
            Answers answers,
            ConsoleReader consoleReader,
            Journal journal,
            Clock clock) {
        this.db = db;
        this.memberSteps = memberSteps;
        this.bringUps = bringUps;
        this.kinds = kinds;
        this.answers = answers;
        this.consoleReader = consoleReader;
        this.journal = journal;
        this.clock = clock;
    }

    /** Whether a member is set up without a line and without an interface that says which machine it is. */
    public static boolean needed(Kind kind, MemberDialogue row) {
        return row.line.isEmpty()
                && kind.dialogue()
                        .map(dialogue -> !dialogue.drivesPages(row.member))
                        .orElse(false);
    }

    /** The place of the page at which the label is compared, or -1 where no page asks for it. */
    public static int page(Kind kind, List<DialogueStep> steps) {
        for (int place = 0; place < steps.size(); place++) {
            if (steps.get(place) instanceof DialogueStep.Page page
                    && page.fields().values().stream()
                            .flatMap(field -> field.value().names().stream())
                            .anyMatch(name -> kind.facts().stream()
                                    .anyMatch(fact -> fact.name().equals(name) && onLabel(fact)))) {
                return place;
            }
        }
        return -1;
    }

    private static boolean onLabel(FactSpec fact) {
        return fact.type() == FactType.SERIAL || fact.type() == FactType.MAC;
    }

    /**
     * Records what a person read on the machine, and ticks the page that asks for it.
     *
     * @return the run
     * @throws Refusal 400 if it is not what the label says; nothing is recorded then
     */
    @Transactional
    public long record(long dialogueId, String read, Who.Person person) {
        MemberDialogue row = memberSteps.locked(dialogueId);
        Unit unit = bringUps.unit(row.unitId);
        Kind kind = kinds.of(unit);
        if (!needed(kind, row)) {
            throw Refusal.conflict(ConfigureText.MACHINE_IDENTIFIES_ITSELF.said());
        }
        String text = read == null ? "" : read.strip();
        MemberValues values =
                answers.of(unit, consoleReader.toldByAll(row.runId)).get(row.member);
        List<String> label = label(kind, values);
        if (label.isEmpty()) {
            throw Refusal.conflict(ConfigureText.NO_SERIAL_NUMBER_AND_NO_MAC_ADDRESS.said());
        }
        if (text.isEmpty() || text.length() > LONGEST) {
            throw fault(ConfigureText.ENTER_THE_SERIAL_NUMBER_OR_THE_MAC_ADDRESS.text());
        }
        if (label.stream().noneMatch(each -> same(each, text))) {
            throw fault(ConfigureText.READING_DIFFERS_FROM_THE_LABEL.text(text, String.join(" and ", label)));
        }
        row.comparedText = text;
        row.comparedBy = person.login();
        row.comparedAt = clock.instant();
        journal.write(
                person,
                unit.bringUpId,
                unit.id,
                ConfigureText.COMPARED_THE_MACHINE_WITH_ITS_LABEL.text(text),
                null,
                null);
        int page = page(kind, memberSteps.steps(row));
        return page < 0 || row.state != MemberDialogue.DialogueState.BY_HAND
                ? memberSteps.changed(row)
                : memberSteps.tick(dialogueId, page, true, person);
    }

    /**
     * The dialogue of the member that has an address, where its setup has ended and what is written on the
     * machine is not recorded yet; for an address that members share, of any member.
     */
    public Optional<Long> missing(Unit unit, String role) {
        Kind kind = kinds.of(unit);
        List<MemberDialogue> open = db.createQuery(
                        "select d from MemberDialogue d join Run r on r.id = d.runId where d.unitId = :unit and "
                                + "r.earlier = false and d.earlier = false and d.state = DONE and "
                                + "d.comparedAt is null order by r.id desc, d.place",
                        MemberDialogue.class)
                .setParameter("unit", unit.id)
                .getResultStream()
                .filter(row -> needed(kind, row))
                .toList();
        return open.stream()
                .filter(row -> row.member.isEmpty() || role.equals(row.member) || role.startsWith(row.member + " "))
                .findFirst()
                .or(() -> open.stream().findFirst())
                .map(row -> row.id);
    }

    private static List<String> label(Kind kind, MemberValues values) {
        return kind.facts().stream()
                .filter(Comparisons::onLabel)
                .flatMap(fact -> values.text(fact.name()).stream())
                .toList();
    }

    private static boolean same(String label, String read) {
        try {
            return Mac.parse(label).equals(Mac.parse(read));
        } catch (IllegalArgumentException e) {
            return label.equalsIgnoreCase(read);
        }
    }

    private static Refusal fault(String reason) {
        return Refusal.fields(List.of(new FieldFault("read", reason)));
    }
}
