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
import lychnos.server.text.ProveText;
import lychnos.wire.fault.WireFault;
import lychnos.wire.ladder.Target;
import lychnos.wire.redfish.RedfishClient;
import lychnos.wire.redfish.RedfishFault;
import lychnos.wire.redfish.WebCertificate;
import lychnos.wire.time.Ticker;
import lychnos.wire.tls.SignedChain;
import lychnos.wire.vantage.Vantage;
import org.hibernate.Session;

/**
 * Certificates of machines, replaced by signed ones: the machine makes a key and a request, an authority elsewhere
 * signs it, the chain is put in here. A private key is never seen.
 */
@ApplicationScoped
public class Certificates {

    private final Ticker ticker;

    private static final Duration LOOK = Duration.ofSeconds(3);
    private static final Duration AT_MOST = Duration.ofSeconds(40);
    private static final long PAUSE_NANOS = 300_000_000;

    private final Session db;
    private final Endpoints endpoints;
    private final Proofs proofs;
    private final SinceAccepted accepted;
    private final Vantage vantage;
    private final Journal journal;
    private final Live live;
    private final Clock clock;

    Certificates(
            Session db,
            Endpoints endpoints,
            Proofs proofs,
            SinceAccepted accepted,
            Vantage vantage,
            Journal journal,
            Live live,
            Clock clock,
            Ticker ticker) {
        this.ticker = ticker;
        this.db = db;
        this.endpoints = endpoints;
        this.proofs = proofs;
        this.accepted = accepted;
        this.vantage = vantage;
        this.journal = journal;
        this.live = live;
        this.clock = clock;
    }

    /**
     * Whether it can be asked for one: it was told which machine it is, over an interface that has a standard way for
     * it.
     */
    boolean replaceable(Claim claim, Proof proof) {
        return proof != null
                && proof.outcomes.get(Rung.IDENTITY.ordinal()).standing() == Outcome.Standing.HOLDS
                && endpoints.of(claim.unitId).stream()
                        .anyMatch(each -> each.claim().id.equals(claim.id)
                                && each.target().service() instanceof Target.Redfish);
    }

    /** The request that waits for a chain. */
    Optional<CertificateRequest> waiting(long claimId) {
        return db.createQuery(
                        "from CertificateRequest where claimId = :claim and state = WAITING", CertificateRequest.class)
                .setParameter("claim", claimId)
                .getResultStream()
                .findFirst();
    }

    @FunctionalInterface
    private interface Doing<T> {
        T with(RedfishClient client) throws WireFault, RedfishFault;
    }

    private Endpoints.TargetEndpoint endpoint(long claimId) {
        return QuarkusTransaction.requiringNew()
                .call(() -> {
                    Claim claim = db.find(Claim.class, claimId);
                    return claim == null
                            ? Optional.<Endpoints.TargetEndpoint>empty()
                            : endpoints.of(claim.unitId).stream()
                                    .filter(each -> each.claim().id == claimId)
                                    .findFirst();
                })
                .filter(each -> each.target().service() instanceof Target.Redfish redfish
                        && redfish.login().phrase() != null
                        && each.target().fingerprint() != null)
                .orElseThrow(() -> Refusal.conflict(ProveText.MACHINE_HAS_NO_STANDARD_WAY_TO_REPLACE.said()));
    }

    /** Logged in to the machine that is known, under the certificate that is known. */
    private <T> T with(Endpoints.TargetEndpoint endpoint, Doing<T> doing) {
        Target target = endpoint.target();
        Target.Redfish redfish = (Target.Redfish) target.service();
        try (RedfishClient client = new RedfishClient(vantage, target.address(), target.port(), target.fingerprint())) {
            client.logIn(redfish.login().user(), redfish.login().phrase());
            return doing.with(client);
        } catch (WireFault e) {
            throw Refusal.conflict(ProveText.DOES_NOT_DO.said(endpoint.claim().hostName, e.getMessage()));
        } catch (RedfishFault e) {
            throw Refusal.conflict(ProveText.REFUSES.said(endpoint.claim().hostName, e.getMessage()));
        }
    }

