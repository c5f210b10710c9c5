package lychnos.server.prove;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import lychnos.core.proof.Rung;
import lychnos.server.allocate.Claims;
import lychnos.server.api.problem.Refusal;
import lychnos.server.identity.caller.Who;
import lychnos.server.jobs.CheckQueue;
import lychnos.server.journal.Journal;
import lychnos.server.kinds.Kinds;
import lychnos.server.live.Live;
import lychnos.server.text.ProveText;
import lychnos.server.units.BringUps;
import lychnos.server.units.Unit;
import org.hibernate.Session;

/** Checks of endpoints: asked for, and what they came to. */
@ApplicationScoped
public class Checks {

    private final Session db;
    private final BringUps bringUps;
    private final Kinds kinds;
    private final Claims claims;
    private final UnknownDevices unknownDevices;
    private final CheckQueue queue;
    private final Journal journal;
    private final Live live;

    Checks(
            Session db,
            BringUps bringUps,
            Kinds kinds,
            Claims claims,
            UnknownDevices unknownDevices,
            CheckQueue queue,
            Journal journal,
            Live live) {
        this.db = db;
        this.bringUps = bringUps;
        this.kinds = kinds;
        this.claims = claims;
        this.journal = journal;
        this.live = live;
        this.unknownDevices = unknownDevices;
        this.queue = queue;
    }

    List<Proof> all(long bringUpId) {
        // a proof of an address that was released since says nothing about the new one
        return db.createQuery(
                        "select p from Proof p join Unit u on u.id = p.unitId join Claim c on c.id = p.claimId where "
                                + "u.bringUpId = :id and c.releasedAt is null",
                        Proof.class)
                .setParameter("id", bringUpId)
                .getResultList();
    }

    /**
     * By unit, the proof that says most about it: of several endpoints the first that does not hold. A unit of which
     * some endpoint was never checked has none, unless another one does not hold.
     */
    public Map<Long, Proof> proofs(long bringUpId) {
        Map<Long, List<Proof>> byUnit = all(bringUpId).stream().collect(Collectors.groupingBy(proof -> proof.unitId));
        if (byUnit.isEmpty()) {
            return Map.of();
        }
        Map<Long, Long> addresses = new HashMap<>();
        db.createQuery(
                        "select c.unitId, count(c) from Claim c join Unit u on u.id = c.unitId where u.bringUpId = "
                                + ":id and c.releasedAt is null group by c.unitId",
                        Object[].class)
                .setParameter("id", bringUpId)
                .getResultStream()
                .forEach(row -> addresses.put((Long) row[0], (Long) row[1]));
        Map<Long, Unit> units =
                bringUps.units(bringUpId).stream().collect(Collectors.toMap(unit -> unit.id, Function.identity()));
        Map<Long, Proof> worst = new HashMap<>();
        // a unit that was retired since its proofs were read is none
        byUnit.keySet().retainAll(units.keySet());
        byUnit.forEach((unit, proofs) -> proofs.stream()
                .min(Comparator.comparing((Proof proof) -> proof.proven)
                        .thenComparing(proof -> proof.height)
                        .thenComparing(proof -> proof.at))
                .filter(proof -> !proof.proven
                        || proofs.size() >= addresses.getOrDefault(unit, 0L)
                        || kinds.of(units.get(unit)).driven())
                .ifPresent(proof -> worst.put(unit, proof)));
        return worst;
    }

    /**
     * Asks for checks.
     *
     * @param units which, or null for all that are set up
     * @param rung up to which rung; what was found above it before stays
     * @return how many units were asked for; those that are under way already are not asked for twice
     */
    @Transactional
    public int ask(long bringUpId, Set<Long> units, Rung rung, Who.Person person) {
        bringUps.get(bringUpId);
        Set<Long> ready = ready(bringUpId);
        List<Long> placed = claims.primaries(bringUpId).keySet().stream()
                .filter(unit -> units == null ? ready.contains(unit) : units.contains(unit))
                .toList();
        if (placed.isEmpty()) {
            throw Refusal.conflict(
                    units == null
                            ? ProveText.NO_UNIT_IS_SET_UP_YET.said()
                            : ProveText.NO_UNIT_HAS_AN_ADDRESS_YET.said());
        }
        int asked = queue(placed, rung);
        journal.write(person, bringUpId, null, ProveText.ASKED_FOR_CHECKS.text(asked, rung.title()), null, null);
        live.tell(bringUpId, "prove");
        if (units == null) {
            unknownDevices.look(bringUpId);
        }
        return asked;
    }

    /** Asks for checks of everything that is set up, because it is time again. */
    @Transactional
    public void askAgain(long bringUpId) {
        unknownDevices.look(bringUpId);
        Set<Long> ready = ready(bringUpId);
        // what was never looked at waits for its setup: its silence is no fault yet
        Set<Long> lookedAt = all(bringUpId).stream().map(proof -> proof.unitId).collect(Collectors.toSet());
        if (queue(
                        claims.primaries(bringUpId).keySet().stream()
                                .filter(ready::contains)
                                .filter(lookedAt::contains)
                                .toList(),
                        Rung.SAFE)
                > 0) {
            live.tell(bringUpId, "prove");
        }
    }

    /** Asks for checks of these, without a word to anybody; gives how many were not under way already. */
    int queue(List<Long> units, Rung rung) {
        return queue.ask(units, rung == Rung.SAFE ? null : rung.ordinal());
    }

    private Set<Long> ready(long bringUpId) {
        return ready(
                bringUpId,
                bringUps.units(bringUpId),
                claims.primaries(bringUpId).keySet());
    }

    /**
     * Units that can be expected to answer: those that are set over Redfish as soon as they are placed, others once
     * they are set up.
     */
    Set<Long> ready(long bringUpId, Collection<Unit> units, Set<Long> placed) {
        Set<Long> ready = new HashSet<>(db.createQuery(
                        "select r.unitId from Run r join Unit u on u.id = r.unitId where u.bringUpId = :id and "
                                + "r.purpose = 'console' and r.earlier = false and r.state = DONE",
                        Long.class)
                .setParameter("id", bringUpId)
                .getResultList());
        units.stream()
                .filter(unit -> placed.contains(unit.id) && kinds.of(unit).driven())
                .forEach(unit -> ready.add(unit.id));
        return ready;
    }

    /** Cancels checks that have not begun. */
    @Transactional
    public void cancel(long bringUpId, Who.Person person) {
        bringUps.get(bringUpId);
        int cancelled = queue.cancel(bringUpId);
        journal.write(person, bringUpId, null, ProveText.CANCELLED_CHECKS.text(cancelled), null, null);
        live.tell(bringUpId, "prove");
    }
}
