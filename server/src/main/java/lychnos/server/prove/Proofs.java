package lychnos.server.prove;

import jakarta.enterprise.context.ApplicationScoped;
import org.hibernate.Session;
import jakarta.transaction.Transactional;
import java.time.Clock;
import java.time.Instant;
import lychnos.core.proof.Outcome;
import lychnos.core.proof.Rung;
import lychnos.core.proof.Verdict;
import lychnos.server.live.Live;
import lychnos.server.store.EndpointKey;
import lychnos.server.store.KnownCertificate;
import lychnos.server.store.Proof;
import lychnos.server.store.ProofChange;
import lychnos.wire.Vantage;
import lychnos.wire.WireFault;
import lychnos.wire.ladder.Climb;
import lychnos.wire.ladder.Climbed;
import lychnos.wire.ladder.Target;

/** Climbs the ladder of a unit and keeps what was found. */
@ApplicationScoped
public class Proofs {

    private final Session db;
    private final Targets targets;
    private final Vantage vantage;
    private final Live live;
    private final Clock clock;

    Proofs(Session db, Targets targets, Vantage vantage, Live live, Clock clock) {
        this.db = db;
        this.targets = targets;
        this.vantage = vantage;
        this.live = live;
        this.clock = clock;
    }

    /** Climbs now to where a unit is managed at; blocks while it does. */
    public Verdict climb(Targets.Subject subject) throws WireFault {
        return climb(new Endpoints.Endpoint(subject.unit(), subject.claim(), targets.target(subject)));
    }

    /** Climbs now; blocks while it does. */
    public Verdict climb(Endpoints.Endpoint endpoint) throws WireFault {
        Climbed climbed = new Climb(vantage, endpoint.target(), clock).climb();
        Verdict verdict = endpoint.target().service() instanceof Target.DataAddress ? Verdict.ofAnswer(climbed.outcomes(), climbed.beside()) : Verdict.of(climbed.outcomes(), climbed.beside());
        if (Thread.currentThread().isInterrupted()) {
            // cut short by this server being stopped: what broke off is no finding about the machine
            return verdict;
        }
        io.quarkus.narayana.jta.QuarkusTransaction.requiringNew().run(() -> keep(endpoint, climbed, verdict));
        return verdict;
    }

    private void keep(Endpoints.Endpoint endpoint, Climbed climbed, Verdict verdict) {
        Instant now = clock.instant();
        EndpointKey key = new EndpointKey(endpoint.unit().id, endpoint.claim().role);
        Proof proof = db.find(Proof.class, endpoint.claim().id);
        boolean isNew = proof == null;
        if (isNew || !proof.sentence.equals(verdict.sentence()) || proof.proven != verdict.proven()) {
            changed(endpoint.claim().id, verdict, now);
        }
        proof = isNew ? new Proof() : proof;
        proof.claimId = endpoint.claim().id;
        proof.unitId = endpoint.unit().id;
        proof.at = now;
        proof.place = vantage.name();
        proof.height = verdict.height();
        proof.broken = verdict.broken() == null ? null : verdict.broken().name();
        proof.mark = verdict.beside() == null ? null : verdict.beside().name();
        proof.beside = climbed.beside();
        proof.fingerprint = climbed.fingerprint();
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
        if (identified(climbed) && climbed.fingerprint() != null && db.find(KnownCertificate.class, key) == null) {
            remember(key, climbed.fingerprint());
        }
        live.tell(endpoint.unit().bringUpId, "prove");
    }

    /** What is remembered is what a machine showed that was known to be the one. */
    private static boolean identified(Climbed climbed) {
        return climbed.outcomes().get(Rung.IDENTITY.ordinal()).standing() == Outcome.Standing.HOLDS;
    }

    private void changed(long claimId, Verdict verdict, Instant now) {
        ProofChange change = new ProofChange();
        change.claimId = claimId;
        change.at = now;
        change.height = verdict.height();
        change.proven = verdict.proven();
        change.sentence = verdict.sentence();
        db.persist(change);
    }

    /** Remembers the certificate that a unit showed when its identity was seen for the first time. */
    @Transactional
    public void remember(Targets.Subject subject, String fingerprint) {
        remember(new EndpointKey(subject.unit().id, subject.claim().role), fingerprint);
    }

    void remember(EndpointKey key, String fingerprint) {
        KnownCertificate known = new KnownCertificate();
        known.key = key;
        known.fingerprint = fingerprint;
        known.seenAt = clock.instant();
        db.merge(known);
    }
}
