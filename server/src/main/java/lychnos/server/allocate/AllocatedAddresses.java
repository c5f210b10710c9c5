package lychnos.server.allocate;

import jakarta.enterprise.context.ApplicationScoped;
import java.util.List;
import lychnos.core.address.Address;
import lychnos.server.site.AddressesInUse;
import org.hibernate.Session;

/** Tells those who define networks what is allocated in them. */
@ApplicationScoped
class AllocatedAddresses implements AddressesInUse {

    private final Session db;

    AllocatedAddresses(Session db) {
        this.db = db;
    }

    @Override
    public List<Address> now(long networkId) {
        return db.createQuery(
                        "select c.address from Claim c where c.networkId = :id and c.releasedAt is null", Address.class)
                // the network itself is written when its definition has been looked at
                .setHint("org.hibernate.flushMode", "MANUAL")
                .setParameter("id", networkId)
                .getResultList();
    }

    @Override
    public boolean everAny(long networkId) {
        return db.createQuery("select count(*) from Claim where networkId = :id", Long.class)
                        .setParameter("id", networkId)
                        .getSingleResult()
                > 0;
    }
}
