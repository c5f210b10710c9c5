package lychnos.server.prove;

import io.quarkus.narayana.jta.QuarkusTransaction;
import jakarta.enterprise.context.ApplicationScoped;
import java.time.Clock;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.locks.LockSupport;
import lychnos.core.proof.Outcome;
import lychnos.core.proof.Rung;
import lychnos.core.proof.Traits;
import lychnos.server.allocate.Claim;
import lychnos.server.api.problem.Refusal;
import lychnos.server.identity.caller.Who;
import lychnos.server.journal.Journal;
import lychnos.server.live.Live;
import lychnos.server.prove.CertificateRequest.CertificateRequestState;
import lychnos.server.text.ProveText;
import lychnos.wire.fault.WireFault;
import lychnos.wire.ladder.Target;
import lychnos.wire.time.Ticker;
import lychnos.wire.tls.SignedChain;
import lychnos.wire.tls.SigningRequest;
import lychnos.wire.vantage.Vantage;
import org.hibernate.Session;

/**
 * Certificates of machines, replaced by signed ones: the machine makes a key and a request, an authority elsewhere
 * signs it, the chain is put in here, or by a person at the machine. A private key is never seen.
 */
@ApplicationScoped
public class Certificates {

    private static final Duration LOOK = Duration.ofSeconds(3);
    private static final Duration AT_MOST = Duration.ofSeconds(40);
    /** A person who says that a machine has it can say so again. */
    private static final Duration AT_MOST_BY_HAND = Duration.ofSeconds(5);

    private static final long PAUSE_NANOS = 300_000_000;

    private final Session db;
    private final Endpoints endpoints;
    private final CertificateMachines machines;
    private final Proofs proofs;
    private final SinceAccepted accepted;
    private final Vantage vantage;
    private final Journal journal;
    private final Live live;
    private final Clock clock;
    private final Ticker ticker;

    Certificates(
            Session db,
            Endpoints endpoints,
            CertificateMachines machines,
            Proofs proofs,
            SinceAccepted accepted,
            Vantage vantage,
            Journal journal,
            Live live,
            Clock clock,
            Ticker ticker) {
        this.db = db;
        this.endpoints = endpoints;
        this.machines = machines;
        this.proofs = proofs;
        this.accepted = accepted;
        this.vantage = vantage;
        this.journal = journal;
        this.live = live;
        this.clock = clock;
        this.ticker = ticker;
    }

    /** How it gets one; nothing until it was told which machine it is, and at addresses without a certificate. */
    Optional<CertificateWay> way(Claim claim, Proof proof) {
        return proof == null || proof.outcomes.get(Rung.IDENTITY.ordinal()).standing() != Outcome.Standing.HOLDS
                ? Optional.empty()
                : find(claim).flatMap(machines::way);
    }

    private Optional<Endpoints.TargetEndpoint> find(Claim claim) {
        return endpoints.of(claim.unitId).stream()
                .filter(each -> each.claim().id.equals(claim.id))
                .findFirst();
    }

    /** The request that waits for a chain, or for a person to install it. */
    Optional<CertificateRequest> waiting(long claimId) {
        return db.createQuery(
                        "from CertificateRequest where claimId = :claim and state in (WAITING, SIGNED)",
                        CertificateRequest.class)
                .setParameter("claim", claimId)
                .getResultStream()
                .findFirst();
    }

    private Endpoints.TargetEndpoint endpoint(long claimId) {
        return QuarkusTransaction.requiringNew()
                .call(() -> Optional.ofNullable(db.find(Claim.class, claimId)).flatMap(this::find))
                .filter(each -> machines.way(each).isPresent())
                .orElseThrow(() -> Refusal.conflict(ProveText.NO_CERTIFICATE_IS_KNOWN_YET.said()));
    }

    /**
     * Has a machine make a key and a request for a certificate made out to its name, or takes one that a person has
     * made there. One that waited is dropped.
     *
     * @param pem the request that a person has made; empty where the machine is asked for one
     * @return the request in PEM
     */
    public String request(long claimId, String pem, Who.Person person) {
        Endpoints.TargetEndpoint endpoint = endpoint(claimId);
        Claim claim = endpoint.claim();
        CertificateWay way = pem.isBlank() ? machines.way(endpoint).orElseThrow() : CertificateWay.BY_HAND;
        CertificateMachines.Made made;
        if (way == CertificateWay.BY_HAND) {
            made = new CertificateMachines.Made(copied(pem, claim), "");
        } else {
            made = machines.request(endpoint, way);
        }
        QuarkusTransaction.requiringNew().run(() -> {
            waiting(claimId).ifPresent(old -> {
                old.state = CertificateRequestState.DROPPED;
                db.flush(); // of those that wait there is one
            });
            CertificateRequest row = new CertificateRequest();
            row.claimId = claimId;
            row.way = way;
            row.request = made.pem();
            row.collection = made.collection();
            row.askedBy = person.id();
            row.askedAt = clock.instant();
            db.persist(row);
            journal.write(
                    person,
                    endpoint.unit().bringUpId,
                    endpoint.unit().id,
                    (way == CertificateWay.BY_HAND
                                    ? ProveText.ENTERED_A_CERTIFICATE_SIGNING_REQUEST
                                    : ProveText.CREATED_A_CERTIFICATE_SIGNING_REQUEST)
                            .text(claim.hostName),
                    null,
                    null);
            live.tell(endpoint.unit().bringUpId, "prove");
        });
        return made.pem();
    }

