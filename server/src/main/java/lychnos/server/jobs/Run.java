package lychnos.server.jobs;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import java.time.Instant;
import lychnos.core.address.Address;
import lychnos.core.order.RunState;
import lychnos.core.order.SetupStep;
import lychnos.server.database.InetType;
import org.hibernate.annotations.Type;

/** Long work on one unit. */
@Entity
public class Run {

    public static final String CONFIGURE = "configure";
    public static final String PROVE = "prove";
    /** The password of a machine in use is replaced. */
    public static final String PASSWORD = "password";

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    public Long id;

    @Column(name = "round_id")
    public Long roundId;

    @Column(name = "unit_id")
    public Long unitId;

    public String purpose;

    /** Of a machine that was replaced since. */
    public boolean earlier;

    /** Its place in the round's order. */
    public int place;

    @Enumerated(EnumType.STRING)
    public RunState state;

    @Enumerated(EnumType.STRING)
    public SetupStep step;

    public String note = "";
    public String advice = "";

    /** Where the machine was last known to answer. */
    @Type(InetType.class)
    @Column(name = "found_at")
    public Address foundAt;

    public long fence;

    @Column(name = "lease_owner")
    public String leaseOwner;

    @Column(name = "lease_until")
    public Instant leaseUntil;

    public boolean cancel;

    /** Up to which rung a check goes, counted from 0; null for all of them. */
    public Integer rung;

    @Column(name = "created_at")
    public Instant createdAt;

    @Column(name = "started_at")
    public Instant startedAt;

    @Column(name = "step_at")
    public Instant stepAt;

    @Column(name = "ended_at")
    public Instant endedAt;

    /** Changes the state along the legal transitions of {@link RunState} alone. */
    public void become(RunState next, Instant at) {
        if (!state.mayBecome(next)) {
            throw new IllegalStateException("a run that is " + state + " cannot become " + next);
        }
        state = next;
        endedAt = next.ended() ? at : null;
    }
}
