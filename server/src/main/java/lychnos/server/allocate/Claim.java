package lychnos.server.allocate;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import java.time.Instant;
import java.util.UUID;
import lychnos.core.address.Address;
import lychnos.server.database.InetType;
import org.hibernate.annotations.Type;

/** An address that a unit bears, with its name. */
@Entity
public class Claim {

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    public Long id;

    @Column(name = "unit_id")
    public Long unitId;

    @Column(name = "network_id")
    public Long networkId;

    @Column(name = "realm_id")
    public Long realmId;

    @Type(InetType.class)
    public Address address;

    @Column(name = "host_name")
    public String hostName;

    public String domain;

    /** What the address is for within the unit. */
    public String role = "management";

    /** Its place among the unit's addresses; the one at 0 is what the unit is managed at. */
    public int place;

    /** A second name, or null. */
    public String alias;

    @Column(name = "cools_until")
    public Instant coolsUntil;

    /** The same for all that were taken together, so that they can be undone together. */
    public UUID allocation;

    @Column(name = "taken_by")
    public Long takenBy;

    @Column(name = "taken_at")
    public Instant takenAt;

    @Column(name = "released_at")
    public Instant releasedAt;

    /** Whether this is the IPv6 address beside that one of IPv4: for the same purpose within the same unit. */
    public boolean besideIpv4(Claim other) {
        return unitId.equals(other.unitId) && role.equals(other.role) && !address.isV4() && other.address.isV4();
    }

    public String fqdn() {
        return hostName + "." + domain;
    }
}
