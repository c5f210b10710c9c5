package lychnos.server.prove;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.time.Clock;
import java.time.Instant;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import lychnos.core.proof.Traits;
import lychnos.server.allocate.Claim;
import lychnos.server.api.problem.Refusal;
import lychnos.server.identity.caller.Who;
import lychnos.server.journal.Journal;
import lychnos.server.live.Live;
import lychnos.server.text.ProveText;
import lychnos.server.units.BringUps;
import org.hibernate.Session;

/** What endpoints showed of themselves when they were accepted, and what has changed since. */
@ApplicationScoped
public class SinceAccepted {

    private static final int LONGEST_VALUE = 4000;
    private static final int LONGEST_REASON = 400;

    private final Session db;
    private final BringUps bringUps;
    private final Journal journal;
    private final Live live;
    private final Clock clock;

    SinceAccepted(Session db, BringUps bringUps, Journal journal, Live live, Clock clock) {
        this.db = db;
        this.bringUps = bringUps;
        this.journal = journal;
        this.live = live;
        this.clock = clock;
    }

    /**
     * What was accepted of several endpoints, and the changes that stand.
     *
     * @param traits by endpoint and trait
     * @param standing by claim and trait
     */
    record Rows(
            Map<EndpointKey, Map<String, String>> traits,
            Map<EndpointKey, KnownCertificate> known,
            Map<Long, Map<String, TraitChange>> standing) {

        private Map<String, String> accepted(EndpointKey key) {
            Map<String, String> accepted = new LinkedHashMap<>(traits.getOrDefault(key, Map.of()));
            // what its setup has seen counts as well, where it was never proven since
            KnownCertificate seen = known.get(key);
            if (seen != null && seen.fingerprint != null) {
                accepted.putIfAbsent(Traits.CERTIFICATE, seen.fingerprint);
            }
            if (seen != null && seen.hostKey != null) {
                accepted.putIfAbsent(Traits.HOST_KEY, seen.hostKey);
            }
            return accepted;
        }
    }

    Rows rows(Collection<Claim> claims) {
        Set<Long> units = claims.stream().map(claim -> claim.unitId).collect(Collectors.toSet());
        Map<EndpointKey, Map<String, String>> traits = new HashMap<>();
        db.createQuery("from AcceptedTrait t where t.key.unitId in :units", AcceptedTrait.class)
                .setParameter("units", units)
                .getResultStream()
                .forEach(trait -> traits.computeIfAbsent(
                                new EndpointKey(trait.key.unitId(), trait.key.role()), key -> new LinkedHashMap<>())
                        .put(trait.key.what(), trait.value));
        Map<EndpointKey, KnownCertificate> known = db.createQuery(
                        "from KnownCertificate k where k.key.unitId in :units", KnownCertificate.class)
                .setParameter("units", units)
                .getResultStream()
                .collect(Collectors.toMap(row -> row.key, Function.identity()));
        Map<Long, Map<String, TraitChange>> standing = new HashMap<>();
        db.createQuery("from TraitChange where claimId in :claims and state in (OPEN, FAULT)", TraitChange.class)
                .setParameter("claims", claims.stream().map(claim -> claim.id).toList())
                .getResultStream()
                .forEach(change -> standing.computeIfAbsent(change.claimId, claim -> new HashMap<>())
                        .put(change.what, change));
        return new Rows(traits, known, standing);
    }

    private Map<String, TraitChange> standing(long claimId) {
        return db.createQuery("from TraitChange where claimId = :claim and state in (OPEN, FAULT)", TraitChange.class)
                .setParameter("claim", claimId)
                .getResultStream()
                .collect(Collectors.toMap(change -> change.what, Function.identity()));
    }

    /**
     * Compares what an endpoint shows with what was accepted, and keeps what differs. What a proven endpoint shows for
     * the first time is accepted with it.
     *
     * @return what is held for a fault, in words; nothing where nothing is
     */
    Optional<String> look(Claim claim, Map<String, String> shown, boolean proven, Rows rows) {
        EndpointKey key = new EndpointKey(claim.unitId, claim.role);
        Map<String, String> seen = new LinkedHashMap<>();
        shown.forEach((what, value) ->
                seen.put(what, value.length() > LONGEST_VALUE ? value.substring(0, LONGEST_VALUE) : value));
        Map<String, String> accepted = rows.accepted(key);
        Map<String, TraitChange> standing = rows.standing.computeIfAbsent(claim.id, id -> new HashMap<>());
        Instant now = clock.instant();
        Map<String, Traits.Change> changes = Traits.changes(accepted, seen).stream()
                .collect(Collectors.toMap(Traits.Change::what, Function.identity(), (a, b) -> a, LinkedHashMap::new));
        if (proven) {
            changes.values().stream()
                    .filter(change -> Traits.planned(change.what()))
                    .forEach(change -> put(key, change.what(), change.now(), null, now));
            changes.keySet().removeIf(Traits::planned);
        }
        changes.values().forEach(change -> keep(claim.id, change, standing, now));
        standing.values().stream()
                .filter(change -> seen.containsKey(change.what) && !changes.containsKey(change.what))
                .forEach(change -> {
                    change.state = TraitChange.TraitState.GONE;
                    change.decidedBy = null;
                    change.decidedAt = null;
                });
        if (proven) {
            Traits.grown(accepted, seen).forEach((what, value) -> {
                if (!accepted.containsKey(what)) {
                    put(key, what, value, null, now);
                }
            });
        }
        return standing.values().stream()
                .filter(change -> change.state == TraitChange.TraitState.FAULT)
                .map(change -> change.what + " was " + change.before + ", is " + change.now
                        + (change.reason.isEmpty() ? "" : " (" + change.reason + ")"))
                .findFirst();
    }

