package lychnos.server.configure.model;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import lychnos.core.dialogue.Conversation;
import lychnos.core.dialogue.Conversation.Progress;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.order.RunState;
import lychnos.core.sheet.MemberValues;
import lychnos.server.database.ReadsOnly;
import lychnos.server.jobs.Run;
import org.hibernate.Session;

/** Reads what PostgreSQL keeps of dialogues. */
@ApplicationScoped
public class ConsoleReader {

    private final Session db;
    private final SetupLogs logs;

    ConsoleReader(Session db, SetupLogs logs) {
        this.db = db;
        this.logs = logs;
    }

    /** A member's dialogue as it was left. */
    public record KeptDialogue(
            MemberDialogue dialogue,
            List<Progress> progress,
            Map<String, String> told,
            String shown,
            String tail,
            long pieces) {

        /** The conversation, taken up where it was left. */
        public Conversation takenUp(Dialogue description, MemberValues values, Instant now) {
            Conversation conversation = new Conversation(description, dialogue.member, values, dialogue.mode, now);
            boolean begun = dialogue.wiped
                    || progress.stream().anyMatch(each -> each == Progress.SENT || each == Progress.DONE);
            if (begun || dialogue.identified) {
                conversation.resume(
                        new Conversation.Left(dialogue.wiped, dialogue.identified, progress, told, shown), now);
            }
            if (dialogue.state == MemberDialogue.DialogueState.STOPPED) {
                conversation.halt();
            }
            return conversation;
        }
    }

    @Transactional
    public List<KeptDialogue> load(long runId) {
        List<KeptDialogue> kept = new ArrayList<>();
        Map<Long, List<Progress>> steps = new HashMap<>();
        db.createNativeQuery(
                        "select s.dialogue_id, s.progress from dialogue_step s join dialogue d on d.id = "
                                + "s.dialogue_id where d.run_id = :run order by s.dialogue_id, s.place",
                        Object[].class)
                .setParameter("run", runId)
                .getResultStream()
                .forEach(row -> steps.computeIfAbsent((Long) row[0], id -> new ArrayList<>())
                        .add(Progress.valueOf((String) row[1])));
        for (MemberDialogue dialogue : dialogues(runId)) {
            List<Progress> progress = steps.getOrDefault(dialogue.id, List.of());
            if (dialogue.openedAt == null) {
                kept.add(new KeptDialogue(dialogue, progress, Map.of(), "", "", 0)); // nothing was ever said on it
                continue;
            }
            // a mark is written at each answer: what came behind the last one is what the line has shown since
            String shown = text(
                    "select text from line_piece where dialogue_id = :id and kind = 'o' and number >"
                            + " coalesce((select max(number) from line_piece where dialogue_id = :id and kind = "
                            + "'m'), -1) order by number",
                    dialogue.id);
            String tail = text(
                    "select text from (select number, text from line_piece where dialogue_id = :id and kind = 'o' "
                            + "order by number desc limit 60) t order by number",
                    dialogue.id);
            long pieces = db.createNativeQuery(
                            "select coalesce(max(number) + 1, 0) from line_piece where dialogue_id = :id", Long.class)
                    .setParameter("id", dialogue.id)
                    .getSingleResult();
            if (pieces == 0) {
                SetupLogs.LogTail byHand = logs.tail(dialogue.id, 0);
                tail = byHand.shown();
                pieces = byHand.next();
            }
            kept.add(new KeptDialogue(dialogue, progress, told(dialogue.id), shown, tail, pieces));
        }
        return kept;
    }

    private String text(String sql, long id) {
        return String.join(
                "",
                db.createNativeQuery(sql, String.class).setParameter("id", id).getResultList());
    }

    /** How many members a unit under way has. */
    @Transactional
    public long members(long runId) {
        return db.createQuery("select count(*) from MemberDialogue where runId = :id", Long.class)
                .setParameter("id", runId)
                .getSingleResult();
    }

    public List<MemberDialogue> dialogues(long runId) {
        return db.createQuery("from MemberDialogue where runId = :id order by place", MemberDialogue.class)
                .setParameter("id", runId)
                .getResultList();
    }

    private Map<String, String> told(long dialogueId) {
        Map<String, String> told = new LinkedHashMap<>();
        db.createNativeQuery("select name, value from dialogue_value where dialogue_id = :id", Object[].class)
                .setParameter("id", dialogueId)
                .getResultStream()
                .forEach(row -> told.put((String) row[0], (String) row[1]));
        return told;
    }

    /** What all members' lines have told: {@code left.code}. */
    @Transactional
    public Map<String, String> toldByAll(long runId) {
        Map<String, String> all = new HashMap<>();
        for (MemberDialogue dialogue : dialogues(runId)) {
            told(dialogue.id).forEach((name, value) -> all.put(dialogue.member.replace(' ', '-') + "." + name, value));
        }
        return all;
    }

    /** What is kept of a line that another server holds: {@code shown} since a piece of its recording. */
    public record FarDialogue(
            String state,
            String mode,
            HoldView hold,
            boolean identified,
            List<String> progress,
            String shown,
            long next) {}

    /**
     * A dialogue whose line is open on some server.
     *
     * @param from the first piece of the recording that is wanted; of a long one only the end is given
     */
    @Transactional
    @ReadsOnly
    public Optional<FarDialogue> far(long dialogueId, long from) {
        MemberDialogue dialogue = db.find(MemberDialogue.class, dialogueId);
        Run run = dialogue == null ? null : db.find(Run.class, dialogue.runId);
        if (run == null
                || run.state != RunState.RUNNING
                || dialogue.openedAt == null
                || dialogue.state == MemberDialogue.DialogueState.BY_HAND) {
            return Optional.empty();
        }
        List<Object[]> pieces = db.createNativeQuery(
                        "select number, text from line_piece where dialogue_id = :id and kind = 'o' and number >= "
                                + ":from order by number desc limit 200",
                        Object[].class)
                .setParameter("id", dialogueId)
                .setParameter("from", from)
                .getResultList();
        StringBuilder shown = new StringBuilder();
        for (int i = pieces.size() - 1; i >= 0; i--) {
            shown.append(pieces.get(i)[1]);
        }
        List<String> progress = db.createNativeQuery(
                        "select progress from dialogue_step where dialogue_id = :id order by place", String.class)
                .setParameter("id", dialogueId)
                .getResultList();
        long next = pieces.isEmpty() ? from : ((Number) pieces.get(0)[0]).longValue() + 1;
        if (pieces.isEmpty() && dialogue.state == MemberDialogue.DialogueState.MANUAL) {
            SetupLogs.LogTail byHand = logs.tail(dialogueId, from);
            shown.append(byHand.shown());
            next = byHand.next();
        }
        return Optional.of(new FarDialogue(
                dialogue.state.name(),
                dialogue.mode.name(),
                HoldView.of(dialogue.hold),
                dialogue.identified,
                progress,
                shown.toString(),
                next));
    }
}
