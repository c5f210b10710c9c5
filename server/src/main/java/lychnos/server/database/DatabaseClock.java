package lychnos.server.database;

import jakarta.enterprise.context.ApplicationScoped;
import java.time.Instant;
import org.hibernate.Session;

/** The clock that all servers share. Leases go by it: a server's own may be off, and may jump. */
@ApplicationScoped
public class DatabaseClock {

    private final Session db;

    DatabaseClock(Session db) {
        this.db = db;
    }

    /** What time it is now, within the transaction that is open. */
    public Instant now() {
        return db.createNativeQuery("select clock_timestamp()", Instant.class).getSingleResult();
    }
}
