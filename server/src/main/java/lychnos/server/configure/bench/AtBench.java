package lychnos.server.configure.bench;

import jakarta.enterprise.context.ApplicationScoped;
import java.time.Instant;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import lychnos.core.dialogue.Hold;
import lychnos.core.order.RunState;
import lychnos.server.configure.model.MemberDialogue;
import lychnos.server.configure.model.MemberDialogue.DialogueState;
import lychnos.server.jobs.Run;
import org.hibernate.Session;

/** How far the units of a bring-up are on their consoles, for the Board. */
@ApplicationScoped
public class AtBench {

    private final Session db;

    AtBench(Session db) {
        this.db = db;
    }

    /** One member, and since when it is as it is. */
    public record MemberAtBench(String label, MemberDialogue dialogue, Instant since, long about) {

        /** Whether nothing goes on before a person has decided. */
        public boolean wantsPerson() {
            return dialogue.state == DialogueState.HELD && !endsAlone()
                    || dialogue.state == DialogueState.STOPPED
                    || dialogue.state == DialogueState.MANUAL
                    || dialogue.state == DialogueState.BY_HAND;
        }

        /** Whether something is not as it should be. */
        public boolean amiss() {
            return dialogue.state == DialogueState.CUT
                    || dialogue.hold != null
                            && !dialogue.hold.why().passable()
                            && !dialogue.hold.why().endsWhenKnown();
        }

        /** Whether a day must come before it continues. */
        public boolean waitsForDay() {
            return dialogue.hold != null && dialogue.hold.why() == Hold.Why.DATE;
        }

        /** Whether it continues automatically: once another member has reported something, or on a day. */
        boolean endsAlone() {
            return dialogue.hold != null && dialogue.hold.why().endsAlone();
        }
    }

    /** A unit at its newest setup. */
    public record BenchUnit(Run run, List<MemberAtBench> members) {

        public boolean done() {
            return run.state == RunState.DONE;
        }
    }

    /** By unit; those that were never begun or were put away are left out. */
    public Map<Long, BenchUnit> of(long bringUpId) {
        Map<Long, Run> newest = new LinkedHashMap<>();
        db.createQuery(
                        "select r from Run r join Unit u on u.id = r.unitId where u.bringUpId = :id and r.purpose = "
                                + "'console' and r.earlier = false order by r.id",
                        Run.class)
                .setParameter("id", bringUpId)
                .getResultStream()
                .forEach(run -> newest.put(run.unitId, run));
        newest.values().removeIf(run -> run.state == RunState.CANCELLED);
        if (newest.isEmpty()) {
            return Map.of();
        }
        List<Long> runs = newest.values().stream().map(run -> run.id).toList();
        Map<Long, Object[]> since = new HashMap<>();
        db.createNativeQuery(
                        "select s.dialogue_id, s.began_at, s.about from dialogue_stretch s join dialogue d on d.id = "
                                + "s.dialogue_id where s.ended_at is null and d.run_id in (:runs)",
                        Object[].class)
                .setParameter("runs", runs)
                .getResultStream()
                .forEach(row -> since.put((Long) row[0], row));
        Map<Long, List<MemberAtBench>> members = db.createQuery(
                        "from MemberDialogue where runId in (:runs) order by place", MemberDialogue.class)
                .setParameter("runs", runs)
                .getResultStream()
                .map(row -> new MemberAtBench(
                        row.member,
                        row,
                        since.containsKey(row.id) ? (Instant) since.get(row.id)[1] : null,
                        since.containsKey(row.id) ? (Long) since.get(row.id)[2] : 0))
                .collect(Collectors.groupingBy(member -> member.dialogue().runId));
        Map<Long, BenchUnit> units = new HashMap<>();
        newest.forEach((unit, run) -> units.put(unit, new BenchUnit(run, members.getOrDefault(run.id, List.of()))));
        return units;
    }
}
