package lychnos.server.store;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;

/** The certificate remembered for a unit. */
@Entity
@Table(name = "known_certificate")
public class KnownCertificate {

    @Id
    @Column(name = "unit_id")
    public Long unitId;

    public String fingerprint;

    @Column(name = "seen_at")
    public Instant seenAt;
}
