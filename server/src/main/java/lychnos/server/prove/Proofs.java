package lychnos.server.prove;

import io.quarkus.narayana.jta.QuarkusTransaction;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import lychnos.core.proof.Outcome;
import lychnos.core.proof.Rung;
import lychnos.core.proof.Verdict;
import lychnos.server.database.Rows;
import lychnos.server.live.Live;
import lychnos.server.vantage.Vantages;
import lychnos.wire.fault.WireFault;
import lychnos.wire.icmp.Echo;
import lychnos.wire.ladder.Climb;
import lychnos.wire.ladder.Climbed;
import lychnos.wire.ladder.NameAsker;
import lychnos.wire.ladder.Patience;
import lychnos.wire.ladder.Target;
import lychnos.wire.time.Ticker;
import lychnos.wire.vantage.Vantage;
import org.hibernate.Session;

/** Climbs the ladder of a unit and keeps what was found. */
@ApplicationScoped
public class Proofs {

    private final Session db;
    private final Targets targets;
    private final SinceAccepted accepted;
    private final Vantage vantage;
    private final Vantages vantages;
    private final Live live;
    private final Clock clock;
    private final Patience patience = new Patience();
    private final NameAsker names;

    Proofs(
            Session db,
            Targets targets,
            SinceAccepted accepted,
            Vantage vantage,
            Vantages vantages,
            Live live,
            Clock clock,
            Ticker ticker) {
        this.db = db;
        this.targets = targets;
        this.accepted = accepted;
        this.vantage = vantage;
        this.vantages = vantages;
        this.live = live;
        this.clock = clock;
        this.names = new NameAsker(ticker);
    }

    /**
     * Checks all addresses that a unit is managed at now; blocks while it does.
     *
     * @return the verdict on the first at which the ladder is not proven; on the first of all where each is
     */
    public Verdict climb(Targets.Subject subject) throws WireFault {
        Verdict first = null;
        for (Endpoints.TargetEndpoint endpoint : targets.endpoints(subject)) {
            Verdict verdict = climb(endpoint);
            if (!verdict.ladder()) {
                return verdict;
            }
            first = first == null ? verdict : first;
        }
        return first;
    }

    /** Climbs to the top now; blocks while it does. */
    public Verdict climb(Endpoints.TargetEndpoint endpoint) throws WireFault {
        FoundAtEndpoint found = look(endpoint, Rung.SAFE, null);
        // cut short by this server being stopped: what broke off is no finding about the machine
        return Thread.currentThread().isInterrupted()
                ? verdict(endpoint, found.climbed)
                : QuarkusTransaction.requiringNew().call(() -> keep(found));
    }

    /** What was found at an endpoint, and where it was looked at from. */
    record FoundAtEndpoint(Endpoints.TargetEndpoint endpoint, Climbed climbed, Rung upTo, String place) {}

    /**
     * Climbs now; blocks while it does, and keeps nothing.
     *
     * @param upTo the rung that is looked at last
     * @param heard an echo that was heard right before, or null
     */
    FoundAtEndpoint look(Endpoints.TargetEndpoint endpoint, Rung upTo, Echo heard) throws WireFault {
        Vantage from = vantage.at(endpoint.target().address());
        Climbed climbed = new Climb(from, endpoint.target(), clock, new Climb.Company(patience, names, others(from)))
                .climb(upTo, heard);
        return new FoundAtEndpoint(endpoint, climbed, upTo, from.name());
    }

    Verdict keep(FoundAtEndpoint found) {
        return keep(List.of(found)).get(0);
    }

