package lychnos.server.prove;

import jakarta.enterprise.context.ApplicationScoped;
import org.hibernate.Session;
import jakarta.transaction.Transactional;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import lychnos.core.proof.Outcome;
import lychnos.core.proof.Rung;
import lychnos.core.proof.Verdict;
import lychnos.server.live.Live;
import lychnos.server.store.EndpointKey;
import lychnos.server.store.KnownCertificate;
import lychnos.server.store.Proof;
import lychnos.server.store.ProofChange;
import lychnos.server.vantage.Vantages;
import lychnos.wire.Vantage;
import lychnos.wire.WireFault;
import lychnos.wire.icmp.Echo;
import lychnos.wire.ladder.Climb;
import lychnos.wire.ladder.Climbed;
import lychnos.wire.ladder.NameAsker;
import lychnos.wire.ladder.Patience;
import lychnos.wire.ladder.Target;

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
    private final NameAsker names = new NameAsker();

    Proofs(Session db, Targets targets, SinceAccepted accepted, Vantage vantage, Vantages vantages, Live live, Clock clock) {
        this.db = db;
        this.targets = targets;
        this.accepted = accepted;
        this.vantage = vantage;
        this.vantages = vantages;
        this.live = live;
        this.clock = clock;
    }

    /** Climbs now to where a unit is managed at; blocks while it does. */
    public Verdict climb(Targets.Subject subject) throws WireFault {
        return climb(new Endpoints.Endpoint(subject.unit(), subject.claim(), targets.target(subject)));
    }

    /** Climbs to the top now; blocks while it does. */
    public Verdict climb(Endpoints.Endpoint endpoint) throws WireFault {
        return climb(endpoint, Rung.SAFE, null);
    }

    /**
     * Climbs now; blocks while it does.
     *
     * @param upTo the rung that is looked at last; what was found above it before stays as long as everything up to it holds
     * @param heard an echo that was heard right before, or null
     */
    Verdict climb(Endpoints.Endpoint endpoint, Rung upTo, Echo heard) throws WireFault {
        Vantage from = vantage.at(endpoint.target().address());
        Climbed climbed = new Climb(from, endpoint.target(), clock, new Climb.Company(patience, names, others(from))).climb(upTo, heard);
        if (Thread.currentThread().isInterrupted()) {
            // cut short by this server being stopped: what broke off is no finding about the machine
            return verdict(endpoint, climbed);
        }
        return io.quarkus.narayana.jta.QuarkusTransaction.requiringNew().call(() -> keep(endpoint, completed(endpoint, climbed, upTo), from.name()));
    }

    /** Other places, from which what must be shut is tried as well. */
    private List<Vantage> others(Vantage from) {
        return vantages.linked().stream().filter(other -> other != from).toList();
    }

    private static Verdict verdict(Endpoints.Endpoint endpoint, Climbed climbed) {
        return endpoint.target().service() instanceof Target.DataAddress ? Verdict.ofAnswer(climbed.outcomes(), climbed.beside()) : Verdict.of(climbed.outcomes(), climbed.beside());
    }

    /** A climb that was to end below the top, with what was found above before. */
    private Climbed completed(Endpoints.Endpoint endpoint, Climbed climbed, Rung upTo) {
        Proof before = upTo == Rung.SAFE ? null : db.find(Proof.class, endpoint.claim().id);
        if (before == null) {
            return climbed;
        }
        boolean holds = climbed.outcomes().subList(0, upTo.ordinal() + 1).stream().noneMatch(outcome -> outcome.standing() == Outcome.Standing.BROKEN);
        List<Outcome> outcomes = new ArrayList<>(climbed.outcomes().subList(0, upTo.ordinal() + 1));
        outcomes.addAll((holds ? before.outcomes : climbed.outcomes()).subList(upTo.ordinal() + 1, Rung.values().length));
        if (holds && before.broken != null && Rung.valueOf(before.broken).compareTo(upTo) <= 0) {
            // what was broken holds now; nobody has looked above it
            outcomes.subList(upTo.ordinal() + 1, outcomes.size()).replaceAll(outcome -> Outcome.notReached(outcome.rung()));
        }
        return new Climbed(outcomes, before.beside, climbed.fields().isEmpty() ? before.fields : climbed.fields(), climbed.tls(), climbed.hostKey(), climbed.firmware() == null ? before.firmware : climbed.firmware(), climbed.roundTrip(), climbed.traits());
    }

    private Verdict keep(Endpoints.Endpoint endpoint, Climbed climbed, String place) {
        Instant now = clock.instant();
        EndpointKey key = new EndpointKey(endpoint.unit().id, endpoint.claim().role);
        Verdict found = verdict(endpoint, climbed);
        Verdict verdict = accepted.look(endpoint.claim(), climbed.traits(), found.proven()).map(fault -> found.heldForFault(fault)).orElse(found);
        Proof proof = db.find(Proof.class, endpoint.claim().id);
        boolean isNew = proof == null;
        String standings = standings(climbed.outcomes());
        if (isNew || !proof.sentence.equals(verdict.sentence()) || proof.proven != verdict.proven() || !standings(proof.outcomes).equals(standings)) {
            changed(endpoint.claim().id, verdict, standings, now);
        }
        proof = isNew ? new Proof() : proof;
        proof.claimId = endpoint.claim().id;
        proof.unitId = endpoint.unit().id;
        proof.at = now;
        proof.place = place;
        proof.height = verdict.height();
        proof.broken = verdict.broken() == null ? null : verdict.broken().name();
        proof.mark = verdict.beside() == null ? null : verdict.beside().name();
        proof.beside = climbed.beside();
        if (climbed.tls() != null) {
            proof.fingerprint = climbed.fingerprint();
            proof.chain = climbed.tls().pem();
        }
        proof.hostKey = climbed.hostKey() == null ? proof.hostKey : climbed.hostKey().line();
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
            rememberFirst(key, climbed);
        }
        live.tell(endpoint.unit().bringUpId, "prove");
        return verdict;
    }

    private static String standings(List<Outcome> outcomes) {
        StringBuilder letters = new StringBuilder();
        outcomes.forEach(outcome -> letters.append(switch (outcome.standing()) {
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

    private void changed(long claimId, Verdict verdict, String standings, Instant now) {
        ProofChange change = new ProofChange();
        change.claimId = claimId;
        change.at = now;
        change.height = verdict.height();
        change.proven = verdict.proven();
        change.sentence = verdict.sentence();
        change.standings = standings;
        db.persist(change);
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
}
