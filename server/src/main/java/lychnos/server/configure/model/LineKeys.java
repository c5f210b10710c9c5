package lychnos.server.configure.model;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.time.Clock;
import java.time.Instant;
import java.util.Optional;
import org.hibernate.Session;

/** The host keys of console servers that are reached over SSH, as they were seen first. */
@ApplicationScoped
public class LineKeys {

    private final Session db;
    private final Clock clock;

    LineKeys(Session db, Clock clock) {
        this.db = db;
        this.clock = clock;
    }

    /** Whether a console server has the key that is remembered of it; an unknown key is remembered. */
    @Transactional
    public boolean keyIsAsRemembered(String server, String fingerprint) {
        db.createNativeMutationQuery(
                        "insert into line_key (server, fingerprint, seen_at) values (:server, :key, :at) on conflict "
                                + "do nothing")
                .setParameter("server", server)
                .setParameter("key", fingerprint)
                .setParameter("at", Instant.now(clock))
                .executeUpdate();
        return db.createNativeQuery("select fingerprint from line_key where server = :server", String.class)
                .setParameter("server", server)
                .getSingleResult()
                .equals(fingerprint);
    }

    /** Where a place is remembered for as long as a setup lasts: another machine may have its address later. */
    public static String during(long runId, String place) {
        return "run " + runId + " " + place;
    }

    /** What was remembered when something was first seen at a place; empty where nothing was. */
    @Transactional
    public Optional<String> remembered(String server) {
        return db.createNativeQuery("select fingerprint from line_key where server = :server", String.class)
                .setParameter("server", server)
                .getResultStream()
                .findFirst();
    }
}
