package lychnos.server.store;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import lychnos.core.address.Address;
import lychnos.core.fact.Mac;
import lychnos.core.fact.RackPosition;
import org.hibernate.annotations.Type;

/** A machine to be commissioned. Serial and hardware address are null until its label is read. */
@Entity
public class Unit {

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    public Long id;

    @Column(name = "bring_up_id")
    public Long bringUpId;

    public int number;
    public String rack;

    @Column(name = "rack_unit")
    public int rackUnit;

    public String serial;

    @Type(MacaddrType.class)
    public Mac mac;

    public String model;

    @Type(InetType.class)
    @Column(name = "first_address")
    public Address firstAddress;

    public RackPosition position() {
        return new RackPosition(rack, rackUnit);
    }

    public boolean known() {
        return serial != null;
    }

    /** What to call it while it has no host name. */
    public String label() {
        return serial == null ? position().toString() : serial;
    }
}