    private void keep(long claimId, Traits.Change change, Map<String, TraitChange> standing, Instant now) {
        TraitChange row = standing.get(change.what());
        if (row == null) {
            row = new TraitChange();
            row.claimId = claimId;
            row.what = change.what();
            row.before = change.before();
            row.now = change.now();
            row.since = now;
            db.persist(row);
            standing.put(row.what, row);
        } else if (!row.now.equals(change.now())) {
            row.now = change.now();
            row.since = now;
            row.state = TraitChange.TraitState.OPEN; // what somebody decided on was another value
            row.decidedBy = null;
            row.decidedAt = null;
        }
    }

    private void put(EndpointKey key, String what, String value, Long by, Instant now) {
        AcceptedTrait trait = new AcceptedTrait();
        trait.key = new TraitKey(key.unitId(), key.role(), what);
        trait.value = value;
        trait.at = now;
        trait.acceptedBy = by;
        db.merge(trait);
    }

    /** Takes a value for right that somebody has just put in. */
    void take(EndpointKey key, String what, String value, Who.Person person) {
        put(key, what, value, person.id(), clock.instant());
    }

    /**
     * Something that is not as it was accepted, as it is shown.
     *
     * @param acceptable whether a person may take the new value for right
     * @param by who holds it for a fault, or empty
     */
    public record TraitChangeView(
            long unitId,
            long claimId,
            String role,
            String name,
            String what,
            String before,
            String now,
            Instant since,
            boolean acceptable,
            boolean fault,
            String reason,
            String by) {}

    /** Open changes of a bring-up, for these addresses. */
    List<TraitChangeView> of(long bringUpId, Collection<Claim> claims) {
        Map<Long, Claim> byId = claims.stream().collect(Collectors.toMap(claim -> claim.id, Function.identity()));
        return db.createQuery(
                        "select c, a.name from TraitChange c join Claim k on k.id = c.claimId join Unit u on u.id = "
                                + "k.unitId left join Account a on a.id = c.decidedBy where u.bringUpId = :bringUp "
                                + "and c.state in (OPEN, FAULT) order by c.since desc, c.id",
                        Object[].class)
                .setParameter("bringUp", bringUpId)
                .getResultStream()
                .filter(row -> byId.containsKey(((TraitChange) row[0]).claimId))
                .map(row -> change((TraitChange) row[0], (String) row[1], byId.get(((TraitChange) row[0]).claimId)))
                .toList();
    }

    private static TraitChangeView change(TraitChange change, String by, Claim claim) {
        return new TraitChangeView(
                claim.unitId,
                claim.id,
                claim.role,
                claim.hostName,
                change.what,
                change.before,
                change.now,
                change.since,
                Traits.acceptable(change.what),
                change.state == TraitChange.TraitState.FAULT,
                change.reason,
                by == null ? "" : by);
    }

    /**
     * Decides on a change.
     *
     * @param now the value that was looked at
     * @param accept whether it is taken for right; else it is held for a fault
     * @param reason why; wanted for a fault
     */
    @Transactional
    public void decide(long claimId, String what, String now, boolean accept, String reason, Who.Person person) {
        Claim claim = db.find(Claim.class, claimId);
        TraitChange change = claim == null ? null : standing(claimId).get(what);
        if (change == null) {
            throw Refusal.conflict(ProveText.CHANGE_IS_GONE.said());
        }
        if (!change.now.equals(now)) {
            throw Refusal.conflict(ProveText.MACHINE_SHOWS_ANOTHER_VALUE.said(change.now));
        }
        if (accept && !Traits.acceptable(what)) {
            throw Refusal.conflict(ProveText.DIFFERENCE_CANNOT_BE_ACCEPTED.said());
        }
        String why = reason == null ? "" : reason.strip();
        if (!accept && why.isEmpty() || why.length() > LONGEST_REASON) {
            throw Refusal.fields(
                    List.of(new Refusal.FieldFault("reason", ProveText.SAY_WHAT_IS_WRONG.said(LONGEST_REASON))));
        }
        Instant at = clock.instant();
        change.state = accept ? TraitChange.TraitState.ACCEPTED : TraitChange.TraitState.FAULT;
        change.reason = why;
        change.decidedBy = person.id();
        change.decidedAt = at;
        if (accept) {
            EndpointKey key = new EndpointKey(claim.unitId, claim.role);
            put(key, what, now, person.id(), at);
            remember(key, what, now, at);
        }
        long bringUp = bringUps.unit(claim.unitId).bringUpId;
        journal.write(
                person,
                bringUp,
                claim.unitId,
                (accept ? ProveText.ACCEPTED_A_NEW : ProveText.REJECTED_THE_NEW)
                        .text(what, claim.hostName, why.isEmpty() ? "" : ": " + why),
                change.before,
                now);
        live.tell(bringUp, "prove");
    }

    /** What is compared before a secret is sent must follow what was accepted. */
    private void remember(EndpointKey key, String what, String value, Instant at) {
        KnownCertificate known = db.find(KnownCertificate.class, key);
        if (known != null && what.equals(Traits.CERTIFICATE)) {
            known.fingerprint = value;
            known.seenAt = at;
        } else if (known != null && what.equals(Traits.HOST_KEY)) {
            known.hostKey = value;
        }
    }
}