    private static String copied(String pem, Claim claim) {
        try {
            SigningRequest.check(pem, claim.fqdn());
            return pem.strip() + "\n";
        } catch (IllegalArgumentException e) {
            throw Refusal.fields(List.of(new Refusal.FieldFault("request", e.getMessage())));
        }
    }

    /**
     * Takes a signed chain. It is put in, looked for and remembered; where a person does that at the machine, it is
     * kept for that person until {@link #installed}.
     */
    public void putIn(long claimId, String pem, Who.Person person) {
        Endpoints.TargetEndpoint endpoint = endpoint(claimId);
        CertificateRequest request = QuarkusTransaction.requiringNew()
                .call(() -> waiting(claimId))
                .orElseThrow(() -> Refusal.conflict(ProveText.NO_SIGNING_REQUEST_IS_OPEN.said()));
        SignedChain chain = checked(pem, request, endpoint);
        if (request.way == CertificateWay.BY_HAND) {
            QuarkusTransaction.requiringNew().run(() -> {
                CertificateRequest row = open(request.id);
                row.state = CertificateRequestState.SIGNED;
                row.chain = chain.pem();
                live.tell(endpoint.unit().bringUpId, "prove");
            });
            return;
        }
        machines.install(endpoint, request, chain.pem());
        shows(endpoint, chain, AT_MOST);
        remember(endpoint, request, chain, person);
    }

    /** A person says that the chain is on the machine: it is looked for and remembered. */
    public void installed(long claimId, Who.Person person) {
        Endpoints.TargetEndpoint endpoint = endpoint(claimId);
        CertificateRequest request = QuarkusTransaction.requiringNew()
                .call(() -> waiting(claimId))
                .filter(row -> row.state == CertificateRequestState.SIGNED)
                .orElseThrow(() -> Refusal.conflict(ProveText.NO_CHAIN_TO_INSTALL.said()));
        SignedChain chain = checked(request.chain, request, endpoint);
        shows(endpoint, chain, AT_MOST_BY_HAND);
        remember(endpoint, request, chain, person);
    }

    private SignedChain checked(String pem, CertificateRequest request, Endpoints.TargetEndpoint endpoint) {
        try {
            return SignedChain.check(pem, request.request, endpoint.claim().fqdn(), clock.instant());
        } catch (IllegalArgumentException e) {
            throw Refusal.fields(List.of(new Refusal.FieldFault("chain", e.getMessage())));
        }
    }

    /** Somebody else may have dropped it meanwhile. */
    private CertificateRequest open(long id) {
        CertificateRequest row = db.find(CertificateRequest.class, id);
        if (row == null
                || row.state == CertificateRequestState.DROPPED
                || row.state == CertificateRequestState.PUT_IN) {
            throw Refusal.conflict(ProveText.NO_SIGNING_REQUEST_IS_OPEN.said());
        }
        return row;
    }

    private void remember(
            Endpoints.TargetEndpoint endpoint, CertificateRequest request, SignedChain chain, Who.Person person) {
        QuarkusTransaction.requiringNew().run(() -> {
            CertificateRequest row = open(request.id);
            row.state = CertificateRequestState.PUT_IN;
            row.chain = chain.pem();
            row.putInBy = person.id();
            row.putInAt = clock.instant();
            EndpointKey key = new EndpointKey(endpoint.unit().id, endpoint.claim().role);
            proofs.remember(key, chain.fingerprint());
            accepted.take(key, Traits.CERTIFICATE, chain.fingerprint(), person);
            journal.write(
                    person,
                    endpoint.unit().bringUpId,
                    endpoint.unit().id,
                    ProveText.INSTALLED_A_SIGNED_CERTIFICATE.text(endpoint.claim().hostName),
                    endpoint.target().fingerprint(),
                    chain.fingerprint());
            live.tell(endpoint.unit().bringUpId, "prove");
        });
    }

    /** Waits until the machine shows the new certificate; some take a while. */
    private void shows(Endpoints.TargetEndpoint endpoint, SignedChain chain, Duration atMost) {
        Target target = endpoint.target();
        long end = ticker.nanos() + atMost.toNanos();
        String shown = "";
        String fault = "";
        while (ticker.nanos() < end) {
            try {
                shown = vantage.tls(target.address(), target.port(), LOOK).fingerprint();
                if (shown.equals(chain.fingerprint())) {
                    return;
                }
            } catch (WireFault e) {
                if (e.ours()) {
                    throw Refusal.conflict(e.getMessage());
                }
                fault = e.getMessage();
            }
            LockSupport.parkNanos(PAUSE_NANOS);
        }
        if (shown.isEmpty()) {
            throw Refusal.conflict(ProveText.DOES_NOT_DO.said(endpoint.claim().hostName, fault));
        }
        throw Refusal.conflict(
                shown.equals(target.fingerprint())
                        ? ProveText.MACHINE_STILL_SHOWS_THE_OLD_CERTIFICATE.said(atMost.toSeconds())
                        : ProveText.MACHINE_SHOWS_A_THIRD_CERTIFICATE.said(shown));
    }
}
