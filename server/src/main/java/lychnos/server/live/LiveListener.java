package lychnos.server.live;

import io.quarkus.runtime.ShutdownEvent;
import io.quarkus.runtime.StartupEvent;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.enterprise.event.Event;
import jakarta.enterprise.event.Observes;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.concurrent.TimeUnit;
import javax.sql.DataSource;
import lychnos.server.database.ThisServer;
import org.jboss.logging.Logger;
import org.postgresql.PGConnection;
import org.postgresql.PGNotification;

/** Hears what any server on this database tells, and hands it to the browsers that are connected to this one. */
@ApplicationScoped
public class LiveListener {

    private static final Logger LOG = Logger.getLogger(LiveListener.class);
    private static final int PATIENCE_MILLIS = 5000;
    /** The topic of sessions and tokens that have ended; screens are not told. */
    private static final String SESSIONS = "sessions";

    private final DataSource database;
    private final Screens screens;
    private final Live live;
    private final Event<SessionsChanged> sessionsChanged;
    private volatile boolean stopped;
    private Thread thread;

    LiveListener(DataSource database, Screens screens, Live live, Event<SessionsChanged> sessionsChanged) {
        this.sessionsChanged = sessionsChanged;
        this.live = live;
        this.database = database;
        this.screens = screens;
    }

    void start(@Observes StartupEvent event) {
        thread = new Thread(this::listen, "live-listener");
        thread.setDaemon(true);
        thread.start();
    }

    void stop(@Observes ShutdownEvent event) {
        stopped = true;
        thread.interrupt();
    }

    private void listen() {
        while (!stopped) {
            try (Connection connection = database.getConnection();
                    Statement statement = connection.createStatement()) {
                connection.setAutoCommit(true);
                statement.execute("listen " + Live.CHANNEL);
                // what was told while nobody listened is lost: let every screen look again
                live.changed(0);
                sessionsChanged.fire(new SessionsChanged());
                screens.tell(0, "all");
                PGConnection postgres = connection.unwrap(PGConnection.class);
                while (!stopped) {
                    PGNotification[] heard = postgres.getNotifications(PATIENCE_MILLIS);
                    for (PGNotification notification : heard == null ? new PGNotification[0] : heard) {
                        hear(notification.getParameter().split(" "));
                    }
                }
            } catch (SQLException e) {
                if (!stopped) {
                    LOG.warnf("The database cannot be listened to (%s); trying again.", e.getMessage());
                    pause();
                }
            }
        }
    }

    /** @param told bring-up, topic, and which server tells it */
    private void hear(String[] told) {
        if (told[1].equals(SESSIONS)) {
            sessionsChanged.fire(new SessionsChanged());
            return;
        }
        long bringUp = Long.parseLong(told[0]);
        if (!told[2].equals(ThisServer.ID)) {
            live.changed(bringUp);
        }
        screens.tell(bringUp, told[1]);
    }

    private static void pause() {
        try {
            TimeUnit.SECONDS.sleep(1);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
