package lychnos.server.prove;

import jakarta.persistence.Column;
import jakarta.persistence.EmbeddedId;
import jakarta.persistence.Entity;
import jakarta.persistence.Table;
import java.time.Instant;

/** What an endpoint showed of itself when it was accepted. */
@Entity
@Table(name = "accepted_trait")
class AcceptedTrait {

    @EmbeddedId
    public TraitKey key;

    public String value;
    public Instant at;

    /** Who took it for right; null where it was so when the endpoint was proven. */
    @Column(name = "accepted_by")
    public Long acceptedBy;
}
