package lychnos.server.store;

import jakarta.persistence.Column;
import jakarta.persistence.EmbeddedId;
import jakarta.persistence.Entity;
import jakarta.persistence.Table;
import java.time.Instant;

/** The certificate remembered for what an address is for. */
@Entity
@Table(name = "known_certificate")
public class KnownCertificate {

    @EmbeddedId
    public EndpointKey key;

    public String fingerprint;

    @Column(name = "seen_at")
    public Instant seenAt;
}
