package lychnos.server.configure.plan;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.persistence.LockModeType;
import jakarta.transaction.Transactional;
import java.time.Clock;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import lychnos.core.dialogue.ControllerPlan;
import lychnos.core.dialogue.DialogueStep;
import lychnos.core.dialogue.DialogueStep.Asked;
import lychnos.core.dialogue.DialogueStep.Mark;
import lychnos.core.dialogue.Hold;
import lychnos.core.dialogue.Mode;
import lychnos.core.fact.Secret;
import lychnos.core.kind.Kind;
import lychnos.core.sheet.MemberValues;
import lychnos.server.api.problem.Refusal;
import lychnos.server.configure.model.ConsoleStore;
import lychnos.server.configure.model.MemberDialogue;
import lychnos.server.identity.caller.Who;
import lychnos.server.journal.Journal;
import lychnos.server.kinds.Kinds;
import lychnos.server.live.Live;
import lychnos.server.text.ConfigureText;
import lychnos.server.units.BringUps;
import lychnos.server.units.Unit;
import org.hibernate.Session;

/** A member of a setup in the hands of a person: steps ticked, passwords shown, a prerequisite overridden. */
@ApplicationScoped
public class MemberSteps {

    private final Session db;
    private final BringUps bringUps;
    private final Kinds kinds;
    private final Answers answers;
    private final ConsoleStore store;
    private final Journal journal;
    private final Live live;
    private final Clock clock;
    private final ChangeWindows windows;

    MemberSteps(
            Session db,
            BringUps bringUps,
            Kinds kinds,
            Answers answers,
            ConsoleStore store,
            Journal journal,
            Live live,
            Clock clock,
            ChangeWindows windows) {
        this.windows = windows;
        this.db = db;
        this.bringUps = bringUps;
        this.kinds = kinds;
        this.answers = answers;
        this.store = store;
        this.journal = journal;
        this.live = live;
        this.clock = clock;
    }

    /** The steps of a member's setup. */
    List<DialogueStep> steps(MemberDialogue row) {
        return kinds.of(bringUps.unit(row.unitId)).dialogue().orElseThrow().withPages(row.member, row.wiped);
    }

    /** Tells the views that something of a member has changed; returns its run. */
    long changed(MemberDialogue row) {
        live.tell(bringUps.unit(row.unitId).bringUpId, "configure");
        return row.runId;
    }

    MemberDialogue locked(long dialogueId) {
        MemberDialogue row = db.find(MemberDialogue.class, dialogueId, LockModeType.PESSIMISTIC_WRITE);
        if (row == null) {
            throw Refusal.notFound(ConfigureText.NO_SUCH_DIALOGUE.said());
        }
        return row;
    }

    /** Refuses a decision that restarts the machine outside of the change window, unless there is a reason. */
    @Transactional
    public void refuseOutsideWindow(long dialogueId, String reason, Who.Person person) {
        MemberDialogue row = db.find(MemberDialogue.class, dialogueId);
        if (row != null && row.hold != null && row.hold.why() == Hold.Why.RESTARTS) {
            Unit unit = bringUps.unit(row.unitId);
            windows.refuse(unit, answers.known(unit), reason, person);
        }
    }

    /** Opens a member's line although its prerequisite does not hold. */
    @Transactional
    public long override(long dialogueId, String reason, Who.Person person) {
        MemberDialogue row = locked(dialogueId);
        if (row.prerequisite.isEmpty()) {
            throw Refusal.conflict(ConfigureText.NO_PREREQUISITE_BLOCKS_IT.said());
        }
        Setups.overridden(reason, person, ConfigureText.LINE_PREREQUISITE.text(row.prerequisite));
        journal.write(
                person,
                bringUps.unit(row.unitId).bringUpId,
                row.unitId,
                ConfigureText.OVERRODE_THE_PREREQUISITE.text(row.member, row.prerequisite, reason.strip()),
                null,
                null);
        row.meetPrerequisite();
        live.tell(bringUps.unit(row.unitId).bringUpId, "configure");
        return row.runId;
    }

    /** The name of the password that a question takes, or the field of a page. */
    private static Optional<String> passwordOf(DialogueStep step, String field, MemberValues values) {
        if (step instanceof DialogueStep.Page page) {
            return Optional.ofNullable(page.fields().get(field)).flatMap(entered -> entered.value().names().stream()
                    .filter(name -> values.secret(name).isPresent())
                    .findFirst());
        }
        if (step instanceof DialogueStep.Controller controller) {
            return Optional.ofNullable(
                    new ControllerPlan(controller, values).passwords().get(field));
        }
        return step instanceof Asked asked && asked.is(Mark.SECRET)
                ? asked.answer().names().stream().findFirst()
                : Optional.empty();
    }

    @Transactional
    public long runOf(long dialogueId) {
        return locked(dialogueId).runId;
    }

