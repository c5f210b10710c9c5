package lychnos.server.prove;

import jakarta.enterprise.context.ApplicationScoped;
import org.hibernate.Session;
import jakarta.transaction.Transactional;
import java.time.Clock;
import java.time.Instant;
import lychnos.core.proof.Verdict;
import lychnos.server.live.Live;
import lychnos.server.store.KnownCertificate;
import lychnos.server.store.Proof;
import lychnos.wire.Vantage;
import lychnos.wire.WireFault;
import lychnos.wire.ladder.Climb;
import lychnos.wire.ladder.Climbed;

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

    /** Climbs now; blocks while it does. */
    public Verdict climb(Targets.Subject subject) throws WireFault {
        Climbed climbed = new Climb(vantage, targets.target(subject), clock).climb();
        Verdict verdict = Verdict.of(climbed.outcomes());
        if (Thread.currentThread().isInterrupted()) {
            // cut short by this server being stopped: what broke off is no finding about the machine
            return verdict;
        }
        io.quarkus.narayana.jta.QuarkusTransaction.requiringNew().run(() -> keep(subject, climbed, verdict));
        return verdict;
    }

    private void keep(Targets.Subject subject, Climbed climbed, Verdict verdict) {
        Instant now = clock.instant();
        long unitId = subject.unit().id;
        Proof proof = db.find(Proof.class, unitId);
        boolean isNew = proof == null;
        proof = isNew ? new Proof() : proof;
        proof.unitId = unitId;
        proof.claimId = subject.claim().id;
        proof.at = now;
        proof.place = vantage.name();
        proof.height = verdict.height();
        proof.broken = verdict.broken() == null ? null : verdict.broken().name();
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
        if (verdict.proven() && db.find(KnownCertificate.class, unitId) == null) {
            remember(unitId, climbed.fingerprint());
        }
        live.tell(subject.unit().bringUpId, "prove");
    }

    /** Remembers the certificate that a unit showed when its identity was seen for the first time. */
    @Transactional
    public void remember(long unitId, String fingerprint) {
        KnownCertificate known = new KnownCertificate();
        known.unitId = unitId;
        known.fingerprint = fingerprint;
        known.seenAt = clock.instant();
        db.merge(known);
    }
}