    /**
     * Keeps what was found at several; what was found before above the rung that was looked at last stays as long as
     * everything up to it holds.
     */
    List<Verdict> keep(List<FoundAtEndpoint> all) {
        if (all.isEmpty()) {
            return List.of();
        }
        // asked for at once; they are there when each asks for its own
        Map<Long, Proof> before = db.createQuery("from Proof where claimId in :claims", Proof.class)
                .setParameter(
                        "claims",
                        all.stream().map(found -> found.endpoint.claim().id).toList())
                .getResultStream()
                .collect(Collectors.toMap(proof -> proof.claimId, Function.identity()));
        SinceAccepted.Rows rows =
                accepted.rows(all.stream().map(found -> found.endpoint.claim()).toList());
        List<ProofChange> changes = new ArrayList<>();
        List<Verdict> verdicts = all.stream()
                .map(found -> keep(found, before.get(found.endpoint.claim().id), rows, changes))
                .toList();
        Rows.of(changes)
                .column("bigint", change -> change.claimId)
                .column("timestamptz", change -> change.at)
                .column("integer", change -> change.height)
                .column("boolean", change -> change.proven)
                .column("text", change -> change.sentence)
                .column("text", change -> change.standings)
                .write(
                        db,
                        "insert into proof_change (claim_id, at, height, proven, sentence, standings) select * "
                                + "from %s");
        return verdicts;
    }

    /** Other places, from which what must be shut is tried as well. */
    private List<Vantage> others(Vantage from) {
        return vantages.linked().stream().filter(other -> other != from).toList();
    }

    private static Verdict verdict(Endpoints.TargetEndpoint endpoint, Climbed climbed) {
        return endpoint.target().service() instanceof Target.DataAddress
                ? Verdict.ofAnswer(climbed.outcomes(), climbed.beside())
                : Verdict.of(climbed.outcomes(), climbed.beside());
    }

    /** A climb that was to end below the top, with what was found above before. */
    private static Climbed completed(Climbed climbed, Rung upTo, Proof before) {
        if (before == null || upTo == Rung.SAFE) {
            return climbed;
        }
        boolean holds = climbed.outcomes().subList(0, upTo.ordinal() + 1).stream()
                .noneMatch(outcome -> outcome.standing() == Outcome.Standing.BROKEN);
        List<Outcome> outcomes = new ArrayList<>(climbed.outcomes().subList(0, upTo.ordinal() + 1));
        outcomes.addAll(
                (holds ? before.outcomes : climbed.outcomes()).subList(upTo.ordinal() + 1, Rung.values().length));
        if (holds && before.broken != null && Rung.valueOf(before.broken).compareTo(upTo) <= 0) {
            // what failed passes now; higher rungs are not checked yet
            outcomes.subList(upTo.ordinal() + 1, outcomes.size())
                    .replaceAll(outcome -> Outcome.notReached(outcome.rung()));
        }
        return new Climbed(
                outcomes,
                before.beside,
                climbed.fields().isEmpty() ? before.fields : climbed.fields(),
                climbed.tls(),
                climbed.hostKey(),
                climbed.firmware() == null ? before.firmware : climbed.firmware(),
                climbed.roundTrip(),
                climbed.traits());
    }

    /**
     * @param proof what stands of it, or null
     * @param changes gets what is something else than before
     */
    private Verdict keep(FoundAtEndpoint seen, Proof proof, SinceAccepted.Rows rows, List<ProofChange> changes) {
        Endpoints.TargetEndpoint endpoint = seen.endpoint;
        Climbed climbed = completed(seen.climbed, seen.upTo, proof);
        Instant now = clock.instant();
        Verdict found = verdict(endpoint, climbed);
        Verdict verdict = accepted.look(endpoint.claim(), climbed.traits(), found.proven(), rows)
                .map(fault -> found.heldForFault(fault))
                .orElse(found);
        boolean isNew = proof == null;
        String standings = standings(climbed.outcomes());
        if (isNew
                || !proof.sentence.equals(verdict.sentence())
                || proof.proven != verdict.proven()
                || !standings(proof.outcomes).equals(standings)) {
            changes.add(change(endpoint.claim().id, verdict, standings, now));
        }
        proof = isNew ? new Proof() : proof;
        proof.claimId = endpoint.claim().id;
        proof.unitId = endpoint.unit().id;
        proof.at = now;
        proof.place = seen.place;
        proof.height = verdict.height();
        proof.broken = verdict.broken() == null ? null : verdict.broken().name();
        proof.mark = verdict.beside() == null ? null : verdict.beside().name();
        proof.beside = climbed.beside();
        if (climbed.tls() != null) {
            proof.fingerprint = climbed.fingerprint();
            proof.chain = climbed.tls().pem();
            proof.certificateEnds = LocalDate.ofInstant(climbed.tls().notAfter(), ZoneOffset.UTC);
        }
        proof.hostKey =
                climbed.hostKey() == null ? proof.hostKey : climbed.hostKey().line();
        proof.sentence = verdict.sentence();
        proof.press = verdict.press();
        proof.proven = verdict.proven();
        proof.provenAt = verdict.proven() ? now : proof.provenAt;
        proof.outcomes = climbed.outcomes();
        proof.fields = climbed.fields();
        proof.firmware = climbed.firmware();
        proof.millis = climbed.roundTrip() == null ? null : climbed.roundTrip().toNanos() / 1e6;
        if (isNew) {
            db.persist(proof);
        }
        if (identified(climbed)) {
            rememberFirst(UnitRows.key(endpoint.claim()), climbed);
        }
        live.tell(endpoint.unit().bringUpId, "prove");
        return verdict;
    }

