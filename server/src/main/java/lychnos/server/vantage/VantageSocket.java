package lychnos.server.vantage;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import io.quarkus.runtime.ShutdownEvent;
import io.quarkus.websockets.next.OnClose;
import io.quarkus.websockets.next.OnOpen;
import io.quarkus.websockets.next.OnTextMessage;
import io.quarkus.websockets.next.WebSocket;
import io.quarkus.websockets.next.WebSocketConnection;
import jakarta.annotation.security.PermitAll;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.enterprise.event.Observes;
import jakarta.enterprise.inject.Instance;
import java.io.IOException;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import lychnos.server.time.Ticker;
import lychnos.wire.far.Link;
import lychnos.wire.far.VantageClient;
import org.jboss.logging.Logger;

/** Takes the links of vantages. Who has no token does not come as far as here; see {@link VantageUpgrade}. */
@WebSocket(path = VantageClient.PATH)
@ApplicationScoped
@PermitAll
public class VantageSocket {

    private final Ticker ticker;

    private static final Logger LOG = Logger.getLogger(VantageSocket.class);
    private static final long LOOK_SECONDS = 3;
    /** A vantage says every four seconds that it is there. */
    private static final long DEAD_NANOS = 13_000_000_000L;

    private final Vantages vantages;
    private final Instance<VantageEars> ears;
    private final Map<String, Standing> links = new ConcurrentHashMap<>();
    private final ScheduledExecutorService clockwork = Executors.newSingleThreadScheduledExecutor(work -> {
        Thread thread = new Thread(work, "vantage clock");
        thread.setDaemon(true);
        return thread;
    });

    VantageSocket(Vantages vantages, Instance<VantageEars> ears, Ticker ticker) {
        this.ticker = ticker;
        this.ears = ears;
        this.vantages = vantages;
        clockwork.scheduleWithFixedDelay(this::endWhatIsDead, LOOK_SECONDS, LOOK_SECONDS, TimeUnit.SECONDS);
    }

    /** A link that stands. */
    private static final class Standing {
        final String name;
        final WebSocketConnection connection;
        final Link link;
        volatile long heardAt;

        Standing(String name, WebSocketConnection connection, long now) {
            heardAt = now;
            this.name = name;
            this.connection = connection;
            link = message -> {
                if (connection.isClosed()) {
                    throw new IllegalStateException("the link is cut");
                }
                connection
                        .sendText(message)
                        .subscribe()
                        .with(
                                sent -> {},
                                fault -> LOG.debugf("nothing reaches vantage %s: %s", name, fault.getMessage()));
            };
        }
    }

    void stop(@Observes ShutdownEvent event) {
        clockwork.shutdownNow();
    }

    @OnOpen
    void open(WebSocketConnection connection) {
        vantages.nameOf(VantageUpgrade.token(connection.handshakeRequest().header("Authorization")))
                .ifPresent(name -> links.put(connection.id(), new Standing(name, connection, ticker.nanos())));
    }

    @OnTextMessage
    void message(String text, WebSocketConnection connection) {
        Standing standing = links.get(connection.id());
        if (standing == null) {
            return;
        }
        standing.heardAt = ticker.nanos();
        try {
            JsonNode message = vantages.codec().read(text);
            if (message.has("hello")) {
                vantages.linked(standing.name, standing.link, message.path("hello"));
                welcome(standing);
                ears.forEach(each -> each.linked(
                        standing.name, standing.link, message.path("hello").path("holding")));
            } else if (message.has("alive")) {
                standing.link.send(text);
            } else if (!vantages.link(standing.name).heard(message)
                    && ears.stream().noneMatch(each -> each.heard(standing.name, message, standing.link))) {
                LOG.debugf("vantage point %s sent an unknown message", standing.name);
            }
        } catch (IOException | IllegalArgumentException | IllegalStateException e) {
            LOG.warnf("vantage %s: %s", standing.name, e.getMessage());
        }
    }

    private void welcome(Standing standing) {
        ObjectNode welcome = vantages.codec().json().createObjectNode();
        ObjectNode inside = welcome.putObject("welcome").put("name", standing.name);
        vantages.networksOf(standing.name).forEach(inside.putArray("networks")::add);
        standing.link.send(vantages.codec().write(welcome));
    }

    /** A vantage is for other networks from now on, or its token is taken no more. */
    void changed(String name) {
        for (Standing standing : links.values()) {
            if (!standing.name.equals(name)) {
                continue;
            }
            if (vantages.nameOf(VantageUpgrade.token(
                            standing.connection.handshakeRequest().header("Authorization")))
                    .isEmpty()) {
                end(standing);
            } else {
                welcome(standing);
            }
        }
    }

    private void endWhatIsDead() {
        try {
            links.values().stream()
                    .filter(standing -> ticker.nanos() - standing.heardAt > DEAD_NANOS)
                    .forEach(this::end);
            vantages.stillLinked(links.values().stream()
                    .map(standing -> standing.name)
                    .distinct()
                    .toList());
        } catch (RuntimeException e) {
            LOG.warnf("It cannot be said now which vantages are linked here (%s); trying again.", e.getMessage());
        }
    }

    private void end(Standing standing) {
        standing.connection
                .close()
                .subscribe()
                .with(closed -> {}, fault -> LOG.debugf("vantage %s: %s", standing.name, fault.getMessage()));
        over(standing.connection);
    }

    @OnClose
    void over(WebSocketConnection connection) {
        Standing standing = links.remove(connection.id());
        if (standing != null) {
            if (vantages.cut(standing.name, standing.link)) {
                ears.forEach(each -> each.cut(standing.name));
            }
        }
    }
}
