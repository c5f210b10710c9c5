package lychnos.server.jobs;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import java.time.Instant;

/** Units that are set up together, or whose passwords are replaced together. */
@Entity
public class Round {

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    public Long id;

    @Column(name = "bring_up_id")
    public Long bringUpId;

    /** That of its runs. */
    public String purpose = Run.CONFIGURE;

    public int width;

    @Column(name = "started_by")
    public Long startedBy;

    @Column(name = "started_at")
    public Instant startedAt;
}
