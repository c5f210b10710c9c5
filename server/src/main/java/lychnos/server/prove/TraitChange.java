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

/** Something that an endpoint shows otherwise than it was accepted. */
@Entity
@Table(name = "trait_change")
class TraitChange {

    /** Its state. */
    public enum TraitState {
        /** Not decided yet. */
        OPEN,
        /** Somebody holds it for a fault. */
        FAULT,
        /** Somebody took it for right. */
        ACCEPTED,
        /** It is as before again. */
        GONE
    }

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    public Long id;

    @Column(name = "claim_id")
    public Long claimId;

    public String what;
    public String before;
    public String now;
    public Instant since;

    @Enumerated(EnumType.STRING)
    public TraitState state = TraitState.OPEN;

    public String reason = "";

    @Column(name = "decided_by")
    public Long decidedBy;

    @Column(name = "decided_at")
    public Instant decidedAt;
}
