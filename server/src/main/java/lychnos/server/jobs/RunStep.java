package lychnos.server.jobs;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;

/** A step that ended, and what was seen in it. */
@Entity
@Table(name = "run_step")
public class RunStep {

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    public Long id;

    @Column(name = "run_id")
    public Long runId;

    public String step;
    public Instant at;
    public String note;
    public boolean holds;
}
