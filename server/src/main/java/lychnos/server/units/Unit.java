package lychnos.server.units;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import java.time.Instant;
import lychnos.core.address.Address;
import lychnos.core.fact.Mac;
import lychnos.core.fact.RackPosition;
import lychnos.server.database.InetType;
import lychnos.server.database.MacaddrType;
import lychnos.server.kinds.OfKind;
import org.hibernate.annotations.SQLRestriction;
import org.hibernate.annotations.Type;

/** A machine to be commissioned. Serial and MAC address are null until its label is read. */
@Entity
@SQLRestriction("retired_at is null")
public class Unit implements OfKind {

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    public Long id;

    @Column(name = "bring_up_id")
    public Long bringUpId;

    public int number;
    public String rack;

    /** Null, as the rack is, for what lives on a host. */
    @Column(name = "rack_unit")
    public Integer rackUnit;

    /** The word of its kind. */
    public String kind;

    /** The version of its kind that it is set up with. */
    @Column(name = "kind_version")
    public int kindVersion;

    /** Its own name, or null while it goes by its serial. */
    public String name;

    /** How many members it has. */
    public int members = 1;

    public String serial;

    @Type(MacaddrType.class)
    public Mac mac;

    public String model;

    @Type(InetType.class)
    @Column(name = "first_address")
    public Address firstAddress;

    /** Since when it is out of use; whatever lists units leaves those out. */
    @Column(name = "retired_at")
    public Instant retiredAt;

    @Override
    public String kindId() {
        return kind;
    }

    @Override
    public int versionOfKind() {
        return kindVersion;
    }

    @Override
    public long ofBringUp() {
        return bringUpId;
    }

    /** Where it is mounted; null for what lives on a host or was never said to be anywhere. */
    public RackPosition position() {
        return rack == null ? null : new RackPosition(rack, rackUnit);
    }

    /** Where it is, for people. */
    public String place() {
        return rack == null ? "" : position().toString();
    }

    public boolean known() {
        return serial != null && mac != null;
    }

    /** What to call it while it has no host name; the view {@code unit_label} says the same. */
    public String label() {
        return name != null ? name : serial != null ? serial : rack == null ? "unit " + number : place();
    }
}
