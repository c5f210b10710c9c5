package lychnos.server.vantage;

import io.quarkus.runtime.StartupEvent;
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
import java.time.Duration;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import lychnos.server.text.VantageText;
import lychnos.server.time.Clockwork;
import lychnos.wire.far.Codec;
import lychnos.wire.far.Link;
import lychnos.wire.far.LinkMessage;
import lychnos.wire.far.VantageClient;
import lychnos.wire.time.Ticker;
import org.jboss.logging.Logger;

/** Takes the links of vantages. Who has no token does not come as far as here; see {@link VantageUpgrade}. */
@WebSocket(path = VantageClient.PATH)
@ApplicationScoped
@PermitAll
public class VantageSocket {

    private final Ticker ticker;

    private static final Logger LOG = Logger.getLogger(VantageSocket.class);
    private static final Duration LOOK = Duration.ofSeconds(3);
    /** A vantage says every four seconds that it is there. */
    private static final long DEAD_NANOS = 13_000_000_000L;
    /** The version of the link before versions had numbers. */
    private static final int UNNUMBERED = 1;

    private final Vantages vantages;
    private final Instance<VantageEars> ears;
    private final Map<String, Standing> links = new ConcurrentHashMap<>();

    VantageSocket(Vantages vantages, Instance<VantageEars> ears, Ticker ticker) {
        this.ticker = ticker;
        this.ears = ears;
        this.vantages = vantages;
    }

    /** A link that stands. */
    private static final class Standing {
        final String name;
        final WebSocketConnection connection;
        final Link link;
        volatile long heardAt;
        /** What it said is being worked on here: what it says meanwhile waits, so that it cannot be taken for dead. */
        volatile boolean working;

        volatile boolean greeted;
        volatile LinkMessage.Welcome welcomed;

        Standing(String name, WebSocketConnection connection, Codec codec, long now) {
            heardAt = now;
            this.name = name;
            this.connection = connection;
            link = message -> {
                if (connection.isClosed()) {
                    throw new IllegalStateException("the link is cut");
                }
                connection
                        .sendText(codec.write(message))
                        .subscribe()
                        .with(
                                sent -> {},
                                fault -> LOG.debugf("nothing reaches vantage %s: %s", name, fault.getMessage()));
            };
        }
    }

    void start(@Observes StartupEvent event, Clockwork clockwork) {
        clockwork.every(LOOK, "It cannot be recorded now which vantage points are linked here", this::endWhatIsDead);
    }

    @OnOpen
    void open(WebSocketConnection connection) {
        vantages.nameOf(VantageUpgrade.token(connection.handshakeRequest().header("Authorization")))
                .ifPresent(name ->
                        links.put(connection.id(), new Standing(name, connection, vantages.codec(), ticker.nanos())));
    }

    @OnTextMessage
    void message(String text, WebSocketConnection connection) {
        Standing standing = links.get(connection.id());
        if (standing == null) {
            return;
        }
        standing.working = true;
        try {
            hear(text, standing);
        } finally {
            standing.heardAt = ticker.nanos();
            standing.working = false;
        }
    }

    private void hear(String text, Standing standing) {
        LinkMessage message;
        try {
            message = vantages.codec().read(text, LinkMessage.class);
        } catch (IOException e) {
            if (standing.greeted) {
                LOG.warnf("vantage %s sent something that cannot be read: %s", standing.name, e.getMessage());
            } else {
                turnAway(standing, UNNUMBERED);
            }
            return;
        }
        try {
            take(message, standing);
        } catch (IOException | IllegalArgumentException | IllegalStateException e) {
            LOG.warnf("vantage %s: %s", standing.name, e.getMessage());
        }
    }

    private void take(LinkMessage message, Standing standing) throws IOException {
        if (message instanceof LinkMessage.Hello hello) {
            greet(hello, standing);
        } else if (message instanceof LinkMessage.Alive alive) {
            standing.link.send(alive);
        } else if (!standing.greeted) {
            LOG.warnf("vantage %s sent a message before its greeting; it is ignored", standing.name);
        } else if (message instanceof LinkMessage.Note note) {
            for (VantageEars each : ears) {
                each.noted(standing.name, note.what(), standing.link);
            }
        } else {
            if (!vantages.link(standing.name).heard(message)) {
                LOG.warnf(
                        "vantage %s sent %s, which only a server sends",
                        standing.name, message.getClass().getSimpleName());
            }
        }
    }

    private void greet(LinkMessage.Hello hello, Standing standing) {
        if (hello.version() != LinkMessage.VERSION) {
            turnAway(standing, hello.version());
            return;
        }
        standing.greeted = true;
        vantages.linked(standing.name, standing.link, hello);
        welcome(standing);
        ears.forEach(each -> each.linked(standing.name, standing.link, hello.dialogues()));
    }

    private void turnAway(Standing standing, int version) {
        LOG.warnf(
                "vantage %s speaks version %d of the link, and this server version %d: it is turned away",
                standing.name, version, LinkMessage.VERSION);
        // said first: it does not depend on the database
        standing.link.send(new LinkMessage.TurnedAway(
                LinkMessage.VERSION, VantageText.VANTAGE_POINT_AND_THE_SERVER.text(version, LinkMessage.VERSION)));
        try {
            vantages.turnedAway(standing.name, version);
        } finally {
            end(standing);
        }
    }

    private void welcome(Standing standing) {
        LinkMessage.Welcome welcome = vantages.welcome(standing.name);
        standing.welcomed = welcome;
        standing.link.send(welcome);
    }

    /** Networks come and go elsewhere, on other servers too. */
    private void welcomeAgain() {
        for (Standing standing : links.values()) {
            if (standing.greeted && !vantages.welcome(standing.name).equals(standing.welcomed)) {
                welcome(standing);
            }
        }
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
            } else if (standing.greeted) {
                welcome(standing);
            }
        }
    }

    private void endWhatIsDead() {
        links.values().stream()
                .filter(standing -> !standing.working && ticker.nanos() - standing.heardAt > DEAD_NANOS)
                .forEach(this::end);
        vantages.stillLinked(links.values().stream()
                .filter(standing -> standing.greeted)
                .map(standing -> standing.name)
                .distinct()
                .toList());
        welcomeAgain();
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
