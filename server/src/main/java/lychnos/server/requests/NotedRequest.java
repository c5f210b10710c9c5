package lychnos.server.requests;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import java.time.LocalDate;

/** What people have noted of a request to another team. */
@Entity
@Table(name = "team_request")
class NotedRequest {

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    Long id;

    @Column(name = "bring_up_id")
    Long bringUpId;

    /** That of the plan's request, or one of its own. */
    String key;

    /** What is asked for, as it was when somebody noted something. */
    String title;

    /** Whether a person has added it; the others come from the plan. */
    boolean own;

    @Enumerated(EnumType.STRING)
    RequestState state = RequestState.TO_ASK;

    String person = "";
    LocalDate due;
    String note = "";

    @Column(name = "changed_by")
    String changedBy;

    @Column(name = "changed_at")
    Instant changedAt;

    /** Counts the changes, from 1. */
    int version = 1;
}
