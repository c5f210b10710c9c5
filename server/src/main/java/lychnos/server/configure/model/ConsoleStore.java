package lychnos.server.configure.model;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.persistence.LockModeType;
import jakarta.transaction.Transactional;
import java.time.Clock;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import lychnos.core.dialogue.Conversation;
import lychnos.core.dialogue.DialogueStep;
import lychnos.core.dialogue.Mode;
import lychnos.core.order.RunState;
import lychnos.server.database.Rows;
import lychnos.server.jobs.CheckQueue;
import lychnos.server.jobs.Held;
import lychnos.server.jobs.HoldLost;
import lychnos.server.jobs.Run;
import lychnos.server.journal.Journal;
import lychnos.server.live.Live;
import lychnos.server.secrets.SealedStore;
import lychnos.server.text.ConfigureText;
import org.hibernate.Session;

/**
 * What PostgreSQL keeps of dialogues. Everything is written under the fence of the unit's run: who has lost it writes
 * nothing.
 */
@ApplicationScoped
public class ConsoleStore {

    public static final String CONSOLE = "console";

    public static final String LOST = ConfigureText.ANOTHER_SERVER_HAS_THIS_UNIT.text();

    private static final int MOST_TOLD = 400;

    private final Session db;
    private final ConsoleReader reader;
    private final StepWriter writer;
    private final SealedStore sealed;
    private final AnswerKeeping answered;
    private final MachineLogs logs;
    private final CheckQueue checks;
    private final Journal journal;
    private final Live live;
    private final Clock clock;

    ConsoleStore(
            Session db,
            ConsoleReader reader,
            StepWriter writer,
            SealedStore sealed,
            AnswerKeeping answered,
            MachineLogs logs,
            CheckQueue checks,
            Journal journal,
            Live live,
            Clock clock) {
        this.db = db;
        this.reader = reader;
        this.writer = writer;
        this.sealed = sealed;
        this.answered = answered;
        this.logs = logs;
        this.checks = checks;
        this.journal = journal;
        this.live = live;
        this.clock = clock;
    }

    private Run under(Held held) throws HoldLost {
        Run run = db.find(Run.class, held.runId(), LockModeType.PESSIMISTIC_WRITE);
        db.refresh(run);
        if (run.fence != held.fence() || run.state != RunState.RUNNING) {
            throw new HoldLost(LOST);
        }
        return run;
    }

    // --- writing ---

    /** Writes the steps of a new plan; those that were there already keep what is known of them. */
    @Transactional
    public void plan(long dialogueId, List<DialogueStep> steps) {
        db.createNativeMutationQuery("delete from dialogue_step where dialogue_id = :id")
                .setParameter("id", dialogueId)
                .executeUpdate();
        Rows.of(numbered(steps))
                .column("integer", Numbered::place)
                .column("text", each -> each.step().title())
                .write(
                        db,
                        "insert into dialogue_step (dialogue_id, place, title, progress) select " + dialogueId
                                + ", place, title, 'OPEN' from %s as given (place, title)");
    }

    private record Numbered(int place, DialogueStep step) {}

    private static List<Numbered> numbered(List<DialogueStep> steps) {
        List<Numbered> numbered = new ArrayList<>();
        for (DialogueStep step : steps) {
            numbered.add(new Numbered(numbered.size(), step));
        }
        return numbered;
    }

    /** Keeps a change and what of the recording belongs to it, all of it or nothing. */
    @Transactional(rollbackOn = HoldLost.class)
    public void save(StepWriter.Step step) throws HoldLost {
        if (step.change().steps() != null) {
            plan(step.change().dialogueId(), step.change().steps());
        }
        if (!saveAll(List.of(step)).get(0)) {
            throw new HoldLost(LOST);
        }
    }

    /**
     * Keeps changes of several lines that need no new plan, all of them or none; gives back for each whether its unit
     * is still ours.
     */
    @Transactional
    public List<Boolean> saveAll(List<StepWriter.Step> steps) {
        List<Boolean> ours = writer.write(steps);
        List<StepWriter.Step> kept = IntStream.range(0, steps.size())
                .filter(ours::get)
                .mapToObj(steps::get)
                .toList();
        writer.stretches(kept.stream()
                .map(StepWriter.Step::change)
                .filter(change -> change.stretch() != null)
                .toList());
        kept.forEach(step -> more(step.held(), step.change()));
        return ours;
    }

    /** Whether the unit of a dialogue is being set up, by whichever server. */
    @Transactional
    public boolean under(long dialogueId) {
        return db.createQuery(
                                "select count(r) from MemberDialogue d join Run r on r.id = d.runId where d.id = :id "
                                        + "and r.state = RUNNING",
                                Long.class)
                        .setParameter("id", dialogueId)
                        .getSingleResult()
                > 0;
    }

