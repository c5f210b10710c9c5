package lychnos.server.prepare;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.util.List;
import lychnos.core.address.Prefix;
import org.hibernate.Session;

/**
 * The prefixes of all stated networks: what may be reached at all. Asked of the database each time, since a network that
 * was stated a moment ago must be reachable now, and one that is gone must not, on every server.
 */
@ApplicationScoped
public class DeclaredNetworks {

    private final Session db;

    DeclaredNetworks(Session db) {
        this.db = db;
    }

    @Transactional
    public List<Prefix> prefixes() {
        return db.createQuery("select n.prefix from Network n", Prefix.class).getResultList();
    }
}
