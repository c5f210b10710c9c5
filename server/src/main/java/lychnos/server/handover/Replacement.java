package lychnos.server.handover;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import java.time.Instant;
import java.util.Map;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/** A machine that took the place of another. */
@Entity
class Replacement {

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    public Long id;

    @Column(name = "unit_id")
    public Long unitId;

    public String member;

    /** What the old one was told by, by the names of facts. */
    @JdbcTypeCode(SqlTypes.JSON)
    public Map<String, String> before;

    @JdbcTypeCode(SqlTypes.JSON)
    public Map<String, String> after;

    public String why;

    @Column(name = "replaced_by")
    public Long replacedBy;

    @Column(name = "replaced_at")
    public Instant replacedAt;
}