    /** A step that a vantage has handed in before, and that was kept then. */
    public static final class KeptBefore extends RuntimeException {}

    private void more(Held held, Change change) {
        if (change.handed() > 0
                && db.createNativeMutationQuery(
                                        "update dialogue set handed_in = :number where id = :id and handed_in < "
                                                + ":number")
                                .setParameter("number", change.handed())
                                .setParameter("id", change.dialogueId())
                                .executeUpdate()
                        == 0) {
            throw new KeptBefore();
        }
        answered.keep(held, change);
        if (!change.told().isEmpty()) {
            Rows.of(List.copyOf(change.told().entrySet()))
                    .column("text", Map.Entry::getKey)
                    .column(
                            "text",
                            told -> told.getValue().length() > MOST_TOLD
                                    ? told.getValue().substring(0, MOST_TOLD)
                                    : told.getValue())
                    .write(
                            db,
                            "insert into dialogue_value (dialogue_id, name, value, at) select " + change.dialogueId()
                                    + ", name, value, now() from %s as told (name, value)"
                                    + " on conflict (dialogue_id, name) do update set value = excluded.value, at = "
                                    + "excluded.at");
        }
        if (!change.log().isEmpty()) {
            logs.keep(held, change);
        }
        if (change.stands().state() == Conversation.State.DONE) {
            ended(held, change.dialogueId());
        }
    }

    /**
     * The line has asked everything, or the pages are filled in; there may be pages left. One that stands by has none.
     */
    private void ended(Held held, long dialogueId) {
        MemberDialogue dialogue = db.find(MemberDialogue.class, dialogueId);
        db.refresh(dialogue);
        if (standsBy(dialogue)) {
            db.createNativeMutationQuery(
                            "update dialogue_step set progress = 'LEFT_OUT' where dialogue_id = :id and progress = "
                                    + "'OPEN'")
                    .setParameter("id", dialogueId)
                    .executeUpdate();
        }
        if (open(dialogueId)) {
            dialogue.state = MemberDialogue.DialogueState.BY_HAND;
            dialogue.endedAt = null;
        } else {
            journal.writeWork(held.bringUpId(), held.unitId(), "set up" + of(dialogue.member));
        }
    }

    /** Whether a member with a line ended without ever having been taken for the one that is set up. */
    private static boolean standsBy(MemberDialogue dialogue) {
        return !dialogue.identified && !dialogue.line.isEmpty();
    }

    /** Leaves the rest of a member's pages to a person. */
    @Transactional(rollbackOn = HoldLost.class)
    public void byHand(Held held, long dialogueId) throws HoldLost {
        under(held);
        MemberDialogue dialogue = db.find(MemberDialogue.class, dialogueId);
        dialogue.state = MemberDialogue.DialogueState.BY_HAND;
        dialogue.mode = Mode.WATCH;
        dialogue.hold = null;
        dialogue.note = "";
        live.tell(held.bringUpId(), "configure");
    }

    /** Records that a person consents to a step of a member, and why. */
    @Transactional(rollbackOn = HoldLost.class)
    public void consented(Held held, long dialogueId, String login, String title, String reason) throws HoldLost {
        under(held);
        String member = db.find(MemberDialogue.class, dialogueId).member;
        journal.writeWork(
                held.bringUpId(), held.unitId(), ConfigureText.CONSENTED.text(login, title, of(member), reason));
    }

    /** Whether a unit's password of this name has logged in, and no newer one waits for that. */
    @Transactional
    public boolean proven(long unitId, String name) {
        return sealed.open(unitId, name, SealedStore.SealedState.MADE).isEmpty()
                && sealed.open(unitId, name, SealedStore.SealedState.PROVEN).isPresent();
    }

    /** Opens the pages again that a member's setup ended without. Part of the caller's transaction. */
    public void takeUpLeft(long dialogueId) {
        MemberDialogue dialogue = db.find(MemberDialogue.class, dialogueId);
        dialogue.state = MemberDialogue.DialogueState.FOLLOWING;
        dialogue.endedAt = null;
        db.createNativeMutationQuery(
                        "update dialogue_step set progress = 'OPEN' where dialogue_id = :id and progress = 'LATER'")
                .setParameter("id", dialogueId)
                .executeUpdate();
    }

    private boolean open(long dialogueId) {
        return db.createNativeQuery(
                                "select count(*) from dialogue_step where dialogue_id = :id and progress = 'OPEN'",
                                Long.class)
                        .setParameter("id", dialogueId)
                        .getSingleResult()
                > 0;
    }

