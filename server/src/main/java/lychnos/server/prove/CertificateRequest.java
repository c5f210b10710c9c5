package lychnos.server.prove;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;

/** A request for a certificate (PKCS #10, RFC 2986) that a machine has made for a key of its own. */
@Entity
@Table(name = "certificate_request")
class CertificateRequest {

    /** Its state. */
    public enum CertificateRequestState {
        WAITING,
        /** A person installs the chain at the machine. */
        SIGNED,
        PUT_IN,
        DROPPED
    }

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    public Long id;

    @Column(name = "claim_id")
    public Long claimId;

    @Enumerated(EnumType.STRING)
    public CertificateWay way;

    /** PEM. */
    public String request;

    /** The machine's resource that the certificate goes to; empty where it is not over Redfish. */
    public String collection;

    @Column(name = "asked_by")
    public Long askedBy;

    @Column(name = "asked_at")
    public Instant askedAt;

    @Enumerated(EnumType.STRING)
    public CertificateRequestState state = CertificateRequestState.WAITING;

    /** PEM, from the machine's own upwards. */
    public String chain;

    @Column(name = "put_in_by")
    public Long putInBy;

    @Column(name = "put_in_at")
    public Instant putInAt;
}
