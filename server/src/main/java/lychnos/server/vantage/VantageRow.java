package lychnos.server.vantage;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;

/** A place in another network that reaches machines for us. */
@Entity
@Table(name = "vantage")
class VantageRow {

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    public Long id;

    public String name;

    /** SHA-256 of its token. */
    @Column(name = "token_digest")
    public String tokenDigest;

    @Column(name = "made_by")
    public Long madeBy;

    @Column(name = "made_at")
    public Instant madeAt;

    @Column(name = "revoked_at")
    public Instant revokedAt;

    /** When a link to it stood last. */
    @Column(name = "seen_at")
    public Instant seenAt;

    /** Until when it is linked to a server, unless that one says so again; null where it never was. */
    @Column(name = "linked_until")
    public Instant linkedUntil;

    /** The version of the link that it spoke when it dialled in last; null where that is not known. */
    @Column(name = "link_version")
    public Integer linkVersion;
}
