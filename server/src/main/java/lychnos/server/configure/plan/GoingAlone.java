package lychnos.server.configure.plan;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import lychnos.core.order.FirstAlone;
import lychnos.core.order.FirstAlone.Stage;
import lychnos.core.order.RoundOrder.Hold;
import lychnos.core.order.RunState;
import lychnos.server.configure.model.MemberDialogue;
import lychnos.server.jobs.Run;
import lychnos.server.kinds.Kinds;
import lychnos.server.text.ConfigureText;
import lychnos.server.units.Unit;
import org.hibernate.Session;

/** The first of each kind, which goes alone until it is proven; who waits for it, and why. */
@ApplicationScoped
public class GoingAlone {

    private final Session db;
    private final Kinds kinds;

    GoingAlone(Session db, Kinds kinds) {
        this.db = db;
        this.kinds = kinds;
    }

    /** A unit that was begun on a console. */
    record Other(long unitId, String label, Stage stage) {}

    /**
     * What was begun on consoles of a bring-up.
     *
     * @param underWay units
     * @param ofKind by kind, the units that were begun, in their order
     */
    public record Begun(Set<Long> underWay, Map<String, List<Other>> ofKind) {

        private Begun() {
            this(new HashSet<>(), new HashMap<>());
        }

        void add(String kind, Other other) {
            ofKind.computeIfAbsent(kind, none -> new ArrayList<>()).add(other);
        }

        /** Why another unit of a kind must wait, and for which unit; nothing if it may begin. */
        public Optional<Waits> waits(String kind) {
            return waits(ofKind.getOrDefault(kind, List.of()));
        }

        /** The same for this unit, which may have been set up before. */
        Optional<Waits> waits(Unit unit) {
            return waits(ofKind.getOrDefault(unit.kind, List.of()).stream()
                    .filter(other -> other.unitId != unit.id)
                    .toList());
        }

        private static Optional<Waits> waits(List<Other> others) {
            Hold hold = FirstAlone.decide(others.stream().map(Other::stage).toList());
            return others.stream()
                    .filter(other -> hold != Hold.NONE && (hold != Hold.SURPRISE || other.stage == Stage.SURPRISE))
                    .findFirst()
                    .map(other -> new Waits(hold, other.label));
        }
    }

    /** Why units of a kind wait. */
    record Waits(Hold why, String unit) {

        String sentence() {
            return why == Hold.SURPRISE
                    ? ConfigureText.ANOTHER_OF_THE_KIND_NEEDS_A_LOOK.text(unit)
                    : ConfigureText.FIRST_UNIT_OF_EACH_KIND_IS_SET_UP.text(unit);
        }
    }

    public Begun begun(long bringUpId) {
        Begun begun = new Begun();
        List<Object[]> runs = db.createQuery(
                        "select r, u from Run r join Unit u on u.id = r.unitId where u.bringUpId = :bringUp and "
                                + "r.purpose = 'console' and r.earlier = false and r.state <> CANCELLED order by r.id",
                        Object[].class)
                .setParameter("bringUp", bringUpId)
                .getResultList();
        if (runs.isEmpty()) {
            return begun;
        }
        Set<Long> proven = proven(bringUpId);
        Set<Long> surprised = surprised(bringUpId);
        for (Object[] row : runs) {
            Run run = (Run) row[0];
            Unit unit = (Unit) row[1];
            boolean done = run.state == RunState.DONE;
            if (!done) {
                begun.underWay.add(unit.id);
            }
            Stage set = proven.contains(unit.id) ? Stage.PROVEN : Stage.SET_UP;
            Stage working = surprised.contains(run.id) ? Stage.SURPRISE : Stage.UNDER_WAY;
            // what a person does by hand holds no other unit back, and proves no dialogue
            if (!kinds.of(unit).byHand()) {
                begun.add(unit.kind, new Other(unit.id, unit.label(), done ? set : working));
            }
        }
        return begun;
    }

    /** Units whose endpoints have all been checked and of which no rung fails. A missing name holds no other back. */
    private Set<Long> proven(long bringUpId) {
        return new HashSet<>(db.createNativeQuery(
                        "select c.unit_id from claim c join unit u on u.id = c.unit_id left join checked_address p on "
                                + "p.claim_id = c.id where u.bring_up_id = :bringUp and u.retired_at is null and "
                                + "c.released_at is null group by c.unit_id having bool_and(coalesce(p.holds, false))",
                        Long.class)
                .setParameter("bringUp", bringUpId)
                .getResultList());
    }

    /** Runs of which a member shows something that nobody foresaw. */
    private Set<Long> surprised(long bringUpId) {
        return db.createQuery(
                        "select d from MemberDialogue d join Unit u on u.id = d.unitId where u.bringUpId = :bringUp "
                                + "and d.state = HELD",
                        MemberDialogue.class)
                .setParameter("bringUp", bringUpId)
                .getResultStream()
                .filter(row -> row.hold != null && row.hold.why().surprise())
                .map(row -> row.runId)
                .collect(Collectors.toSet());
    }

    /** By kind of which no other unit may begin yet, the unit that the others wait for. */
    @Transactional
    public Map<String, String> goingAlone(long bringUpId) {
        Begun begun = begun(bringUpId);
        Map<String, String> alone = new HashMap<>();
        begun.ofKind.keySet().forEach(kind -> begun.waits(kind).ifPresent(waits -> alone.put(kind, waits.unit)));
        return alone;
    }
}