    static String of(String member) {
        return member.isEmpty() ? "" : ", " + member;
    }

    /**
     * Keeps pieces of recordings, of any number of lines, and tells of bring-ups in which steps were kept meanwhile.
     */
    @Transactional
    public void keep(Collection<Change.RecordingPiece> pieces, Collection<Long> changed) {
        changed.forEach(bringUp -> live.tell(bringUp, "configure"));
        if (!pieces.isEmpty()) {
            Rows.of(List.copyOf(pieces))
                    .column("bigint", Change.RecordingPiece::dialogueId)
                    .column("bigint", Change.RecordingPiece::number)
                    .column("timestamptz", Change.RecordingPiece::at)
                    .column("text", Change.RecordingPiece::kind)
                    .column("text", Change.RecordingPiece::storable)
                    .write(
                            db,
                            "insert into line_piece (dialogue_id, number, at, kind, text) select * from %s on "
                                    + "conflict do nothing");
        }
    }

    /** Says that lines of a unit are opened, or that a person does by hand what belongs to them. */
    @Transactional(rollbackOn = HoldLost.class)
    public void opened(Held held, Collection<Long> dialogueIds, boolean byHand) throws HoldLost {
        under(held);
        for (MemberDialogue dialogue : db.createQuery("from MemberDialogue where id in (:ids)", MemberDialogue.class)
                .setParameter("ids", dialogueIds)
                .getResultList()) {
            dialogue.state = byHand ? MemberDialogue.DialogueState.BY_HAND : MemberDialogue.DialogueState.UNSURE;
            dialogue.meetPrerequisite();
            dialogue.openedAt = dialogue.openedAt == null ? clock.instant() : dialogue.openedAt;
        }
        live.tell(held.bringUpId(), "configure");
    }

    /**
     * Opens the prerequisite of each member that stands behind one that is done; ends the unit's setup once every
     * member is, and gives back whether it is.
     */
    @Transactional(rollbackOn = HoldLost.class)
    public boolean endOrMeetPrerequisites(Held held) throws HoldLost {
        Run run = under(held);
        boolean beforeIsDone = true;
        boolean allDone = true;
        for (MemberDialogue dialogue : reader.dialogues(run.id)) {
            if (beforeIsDone && dialogue.waitsFor != MemberDialogue.WaitsFor.TICKS) {
                dialogue.meetPrerequisite();
            }
            beforeIsDone = dialogue.state == MemberDialogue.DialogueState.DONE;
            allDone &= beforeIsDone;
        }
        if (allDone) {
            run.become(RunState.DONE, clock.instant());
            run.note = "Set up.";
            // whether it is proven is looked at right away
            checks.askAfterSetup(held.unitId());
        }
        live.tell(held.bringUpId(), "configure");
        return allDone;
    }

    /** Whether nothing is left to do for any member of a setup. */
    @Transactional
    public boolean everyMemberIsDone(long runId) {
        List<MemberDialogue> members = reader.dialogues(runId);
        return !members.isEmpty() && members.stream().allMatch(each -> each.state == MemberDialogue.DialogueState.DONE);
    }

    /**
     * Ticks a step that was done by hand, or takes the tick back.
     *
     * @return false if the step is done already, and not by hand
     */
    public boolean tick(long dialogueId, int place, boolean done, String login) {
        return db.createNativeMutationQuery(
                                "update dialogue_step set progress = :progress, by_whom = :by, done_at = cast(cast(:at "
                                        + "as text) as timestamptz), evidence = :evidence, ticked = :ticked where "
                                        + "dialogue_id = :id and place = :place and (progress in ('OPEN', 'SENT') or "
                                        + "ticked)")
                        .setParameter("progress", done ? "DONE" : "OPEN")
                        .setParameter("by", done ? login : "")
                        .setParameter("at", done ? clock.instant().toString() : null)
                        .setParameter("evidence", done ? "ticked by hand" : "")
                        .setParameter("ticked", done)
                        .setParameter("id", dialogueId)
                        .setParameter("place", place)
                        .executeUpdate()
                > 0;
    }

    /**
     * The machine was replaced: what was done on its line belongs to an earlier one.
     *
     * @param member its label; empty for all of the unit
     */
    public void replaced(long unitId, String member) {
        db.createMutationQuery(
                        "update MemberDialogue set earlier = true where unitId = :unit and (:whole = true or member "
                                + "= :member)")
                .setParameter("unit", unitId)
                .setParameter("whole", member.isEmpty())
                .setParameter("member", member)
                .executeUpdate();
    }
}
