package lychnos.server.prove;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;

/** What an endpoint came to, where that was something else than before. */
@Entity
@Table(name = "proof_change")
class ProofChange {

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    public Long id;

    @Column(name = "claim_id")
    public Long claimId;

    public Instant at;
    public int height;
    public boolean proven;
    public String sentence;

    /** By rung, one letter: h holds, b broken, n not reached, m not measured. */
    public String standings = "";
}
