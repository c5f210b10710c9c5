package lychnos.server.prove;

import jakarta.persistence.Column;
import jakarta.persistence.EmbeddedId;
import jakarta.persistence.Entity;
import jakarta.persistence.Table;
import java.time.Instant;

/** The certificate and the SSH host key remembered for what an address is for. */
@Entity
@Table(name = "known_certificate")
class KnownCertificate {

    @EmbeddedId
    public EndpointKey key;

    /** Of the certificate, or null. */
    public String fingerprint;

    /** The fingerprint of its SSH host key, or null. */
    @Column(name = "host_key")
    public String hostKey;

    @Column(name = "seen_at")
    public Instant seenAt;
}
