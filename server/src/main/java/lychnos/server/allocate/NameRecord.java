package lychnos.server.allocate;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;

/** A record that a claim needs, and how far it is on its way to the name server. */
@Entity
@Table(name = "name_record")
class NameRecord {

    /** Where a record stands. */
    public enum NameRecordState {
        PLANNED,
        SENDING,
        MADE,
        REFUSED,
        UNKNOWN,
        WITHDRAWING,
        WITHDRAWN
    }

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    public Long id;

    @Column(name = "claim_id")
    public Long claimId;

    public String zone;
    public String owner;
    public String type;
    public String data;

    @Enumerated(EnumType.STRING)
    public NameRecordState state;

    public String answer = "";
    public Instant at;
}
