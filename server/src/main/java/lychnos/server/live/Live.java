package lychnos.server.live;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Status;
import jakarta.transaction.Synchronization;
import jakarta.transaction.TransactionSynchronizationRegistry;
import jakarta.transaction.Transactional;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Duration;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicLong;
import javax.sql.DataSource;
import lychnos.server.database.ThisServer;
import lychnos.server.time.Clockwork;
import org.jboss.logging.Logger;

/**
 * Tells every screen that looks at a bring-up that something in it changed, a moment after the transaction is
 * committed.
 *
 * <p>The telling has a transaction of its own. PostgreSQL lets transactions that notify commit one after another, each
 * with its wait for the disk: with the telling inside, whatever works in parallel would do so at the pace of one. What
 * changes again within that moment is sent once.
 */
@ApplicationScoped
public class Live {

    static final String CHANNEL = "lychnos";

    private static final Logger LOG = Logger.getLogger(Live.class);
    private static final AtomicLong NEVER = new AtomicLong();
    private static final Duration GATHERED = Duration.ofMillis(15);
    private static final Duration AGAIN = Duration.ofSeconds(1);

    private final DataSource database;
    private final TransactionSynchronizationRegistry transaction;
    private final Set<String> untold = new LinkedHashSet<>();
    private final Map<Long, AtomicLong> versions = new ConcurrentHashMap<>();
    private final AtomicBoolean due = new AtomicBoolean();
    private final Clockwork clockwork;

    Live(DataSource database, TransactionSynchronizationRegistry transaction, Clockwork clockwork) {
        this.clockwork = clockwork;
        this.database = database;
        this.transaction = transaction;
    }

    /** What one transaction has told already. */
    private record Told(String message) {}

    /** @param topic the stage that changed, in one word */
    @Transactional(Transactional.TxType.MANDATORY)
    public void tell(long bringUpId, String topic) {
        Told told = new Told(bringUpId + " " + topic);
        if (transaction.getResource(told) != null) {
            return;
        }
        transaction.putResource(told, told);
        transaction.registerInterposedSynchronization(new Synchronization() {
            @Override
            public void beforeCompletion() {}

            @Override
            public void afterCompletion(int status) {
                if (status == Status.STATUS_COMMITTED) {
                    put(told.message);
                }
            }
        });
    }

    /** Grows with whatever is told of a bring-up, by any server. */
    public long version(long bringUpId) {
        return versions.getOrDefault(0L, NEVER).get()
                + versions.getOrDefault(bringUpId, NEVER).get();
    }

    /** Something of a bring-up has changed; of all of them where it is 0. */
    void changed(long bringUpId) {
        versions.computeIfAbsent(bringUpId, none -> new AtomicLong()).incrementAndGet();
    }

    private void put(String message) {
        changed(Long.parseLong(message.split(" ")[0]));
        synchronized (untold) {
            untold.add(message);
        }
        schedule(GATHERED);
    }

    private void schedule(Duration pause) {
        if (due.compareAndSet(false, true)) {
            clockwork.after(pause, "Screens cannot be told now", this::send);
        }
    }

    private void send() {
        due.set(false);
        Set<String> now;
        synchronized (untold) {
            now = new LinkedHashSet<>(untold);
            untold.clear();
        }
        try (Connection connection = database.getConnection()) {
            connection.setAutoCommit(false);
            try (Statement lax = connection.createStatement();
                    PreparedStatement notify = connection.prepareStatement(
                            "select pg_notify('" + CHANNEL + "', message) from unnest(?) as message")) {
                // nothing is lost: a screen that was cut off loads everything again
                lax.execute("set local synchronous_commit = off");
                notify.setArray(
                        1,
                        connection.createArrayOf(
                                "text",
                                now.stream()
                                        .map(message -> message + " " + ThisServer.ID)
                                        .toArray()));
                notify.execute();
            }
            connection.commit();
        } catch (SQLException e) {
            LOG.warnf("Screens cannot be told now (%s); trying again.", e.getMessage());
            synchronized (untold) {
                untold.addAll(now);
            }
            schedule(AGAIN);
        }
    }
}
