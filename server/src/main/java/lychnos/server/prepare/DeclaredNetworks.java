package lychnos.server.prepare;

import jakarta.enterprise.context.ApplicationScoped;
import org.hibernate.Session;
import jakarta.transaction.Transactional;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import lychnos.core.address.Prefix;

/** The prefixes of all stated networks: what may be reached at all. Remembered for two seconds. */
@ApplicationScoped
public class DeclaredNetworks {

    private static final Duration REMEMBERED = Duration.ofSeconds(2);

    private final Session db;
    private final Clock clock;
    private volatile Known known = new Known(Instant.MIN, List.of());

    private record Known(Instant at, List<Prefix> prefixes) {}

    DeclaredNetworks(Session db, Clock clock) {
        this.db = db;
        this.clock = clock;
    }

    @Transactional(Transactional.TxType.REQUIRED)
    public List<Prefix> prefixes() {
        Instant now = clock.instant();
        if (known.at.isBefore(now.minus(REMEMBERED))) {
            known = new Known(now, db.createQuery("select n.prefix from Network n", Prefix.class).getResultList());
        }
        return known.prefixes;
    }
}
