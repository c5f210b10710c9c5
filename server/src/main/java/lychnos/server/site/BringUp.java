package lychnos.server.site;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.FetchType;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.JoinColumn;
import jakarta.persistence.ManyToOne;
import jakarta.persistence.Table;
import java.time.LocalDate;

/** One batch of units with a due date. */
@Entity
@Table(name = "bring_up")
public class BringUp {

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    public Long id;

    @ManyToOne(fetch = FetchType.EAGER)
    @JoinColumn(name = "site_id")
    public Site site;

    @Column(name = "realm_id")
    public Long realmId;

    public String name;
    public String kind;
    public LocalDate due;

    @Column(name = "name_pattern")
    public String namePattern;

    /** The network that its units take addresses from, or null while none is stated. */
    @ManyToOne(fetch = FetchType.EAGER)
    @JoinColumn(name = "network_id")
    public Network network;
}
