package lychnos.server.prove;

import jakarta.enterprise.context.ApplicationScoped;
import org.hibernate.Session;
import jakarta.transaction.Transactional;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lychnos.core.proof.Outcome;
import lychnos.core.proof.Rung;
import lychnos.core.proof.Settings;
import lychnos.server.account.Who;
import lychnos.server.allocate.Claims;
import lychnos.server.journal.Journal;
import lychnos.server.live.Live;
import lychnos.server.prepare.BringUps;
import lychnos.server.prepare.Kinds;
import lychnos.server.problem.Refusal;
import lychnos.server.store.Claim;
import lychnos.server.store.KnownCertificate;
import lychnos.server.store.Proof;
import lychnos.server.store.Unit;

/** Checks of endpoints: asked for, and shown. */
@ApplicationScoped
public class Checks {

    private final Session db;
    private final BringUps bringUps;
    private final Kinds kinds;
    private final Claims claims;
    private final Journal journal;
    private final Live live;
    private final Clock clock;

    Checks(Session db, BringUps bringUps, Kinds kinds, Claims claims, Journal journal, Live live, Clock clock) {
        this.db = db;
        this.bringUps = bringUps;
        this.kinds = kinds;
        this.claims = claims;
        this.journal = journal;
        this.live = live;
        this.clock = clock;
    }

    public Map<Long, Proof> proofs(long bringUpId) {
        // a proof of an address that was released since says nothing about the new one
        return db.createQuery("select p from Proof p join Unit u on u.id = p.unitId join Claim c on c.id = p.claimId where u.bringUpId = :id and c.releasedAt is null", Proof.class)
                .setParameter("id", bringUpId)
                .getResultStream()
                .collect(Collectors.toMap(proof -> proof.unitId, Function.identity()));
    }

    /**
     * Asks for checks.
     *
     * @param units which, or null for all that have an address
     * @return how many were asked for; those that are under way already are not asked for twice
     */
    @Transactional
    public int ask(long bringUpId, Set<Long> units, Who.Person person) {
        bringUps.get(bringUpId);
        List<Claim> placed = driven(claims.primaries(bringUpId)).filter(claim -> units == null || units.contains(claim.unitId)).toList();
        if (placed.isEmpty()) {
            throw Refusal.conflict("No unit here has an address yet: that is part of Allocate.");
        }
        int asked = 0;
        for (Claim claim : placed) {
            // a unit in the middle of its setup is not a fault: it is left alone until its setup proves it
            asked += db.createNativeMutationQuery("insert into run (unit_id, purpose, state) select :unit, 'prove', 'WAITING' where not exists"
                            + " (select 1 from run r where r.unit_id = :unit and r.purpose = 'configure' and r.state = 'RUNNING')"
                            + " on conflict (unit_id, purpose) where state in ('WAITING', 'RUNNING', 'STOPPED') do nothing")
                    .setParameter("unit", claim.unitId)
                    .executeUpdate();
        }
        journal.write(person, bringUpId, null, "asked for " + asked + " checks", null, null);
        live.tell(bringUpId, "prove");
        return asked;
    }

    /** Of the units' addresses, those whose kind can be proven yet. */
    private Stream<Claim> driven(Map<Long, Claim> primaries) {
        return primaries.values().stream().filter(claim -> kinds.of(bringUps.unit(claim.unitId)).driven());
    }

    /** Cancels checks that have not begun. */
    @Transactional
    public void cancel(long bringUpId, Who.Person person) {
        int cancelled = db.createNativeMutationQuery("update run r set state = 'CANCELLED', ended_at = now() from unit u where u.id = r.unit_id and u.bring_up_id = :id and r.purpose = 'prove' and r.state = 'WAITING'")
                .setParameter("id", bringUpId)
                .executeUpdate();
        journal.write(person, bringUpId, null, "cancelled " + cancelled + " checks", null, null);
        live.tell(bringUpId, "prove");
    }

