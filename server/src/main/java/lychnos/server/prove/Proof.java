package lychnos.server.prove;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import lychnos.core.proof.Beside;
import lychnos.core.proof.Outcome;
import lychnos.core.proof.Settings;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/** The newest climb of one endpoint. */
@Entity
public class Proof {

    @Id
    @Column(name = "claim_id")
    public Long claimId;

    @Column(name = "unit_id")
    public Long unitId;

    public Instant at;
    public String place;
    public int height;
    public String broken;

    /** The mark beside the ladder that does not hold, where the ladder does. */
    public String mark;

    public String sentence;
    public String press;
    public boolean proven;

    @Column(name = "proven_at")
    public Instant provenAt;

    @JdbcTypeCode(SqlTypes.JSON)
    public List<Outcome> outcomes;

    @JdbcTypeCode(SqlTypes.JSON)
    public List<Settings.Field> fields;

    @JdbcTypeCode(SqlTypes.JSON)
    public List<Beside> beside;

    /** Of the certificate that was shown, or null. */
    public String fingerprint;

    /** The last day of the certificate that was shown, or null. */
    @Column(name = "certificate_ends")
    public LocalDate certificateEnds;

    /** The certificates that were shown, from its own upwards; PEM, or null. */
    public List<String> chain;

    /** Type and key of its SSH host key, as a line of known hosts has them; or null. */
    @Column(name = "host_key")
    public String hostKey;

    public String firmware;
    public Double millis;
}
