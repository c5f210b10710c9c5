package lychnos.server.allocate;

import jakarta.persistence.Column;
import jakarta.persistence.Embeddable;
import jakarta.persistence.EmbeddedId;
import jakarta.persistence.Entity;
import jakarta.persistence.Table;
import java.time.Instant;
import lychnos.core.address.Address;
import lychnos.core.fact.Mac;
import lychnos.server.database.InetType;
import lychnos.server.database.MacaddrType;
import org.hibernate.annotations.Type;

/** An address that answers but was not allocated here. */
@Entity
@Table(name = "unknown_device")
public class UnknownDevice {

    /** Which address of which network. */
    @Embeddable
    public record UnknownDeviceKey(
            @Column(name = "network_id") Long networkId, @Type(InetType.class) Address address) {}

    @EmbeddedId
    public UnknownDeviceKey key;

    @Type(MacaddrType.class)
    public Mac mac;

    /** Whether it answered when it was probed, rather than being only named or leased. */
    public boolean answered;

    public String sentence;

    /** What its Redfish service root says about it; null where none was read. */
    public String controller;

    @Column(name = "first_heard")
    public Instant firstHeard;

    @Column(name = "last_heard")
    public Instant lastHeard;
}