    private static String standings(List<Outcome> outcomes) {
        StringBuilder letters = new StringBuilder();
        outcomes.forEach(outcome -> letters.append(
                switch (outcome.standing()) {
                    case HOLDS -> 'h';
                    case BROKEN -> 'b';
                    case NOT_REACHED -> 'n';
                    case NOT_MEASURED -> 'm';
                }));
        return letters.toString();
    }

    /** What is remembered is what a machine showed that was known to be the one. */
    private static boolean identified(Climbed climbed) {
        return climbed.outcomes().get(Rung.IDENTITY.ordinal()).standing() == Outcome.Standing.HOLDS;
    }

    private void rememberFirst(EndpointKey key, Climbed climbed) {
        KnownCertificate known = db.find(KnownCertificate.class, key);
        if (known == null && climbed.fingerprint() != null) {
            remember(key, climbed.fingerprint());
            known = db.find(KnownCertificate.class, key);
        }
        if (known != null && known.hostKey == null && climbed.hostKey() != null) {
            known.hostKey = climbed.hostKey().fingerprint();
        }
    }

    private static ProofChange change(long claimId, Verdict verdict, String standings, Instant now) {
        ProofChange change = new ProofChange();
        change.claimId = claimId;
        change.at = now;
        change.height = verdict.height();
        change.proven = verdict.proven();
        change.sentence = verdict.sentence();
        change.standings = standings;
        return change;
    }

    /** Remembers the certificate that a unit showed when its identity was seen for the first time. */
    @Transactional
    public void remember(Targets.Subject subject, String fingerprint) {
        remember(new EndpointKey(subject.unit().id, subject.claim().role), fingerprint);
    }

    void remember(EndpointKey key, String fingerprint) {
        KnownCertificate known = db.find(KnownCertificate.class, key);
        boolean isNew = known == null;
        known = isNew ? new KnownCertificate() : known;
        known.key = key;
        known.fingerprint = fingerprint;
        known.seenAt = clock.instant();
        if (isNew) {
            db.persist(known);
        }
    }

    /**
     * Another machine is there now: what was remembered of the one before is forgotten. Part of the caller's
     * transaction.
     *
     * @param roles of the addresses that the machine had
     * @param claims ids of these addresses
     */
    public void forget(long unitId, Collection<String> roles, Collection<Long> claims) {
        if (!claims.isEmpty()) {
            db.createMutationQuery("delete from KnownCertificate k where k.key.unitId = :unit and k.key.role in :roles")
                    .setParameter("unit", unitId)
                    .setParameter("roles", roles)
                    .executeUpdate();
            db.createMutationQuery("delete from AcceptedTrait t where t.key.unitId = :unit and t.key.role in :roles")
                    .setParameter("unit", unitId)
                    .setParameter("roles", roles)
                    .executeUpdate();
            db.createMutationQuery(
                            "update TraitChange set state = GONE, decidedBy = null, decidedAt = null where claimId "
                                    + "in :claims and state in (OPEN, FAULT)")
                    .setParameter("claims", claims)
                    .executeUpdate();
        }
        // until the unit is set up again nothing that was found of it says anything
        db.createMutationQuery("delete from Proof where unitId = :unit")
                .setParameter("unit", unitId)
                .executeUpdate();
    }
}
