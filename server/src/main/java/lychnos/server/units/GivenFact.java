package lychnos.server.units;

import jakarta.persistence.Column;
import jakarta.persistence.Embeddable;
import jakarta.persistence.EmbeddedId;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Table;
import java.time.Instant;
import lychnos.core.fact.Fact;

/** A value that somebody gave for a unit or one of its members. */
@Entity
@Table(name = "fact")
public class GivenFact {

    /** Which fact of whom; the member is empty for the unit's own. */
    @Embeddable
    public record GivenFactKey(@Column(name = "unit_id") Long unitId, String member, String name) {}

    @EmbeddedId
    public GivenFactKey key;

    public String value;

    @Enumerated(EnumType.STRING)
    public Fact.Source source;

    @Column(name = "set_by")
    public Long setBy;

    @Column(name = "set_at")
    public Instant setAt;

    @Column(name = "key_id")
    public String keyId;

    public byte[] nonce;
    public byte[] sealed;

    public Fact fact() {
        return new Fact(value, source);
    }
}
