package lychnos.server.units;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.persistence.LockModeType;
import jakarta.transaction.Transactional;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import lychnos.core.kind.Kind;
import lychnos.core.kind.KindDifference;
import lychnos.server.api.problem.Refusal;
import lychnos.server.identity.caller.Who;
import lychnos.server.journal.Journal;
import lychnos.server.kinds.KindAdjustments;
import lychnos.server.kinds.Kinds;
import lychnos.server.live.Live;
import lychnos.server.text.PrepareText;
import org.hibernate.Session;

/** Moves units from one version of their kind to another. */
@ApplicationScoped
public class KindMoves {

    private final Session db;
    private final Kinds kinds;
    private final SignedUnits signed;
    private final Journal journal;
    private final Live live;

    KindMoves(Session db, Kinds kinds, SignedUnits signed, Journal journal, Live live) {
        this.db = db;
        this.kinds = kinds;
        this.signed = signed;
        this.journal = journal;
        this.live = live;
    }

    /**
     * A move.
     *
     * @param version of its own kind that the unit is set up with from now on
     * @param reason why, where something was written to the unit already; a lead gives it
     */
    public record KindMove(int version, String reason) {}

    /**
     * A move of every unit of a bring-up that has an earlier version of a kind.
     *
     * @param reason why, for those that something was written to already
     */
    public record KindMoveAll(long bringUpId, int from, int to, String reason) {}

    /** A unit that stays as it is, and why. */
    public record KindStays(String unit, String reason) {}

    /** How many units moved, and which did not. */
    public record KindMoved(int moved, List<KindStays> stay) {}

    @Transactional
    public KindMoved moveAll(String kind, KindMoveAll move, Who.Person person) {
        kinds.version(kind, move.to());
        int moved = 0;
        List<KindStays> stay = new ArrayList<>();
        List<Unit> units = db.createQuery(
                        "from Unit where bringUpId = :bringUp and kind = :kind and kindVersion = :version "
                                + "order by number",
                        Unit.class)
                .setParameter("bringUp", move.bringUpId())
                .setParameter("kind", kind)
                .setParameter("version", move.from())
                .getResultList();
        for (Unit unit : units) {
            try {
                change(unit.id, new KindMove(move.to(), move.reason()), person);
                moved++;
            } catch (Refusal e) {
                stay.add(new KindStays(unit.label(), e.getMessage()));
            }
        }
        return new KindMoved(moved, stay);
    }

    @Transactional
    public void move(long unitId, KindMove move, Who.Person person) {
        change(unitId, move, person);
    }

    private void change(long unitId, KindMove move, Who.Person person) {
        Unit unit = db.find(Unit.class, unitId, LockModeType.PESSIMISTIC_WRITE);
        if (unit == null) {
            throw Refusal.notFound(PrepareText.NO_SUCH_UNIT.said());
        }
        if (unit.kindVersion == move.version()) {
            throw Refusal.conflict(PrepareText.HAS_THIS_VERSION_ALREADY.said(unit.label(), move.version()));
        }
        signed.refuse(List.of(unitId));
        Kind before = kinds.of(unit);
        Kind after = kinds.adjusted(unit.kind, move.version(), unit.bringUpId);
        if (!after.members().counts().contains(unit.members)) {
            throw Refusal.conflict(PrepareText.VERSION_HAS_NO_UNITS_OF_MEMBERS.said(move.version(), unit.members));
        }
        if (exists("select 1 from unit_run where unit_id = :id and ended_at is null and purpose <> 'prove'", unitId)) {
            throw Refusal.conflict(PrepareText.IS_BEING_SET_UP.said(unit.label()));
        }
        if (exists("select 1 from unit_address where unit_id = :id and live", unitId)
                && !KindDifference.sameAddresses(before, after)) {
            throw Refusal.conflict(PrepareText.VERSION_TAKES_OTHER_ADDRESSES.said(move.version(), unit.label()));
        }
        boolean written = exists(
                "select 1 from unit_run where unit_id = :id and purpose <> 'prove' and not earlier and started_at "
                        + "is not null",
                unitId);
        String reason = move.reason() == null ? "" : move.reason().strip();
        if (written && (!person.role().equals("lead") || reason.length() < KindAdjustments.SHORTEST_REASON)) {
            throw Refusal.conflict(
                    PrepareText.WAS_SET_UP_WITH_VERSION.said(
                            unit.label(), unit.kindVersion, KindAdjustments.SHORTEST_REASON),
                    Map.of("prerequisite", true));
        }
        int earlier = unit.kindVersion;
        unit.kindVersion = move.version();
        db.flush();
        journal.write(
                person,
                unit.bringUpId,
                unitId,
                PrepareText.MOVED_TO_VERSION_OF_THE_KIND.text(
                        unit.label(), move.version(), after.title(), (reason.isEmpty() ? "" : ": " + reason)),
                Map.of("version", earlier),
                Map.of("version", move.version()));
        live.tell(unit.bringUpId, "prepare");
    }

    private boolean exists(String query, long unitId) {
        return !db.createNativeQuery(query + " limit 1", Integer.class)
                .setParameter("id", unitId)
                .getResultList()
                .isEmpty();
    }
}
