package lychnos.server.handover;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;

/** What was signed of a unit. The database lets nothing of it be changed but its end, once. */
@Entity
@Table(name = "record")
class SignedRecord {

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    public Long id;

    @Column(name = "bring_up_id")
    public Long bringUpId;

    @Column(name = "unit_id")
    public Long unitId;

    /** Canonical JSON (RFC 8785). */
    public String body;

    /** SHA-256 of the body, in hexadecimal. */
    public String digest;

    @Column(name = "signed_by")
    public Long signedBy;

    @Column(name = "signed_at")
    public Instant signedAt;

    @Column(name = "ended_at")
    public Instant endedAt;

    @Column(name = "ended_by")
    public Long endedBy;

    @Column(name = "ended_why")
    public String endedWhy = "";
}
