package lychnos.server.live.sockets;

import io.quarkus.security.identity.SecurityIdentity;
import io.quarkus.websockets.next.WebSocketConnection;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.enterprise.event.Observes;
import java.time.Duration;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import lychnos.server.identity.Sessions;
import lychnos.server.identity.caller.Credential;
import lychnos.server.identity.caller.Who;
import lychnos.server.live.SessionsChanged;
import lychnos.server.text.ApiText;
import lychnos.server.time.Clockwork;
import org.jboss.logging.Logger;

/**
 * Sockets that browsers have opened here, each bound to the session or token that opened it: they end with it. An
 * account has so many at once and no more. Safe for use by many threads.
 */
@ApplicationScoped
public class OpenSockets {

    private static final Logger LOG = Logger.getLogger(OpenSockets.class);
    /** A person with several windows, each with a bench of consoles open. */
    private static final int MOST_OF_AN_ACCOUNT = 60;
    /** Sessions also end by time, of which nobody tells. */
    private static final Duration LOOK = Duration.ofSeconds(30);

    private static final String NOT_KNOWN = ApiText.SESSIONS_CANNOT_BE_READ_NOW.text();

    private final Sessions sessions;
    private final Map<String, Bound> open = new ConcurrentHashMap<>();
    private final Clockwork clockwork;

    private record Bound(WebSocketConnection connection, long account, Credential credential) {}

    OpenSockets(Sessions sessions, Clockwork clockwork) {
        this.sessions = sessions;
        this.clockwork = clockwork;
        clockwork.every(LOOK, NOT_KNOWN, this::endWhatIsNotGood);
    }

    /** Binds a socket that was just opened; false where the account has too many, and it is closed. */
    public boolean opened(WebSocketConnection connection, SecurityIdentity identity) {
        Who.Person person = identity.getAttribute(Who.ATTRIBUTE);
        Credential credential = identity.getAttribute(Credential.ATTRIBUTE);
        long others = open.values().stream()
                .filter(each -> each.account == person.id())
                .count();
        if (others >= MOST_OF_AN_ACCOUNT) {
            LOG.warnf("%s has %d sockets open; another one is refused", person.login(), others);
            close(connection);
            return false;
        }
        open.put(connection.id(), new Bound(connection, person.id(), credential));
        return true;
    }

    public void closed(WebSocketConnection connection) {
        open.remove(connection.id());
    }

    /** Whether what opened the socket is still good; it is closed where not. Asked of the database each time. */
    public boolean isGood(WebSocketConnection connection) {
        Bound bound = open.get(connection.id());
        if (bound == null || !sessions.good(bound.credential)) {
            closed(connection);
            close(connection);
            return false;
        }
        return true;
    }

    /** Ends a socket whose other end sends what no page of ours sends. */
    public void end(WebSocketConnection connection) {
        closed(connection);
        close(connection);
    }

    void sessionsChanged(@Observes SessionsChanged event) {
        clockwork.after(Duration.ZERO, NOT_KNOWN, this::endWhatIsNotGood);
    }

    private void endWhatIsNotGood() {
        Map<Credential, Boolean> good = new ConcurrentHashMap<>();
        for (Bound bound : open.values()) {
            if (!good.computeIfAbsent(bound.credential, sessions::good)) {
                end(bound.connection);
            }
        }
    }

    private static void close(WebSocketConnection connection) {
        connection
                .close()
                .subscribe()
                .with(done -> {}, fault -> LOG.debugf("a socket was gone already: %s", fault.getMessage()));
    }
}
