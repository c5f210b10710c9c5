package lychnos.server.kinds;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;

/** What somebody is writing for the next version of a kind; it may be full of faults. */
@Entity
@Table(name = "kind_draft")
class KindDraft {

    @Id
    @Column(name = "kind_id")
    public String kindId;

    public String text;

    /** Grows with every save. */
    public long revision;

    @Column(name = "edited_by")
    public Long editedBy;

    @Column(name = "edited_at")
    public Instant editedAt;
}
