package lychnos.server.units;

import jakarta.persistence.Column;
import jakarta.persistence.Embeddable;
import jakarta.persistence.EmbeddedId;
import jakarta.persistence.Entity;
import jakarta.persistence.Table;
import java.time.Instant;

/** A check at the rack that a person has ticked. */
@Entity
@Table(name = "rack_tick")
class RackTick {

    /** Which check of whom; the member is empty for the unit's own. */
    @Embeddable
    record RackTickKey(@Column(name = "unit_id") Long unitId, String member, String text) {}

    @EmbeddedId
    RackTickKey key;

    @Column(name = "by_login")
    String byLogin;

    Instant at;
}
