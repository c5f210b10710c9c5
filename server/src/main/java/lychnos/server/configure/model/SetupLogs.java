package lychnos.server.configure.model;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HexFormat;
import java.util.List;
import java.util.stream.Collectors;
import lychnos.core.fact.Secret;
import lychnos.core.learn.SetupLog;
import lychnos.server.api.problem.Refusal;
import lychnos.server.database.Rows;
import lychnos.server.identity.caller.Who;
import lychnos.server.journal.Journal;
import lychnos.server.secrets.SealKeys;
import lychnos.server.secrets.SealedStore;
import lychnos.server.text.ConfigureText;
import lychnos.server.units.Unit;
import org.hibernate.Session;

/**
 * Logs of setups that people do by hand, from which Lychnos learns. Whether something typed is a password is known only
 * then, and the machine may have shown it: both directions are sealed as they come.
 */
@ApplicationScoped
public class SetupLogs {

    /** How long a log is kept after its last piece. */
    public static final Duration KEPT = Duration.ofDays(30);

    private static final int NEWEST = 50;
    private static final int TAIL = 120;
    private static final HexFormat HEX = HexFormat.of();

    private final Session db;
    private final SealedStore sealed;
    private final Journal journal;
    private final Clock clock;

    SetupLogs(Session db, SealedStore sealed, Journal journal, Clock clock) {
        this.db = db;
        this.sealed = sealed;
        this.journal = journal;
        this.clock = clock;
    }

    /** The end of what a machine has shown, and the number of the next piece. */
    public record LogTail(String shown, long next) {}

    /**
     * A setup by hand that can be learnt from.
     *
     * @param member its label; empty for a single machine
     * @param ended whether the person has said that it is done
     */
    public record KeptSetup(long dialogue, long unitId, String unit, String member, Instant at, boolean ended) {}

    /** A piece, and its text as it was sealed. */
    private record SealedPiece(Change.RecordingPiece piece, SealKeys.Box box) {}

    /** Keeps pieces of any number of lines; marks say nothing here. */
    @Transactional
    public void keep(Collection<Change.RecordingPiece> pieces) {
        List<SealedPiece> kept = pieces.stream()
                .filter(piece -> piece.kind() != 'm' && !piece.text().isEmpty())
                .map(piece -> new SealedPiece(piece, sealed.sealText(place(piece), Secret.of(piece.text()))))
                .toList();
        if (!kept.isEmpty()) {
            Rows.of(kept)
                    .column("bigint", each -> each.piece.dialogueId())
                    .column("bigint", each -> each.piece.number())
                    .column("timestamptz", each -> each.piece.at())
                    .column("text", each -> each.piece.kind())
                    .column("text", each -> each.box.keyId())
                    .column("bytea", each -> "\\x" + HEX.formatHex(each.box.nonce()))
                    .column("bytea", each -> "\\x" + HEX.formatHex(each.box.sealed()))
                    .write(
                            db,
                            "insert into setup_piece (dialogue_id, number, at, kind, key_id, nonce, sealed) select * "
                                    + "from %s on conflict do nothing");
        }
    }

    private static String place(Change.RecordingPiece piece) {
        return SealKeys.ofSetupLog(piece.dialogueId(), piece.number());
    }

    /** The end of what a line has shown, for a screen or a server that comes later. */
    LogTail tail(long dialogueId, long from) {
        List<Object[]> rows = rows(
                "select * from (select number, at, kind, key_id, nonce, sealed from setup_piece where dialogue_id = "
                        + ":id and number >= " + from + " order by number desc limit " + TAIL + ") t order by number",
                dialogueId);
        String shown = rows.stream()
                .filter(row -> kind(row) == 'o')
                .map(row -> open(dialogueId, row).<String>use(text -> text))
                .collect(Collectors.joining());
        return new LogTail(shown, rows.isEmpty() ? from : number(rows.get(rows.size() - 1)) + 1);
    }