    /**
     * Lets the pages of a member be filled in that a person had begun to fill in by hand; gives back whether there are
     * any.
     */
    @Transactional
    public boolean letPagesBeFilledIn(long dialogueId, Mode mode, Who.Person person) {
        MemberDialogue row = locked(dialogueId);
        Unit unit = bringUps.unit(row.unitId);
        if (mode == Mode.WATCH
                || row.state != MemberDialogue.DialogueState.BY_HAND
                || !kinds.of(unit).dialogue().orElseThrow().drivesPages(row.member)) {
            return false;
        }
        row.mode = mode;
        journal.write(
                person,
                unit.bringUpId,
                unit.id,
                ConfigureText.STARTED_FILLING_IN_THE_PAGES.text((row.member.isEmpty() ? "" : ", " + row.member)),
                null,
                null);
        live.tell(unit.bringUpId, "configure");
        return true;
    }

    /**
     * The password that a step sends, for a person's eyes; that it was looked at is kept.
     *
     * @param field of a page, the label of the field that takes it; empty for a question
     */
    @Transactional
    public String password(long dialogueId, int place, String field, Who.Person person) {
        MemberDialogue row = locked(dialogueId);
        Unit unit = bringUps.unit(row.unitId);
        List<DialogueStep> steps = kinds.of(unit).dialogue().orElseThrow().withPages(row.member, row.wiped);
        MemberValues values = answers.of(unit, Map.of()).get(row.member);
        if (place < 0
                || place >= steps.size()
                || passwordOf(steps.get(place), field, values).isEmpty()) {
            throw Refusal.notFound(ConfigureText.STEP_SENDS_NO_PASSWORD.said());
        }
        String name = passwordOf(steps.get(place), field, values).get();
        Secret secret =
                values.secret(name).orElseThrow(() -> Refusal.conflict(ConfigureText.PASSWORD_IS_NOT_KNOWN_YET.said()));
        journal.write(
                person,
                unit.bringUpId,
                unit.id,
                ConfigureText.SHOWED_THE_PASSWORD.text(
                        steps.get(place).title(),
                        (field.isEmpty() ? "" : ", " + field),
                        (row.member.isEmpty() ? "" : ", " + row.member)),
                null,
                null);
        return secret.use(text -> text);
    }

    /** Ticks a step of a member whose line cannot be reached, or takes the tick back. */
    @Transactional
    public long tick(long dialogueId, int place, boolean done, Who.Person person) {
        MemberDialogue row = locked(dialogueId);
        List<DialogueStep> steps = steps(row);
        boolean first = place >= 0
                && place < steps.size()
                && steps.get(place) instanceof DialogueStep.Remote remote
                && remote.first();
        if (!first
                && row.state != MemberDialogue.DialogueState.BY_HAND
                && row.state != MemberDialogue.DialogueState.DONE) {
            throw Refusal.conflict(ConfigureText.MEMBER_IS_ON_A_LINE.said());
        }
        if (fillsItself(row, steps, place)) {
            throw Refusal.conflict(ConfigureText.THAT_PAGE_IS_FILLED_IN_AUTOMATICALLY.said());
        }
        compared(row, steps, place, done);
        if (!store.tick(dialogueId, place, done, person.login())) {
            throw Refusal.conflict(ConfigureText.STEP_WAS_TICKED_AUTOMATICALLY.said());
        }
        if (first) {
            openIfTicked(row, steps);
        } else {
            boolean all = open(dialogueId).isEmpty();
            row.state = all ? MemberDialogue.DialogueState.DONE : MemberDialogue.DialogueState.BY_HAND;
            row.endedAt = all ? clock.instant() : null;
        }
        return changed(row);
    }

    /** The page that asks which machine it is can be ticked once that is recorded; taking the tick back forgets it. */
    private void compared(MemberDialogue row, List<DialogueStep> steps, int place, boolean done) {
        Kind kind = kinds.of(bringUps.unit(row.unitId));
        if (!Comparisons.needed(kind, row) || Comparisons.page(kind, steps) != place) {
            return;
        }
        if (done && row.comparedAt == null) {
            throw Refusal.conflict(ConfigureText.ENTER_THE_SERIAL_NUMBER_THAT_YOU_READ.said());
        }
        if (!done) {
            row.comparedText = null;
            row.comparedBy = null;
            row.comparedAt = null;
        }
    }

    /** Whether a step needs no person: its line has asked everything, and nobody chose to do the rest by hand. */
    private boolean fillsItself(MemberDialogue row, List<DialogueStep> steps, int place) {
        boolean driven = place >= 0
                && place < steps.size()
                && steps.get(place) instanceof DialogueStep.Remote remote
                && remote.driven();
        return driven
                && row.mode != Mode.WATCH
                && open(row.id).stream().allMatch(open -> steps.get(open) instanceof DialogueStep.Remote);
    }

    /** The places of steps that are open. */
    private List<Integer> open(long dialogueId) {
        return db.createNativeQuery(
                        "select place from dialogue_step where dialogue_id = :id and progress in ('OPEN', 'SENT')",
                        Integer.class)
                .setParameter("id", dialogueId)
                .getResultList();
    }

    /** What is done by hand before a line is opened keeps it shut; a line that was opened is not shut again. */
    private void openIfTicked(MemberDialogue row, List<DialogueStep> steps) {
        boolean waits = open(row.id).stream()
                .anyMatch(place -> steps.get(place) instanceof DialogueStep.Remote remote && remote.first());
        if (!waits && row.waitsFor == MemberDialogue.WaitsFor.TICKS) {
            row.meetPrerequisite();
        }
    }
}
