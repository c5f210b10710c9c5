package lychnos.server.site;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.util.UUID;
import lychnos.core.address.Address;
import lychnos.core.address.AddressRun;
import lychnos.server.database.InetType;
import org.hibernate.annotations.Type;

/** A pool, a kept range or a DHCP scope. */
@Entity
@Table(name = "address_range")
public class AddressRange {

    public static final String POOL = "pool";
    public static final String KEPT = "kept";
    public static final String DHCP = "dhcp";
    public static final String GROWTH = "growth";

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    public Long id;

    @Column(name = "network_id")
    public Long networkId;

    public String purpose;

    @Type(InetType.class)
    public Address first;

    @Type(InetType.class)
    public Address last;

    public String note;

    /** Whose growth it is kept for. */
    @Column(name = "unit_id")
    public Long unitId;

    /** The allocation that it belongs to. */
    public UUID allocation;

    public AddressRun run() {
        return new AddressRun(first, last);
    }
}