    /** Has a machine make a key and a request for a certificate made out to its name. One that waited is dropped. */
    public String request(long claimId, Who.Person person) {
        Endpoints.TargetEndpoint endpoint = endpoint(claimId);
        Claim claim = endpoint.claim();
        WebCertificate.Request made = with(endpoint, client -> new WebCertificate(client)
                .request(claim.fqdn(), List.of(claim.fqdn(), claim.address.toString())));
        QuarkusTransaction.requiringNew().run(() -> {
            waiting(claimId).ifPresent(old -> {
                old.state = CertificateRequest.CertificateRequestState.DROPPED;
                db.flush(); // of those that wait there is one
            });
            CertificateRequest row = new CertificateRequest();
            row.claimId = claimId;
            row.request = made.pem();
            row.collection = made.collection();
            row.askedBy = person.id();
            row.askedAt = clock.instant();
            db.persist(row);
            journal.write(
                    person,
                    endpoint.unit().bringUpId,
                    endpoint.unit().id,
                    ProveText.CREATED_A_CERTIFICATE_SIGNING_REQUEST.text(claim.hostName),
                    null,
                    null);
            live.tell(endpoint.unit().bringUpId, "prove");
        });
        return made.pem();
    }

    /** Puts a signed chain in, waits until it is shown, and remembers it. */
    public void putIn(long claimId, String pem, Who.Person person) {
        Endpoints.TargetEndpoint endpoint = endpoint(claimId);
        CertificateRequest request = QuarkusTransaction.requiringNew()
                .call(() -> waiting(claimId))
                .orElseThrow(() -> Refusal.conflict(ProveText.NO_SIGNING_REQUEST_IS_OPEN.said()));
        String chain;
        try {
            chain = SignedChain.check(pem, request.request, endpoint.claim().fqdn(), clock.instant());
        } catch (IllegalArgumentException e) {
            throw Refusal.fields(List.of(new Refusal.FieldFault("chain", e.getMessage())));
        }
        with(endpoint, client -> {
            new WebCertificate(client).replace(request.collection, chain);
            return null;
        });
        String shown = shownInstead(endpoint.target());
        QuarkusTransaction.requiringNew().run(() -> {
            CertificateRequest row = db.find(CertificateRequest.class, request.id);
            row.state = CertificateRequest.CertificateRequestState.PUT_IN;
            row.chain = chain;
            row.putInBy = person.id();
            row.putInAt = clock.instant();
            EndpointKey key = new EndpointKey(endpoint.unit().id, endpoint.claim().role);
            proofs.remember(key, shown);
            accepted.take(key, Traits.CERTIFICATE, shown, person);
            journal.write(
                    person,
                    endpoint.unit().bringUpId,
                    endpoint.unit().id,
                    ProveText.INSTALLED_A_SIGNED_CERTIFICATE.text(endpoint.claim().hostName),
                    endpoint.target().fingerprint(),
                    shown);
            live.tell(endpoint.unit().bringUpId, "prove");
        });
    }

    /** What it shows once that is another certificate than before; some take a while. */
    private String shownInstead(Target target) {
        long end = ticker.nanos() + AT_MOST.toNanos();
        while (ticker.nanos() < end) {
            try {
                String shown =
                        vantage.tls(target.address(), target.port(), LOOK).fingerprint();
                if (!shown.equals(target.fingerprint())) {
                    return shown;
                }
            } catch (WireFault e) {
                if (e.ours()) {
                    throw Refusal.conflict(e.getMessage());
                }
            }
            LockSupport.parkNanos(PAUSE_NANOS);
        }
        throw Refusal.conflict(ProveText.MACHINE_ACCEPTED_THE_CERTIFICATE_BUT_STILL.said(AT_MOST.toSeconds()));
    }
}
