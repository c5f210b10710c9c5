package lychnos.server.handover;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import java.time.LocalDate;

/** What is accepted although it is otherwise, or is still to come. */
@Entity
@Table(name = "open_item")
class OpenItem {

    public static final String EXCEPTION = "exception";
    public static final String OPEN = "open";

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    public Long id;

    @Column(name = "bring_up_id")
    public Long bringUpId;

    /** Null where it is of the whole bring-up. */
    @Column(name = "unit_id")
    public Long unitId;

    public String sort;
    public String text;
    public String reason;
    public LocalDate due;

    /** Who answers for it. */
    public Long lead;

    @Column(name = "made_at")
    public Instant madeAt;

    @Column(name = "closed_at")
    public Instant closedAt;

    @Column(name = "closed_by")
    public Long closedBy;
}