    /**
     * What happened on a line, with its time since the first piece.
     *
     * @throws Refusal if there is no such log
     */
    @Transactional
    public SetupLog of(long dialogueId) {
        List<Object[]> rows = rows(
                "select number, at, kind, key_id, nonce, sealed from setup_piece where dialogue_id = :id order by "
                        + "number",
                dialogueId);
        if (rows.isEmpty()) {
            throw Refusal.notFound(ConfigureText.NO_SUCH_LOG.said());
        }
        Instant begin = (Instant) rows.get(0)[1];
        List<SetupLog.Piece> pieces = new ArrayList<>();
        for (Object[] row : rows) {
            Duration at = Duration.between(begin, (Instant) row[1]);
            Secret text = open(dialogueId, row);
            pieces.add(
                    kind(row) == 'i' ? new SetupLog.Typed(at, text) : new SetupLog.Shown(at, text.use(shown -> shown)));
        }
        return SetupLog.of(pieces);
    }

    private List<Object[]> rows(String sql, long dialogueId) {
        return db.createNativeQuery(sql, Object[].class)
                .setParameter("id", dialogueId)
                .setMaxResults(SetupLog.MOST_PIECES + 1)
                .getResultList();
    }

    private static long number(Object[] row) {
        return ((Number) row[0]).longValue();
    }

    private static char kind(Object[] row) {
        return row[2].toString().charAt(0);
    }

    private Secret open(long dialogueId, Object[] row) {
        return sealed.openText(
                SealKeys.ofSetupLog(dialogueId, number(row)), (String) row[3], (byte[]) row[4], (byte[]) row[5]);
    }

    /** Those of a kind, the newest first. */
    @Transactional
    public List<KeptSetup> ofKind(String kind) {
        List<Long> logged = db.createNativeQuery(
                        "select distinct dialogue_id from setup_piece order by dialogue_id desc", Long.class)
                .getResultList();
        return db.createQuery(
                        "select d, u from MemberDialogue d join Unit u on u.id = d.unitId where u.kind = :kind and "
                                + "d.id in (:logged) order by d.id desc",
                        Object[].class)
                .setParameter("kind", kind)
                .setParameter("logged", logged)
                .setMaxResults(NEWEST)
                .getResultStream()
                .map(row -> kept((MemberDialogue) row[0], (Unit) row[1]))
                .toList();
    }

    private static KeptSetup kept(MemberDialogue dialogue, Unit unit) {
        return new KeptSetup(
                dialogue.id,
                unit.id,
                unit.label(),
                dialogue.member,
                dialogue.openedAt,
                dialogue.state == MemberDialogue.DialogueState.DONE);
    }

    /**
     * The setup of a log.
     *
     * @throws Refusal if there is no such dialogue
     */
    @Transactional
    public KeptSetup setup(long dialogueId) {
        MemberDialogue dialogue = db.find(MemberDialogue.class, dialogueId);
        if (dialogue == null) {
            throw Refusal.notFound(ConfigureText.NO_SUCH_LOG.said());
        }
        return kept(dialogue, db.find(Unit.class, dialogue.unitId));
    }

    /**
     * Deletes a log.
     *
     * @throws Refusal if there is none
     */
    @Transactional
    public void delete(long dialogueId, Who.Person person) {
        int deleted = db.createNativeMutationQuery("delete from setup_piece where dialogue_id = :id")
                .setParameter("id", dialogueId)
                .executeUpdate();
        if (deleted == 0) {
            throw Refusal.notFound(ConfigureText.NO_SUCH_LOG.said());
        }
        Unit unit = db.find(Unit.class, db.find(MemberDialogue.class, dialogueId).unitId);
        journal.write(person, unit.bringUpId, unit.id, ConfigureText.DELETED_THE_LOG_OF_A_SETUP.text(), null, null);
    }

    /** Deletes the logs that nothing was added to for {@link #KEPT}, whether or not their setups came to an end. */
    @Transactional
    public void deleteOld() {
        db.createNativeMutationQuery(
                        "delete from setup_piece where dialogue_id in (select dialogue_id from setup_piece group by "
                                + "dialogue_id having max(at) < :until)")
                .setParameter("until", clock.instant().minus(KEPT))
                .executeUpdate();
    }
}