    /**
     * One endpoint as the stage shows it.
     *
     * @param standings by rung, from the lowest; empty where it was never checked
     * @param checking whether a check is under way
     * @param settingUp whether it is in the middle of its setup
     */
    public record Endpoint(
            long unitId,
            String name,
            String fqdn,
            String address,
            String position,
            String serial,
            List<Outcome.Standing> standings,
            int height,
            boolean proven,
            String sentence,
            Instant at,
            Double millis,
            boolean checking,
            boolean settingUp) {}

    /** What the stage shows. */
    public record View(List<Endpoint> endpoints, int checking, int proven, Instant lastAt, String vantage) {}

    @Transactional
    public View view(long bringUpId, String vantage) {
        Map<Long, Proof> proofs = proofs(bringUpId);
        Map<Long, Claim> placed = claims.primaries(bringUpId);
        Set<Long> checking = busy(bringUpId, "prove");
        Set<Long> settingUp = busy(bringUpId, "configure");
        List<Endpoint> endpoints = bringUps.units(bringUpId).stream()
                .filter(unit -> placed.containsKey(unit.id) && kinds.of(unit).driven())
                .map(unit -> endpoint(unit, placed.get(unit.id), proofs.get(unit.id), checking.contains(unit.id), settingUp.contains(unit.id)))
                .toList();
        int proven = (int) endpoints.stream().filter(Endpoint::proven).count();
        Instant last = proofs.values().stream().map(proof -> proof.at).max(Instant::compareTo).orElse(null);
        return new View(endpoints, checking.size(), proven, last, vantage);
    }

    private Set<Long> busy(long bringUpId, String purpose) {
        String states = purpose.equals("prove") ? "r.state in (WAITING, RUNNING)" : "r.state = RUNNING";
        return Set.copyOf(db.createQuery("select r.unitId from Run r join Unit u on u.id = r.unitId where u.bringUpId = :id and r.purpose = :purpose and " + states, Long.class)
                .setParameter("id", bringUpId)
                .setParameter("purpose", purpose)
                .getResultList());
    }

    private static Endpoint endpoint(Unit unit, Claim claim, Proof proof, boolean checking, boolean settingUp) {
        return new Endpoint(
                unit.id,
                claim.hostName,
                claim.fqdn(),
                claim.address.toString(),
                unit.place(),
                unit.serial,
                proof == null ? List.of() : proof.outcomes.stream().map(Outcome::standing).toList(),
                proof == null ? 0 : proof.height,
                proof != null && proof.proven,
                proof == null ? "" : proof.sentence,
                proof == null ? null : proof.at,
                proof == null ? null : proof.millis,
                checking,
                settingUp);
    }

    /** One rung with what was seen on it. */
    public record RungView(String title, Outcome.Standing standing, String seen) {}

    /** Everything known about one endpoint. */
    public record Detail(
            Endpoint endpoint, String press, List<RungView> rungs, List<Settings.Field> fields, String firmware, String fingerprint, String place, Instant provenAt, List<Journal.Entry> journal) {}

    @Transactional
    public Detail detail(long unitId) {
        Unit unit = bringUps.unit(unitId);
        Claim claim = claims.ofUnit(unitId).orElseThrow(() -> Refusal.notFound("This unit has no address yet."));
        Proof proof = proofs(unit.bringUpId).get(unitId);
        Endpoint endpoint = endpoint(
                unit, claim, proof, busy(unit.bringUpId, "prove").contains(unitId), busy(unit.bringUpId, "configure").contains(unitId));
        KnownCertificate known = db.find(KnownCertificate.class, unitId);
        List<RungView> rungs = proof == null
                ? List.of()
                : proof.outcomes.stream().map(outcome -> new RungView(Rung.values()[outcome.rung().ordinal()].title(), outcome.standing(), seen(outcome))).toList();
        return new Detail(
                endpoint,
                proof == null ? "" : proof.press,
                rungs,
                proof == null ? List.of() : proof.fields,
                proof == null ? null : proof.firmware,
                known == null ? null : known.fingerprint,
                proof == null ? null : proof.place,
                proof == null ? null : proof.provenAt,
                journal.ofUnit(unitId, 30));
    }

    private static String seen(Outcome outcome) {
        return outcome.trouble() == null ? outcome.seen() : outcome.trouble().sentence(outcome.seen());
    }
}
