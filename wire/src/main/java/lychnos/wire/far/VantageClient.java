package lychnos.wire.far;

import io.vertx.core.Vertx;
import io.vertx.core.http.WebSocket;
import io.vertx.core.http.WebSocketClient;
import io.vertx.core.http.WebSocketClientOptions;
import io.vertx.core.http.WebSocketConnectOptions;
import java.io.IOException;
import java.net.URI;
import java.time.Duration;
import java.util.List;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import lychnos.core.address.Prefix;
import lychnos.core.fact.Secret;
import lychnos.wire.time.Ticker;

/**
 * Dials out to a server over WebSocket (RFC 6455) and stays linked: tries again with growing pauses, tells within
 * seconds when the server is gone. Nothing listens here, so that no port has to be opened into this network.
 */
public final class VantageClient implements AutoCloseable {

    /** Where a server takes links. */
    public static final String PATH = "/api/vantages/link";

    private static final int LARGEST = 4_000_000;
    private static final Duration PING = Duration.ofSeconds(4);
    private static final Duration DEAD = Duration.ofSeconds(13);
    private static final Duration LONGEST_PAUSE = Duration.ofSeconds(10);
    private static final int REFUSED = 401;

    private final Vertx vertx;
    private final Codec codec;
    private final URI server;
    private final Secret token;
    private final boolean hearsSilence;
    private final Ears ears;
    private final Consumer<String> says;
    private final Ticker ticker;
    private final WebSocketClient client;
    private final AtomicReference<WebSocket> socket = new AtomicReference<>();
    private volatile boolean closed;
    private long pause = 500;
    private volatile long heardAt;

    /** What happens with what the server says. */
    public interface Ears {

        /** The server has taken the link, and says which networks there are. */
        void linked(Link to, LinkMessage.Welcome welcome);

        void heard(LinkMessage message, Link from);

        void cut(Link which);

        /** Ids of the dialogues that the server is told of in the greeting. */
        List<Long> dialogues();
    }

    /**
     * Begins to dial.
     *
     * @param server such as {@code https://lychnos.ardal.example}
     * @param says what people who look at this program should see
     * @param ticker by which a link that says nothing is given up
     */
    public VantageClient(
            Vertx vertx,
            Codec codec,
            URI server,
            Secret token,
            boolean hearsSilence,
            Ears ears,
            Consumer<String> says,
            Ticker ticker) {
        this.vertx = vertx;
        this.codec = codec;
        this.server = server;
        this.token = token;
        this.hearsSilence = hearsSilence;
        this.ears = ears;
        this.says = says;
        this.ticker = ticker;
        client = vertx.createWebSocketClient(new WebSocketClientOptions()
                .setMaxMessageSize(LARGEST)
                .setMaxFrameSize(65_536)
                .setConnectTimeout(5000)
                .setSsl(server.getScheme().equals("https")));
        dial();
        vertx.setPeriodic(PING.toMillis(), tick -> ping());
    }

    private void dial() {
        int port = server.getPort() > 0 ? server.getPort() : server.getScheme().equals("https") ? 443 : 80;
        WebSocketConnectOptions to = new WebSocketConnectOptions()
                .setHost(server.getHost())
                .setPort(port)
                .setURI(PATH);
        token.use(word -> to.addHeader("Authorization", "Bearer " + word));
        client.connect(to).onSuccess(this::stand).onFailure(fault -> {
            boolean refused = fault instanceof io.vertx.core.http.UpgradeRejectedException rejected
                    && rejected.getStatus() == REFUSED;
            says.accept(
                    refused ? LinkText.TOKEN_UNKNOWN.text(server) : LinkText.NO_LINK.text(server, fault.getMessage()));
            again();
        });
    }

    private void again() {
        if (!closed) {
            vertx.setTimer(pause, timer -> dial());
            pause = Math.min(LONGEST_PAUSE.toMillis(), pause * 2);
        }
    }

    private void stand(WebSocket made) {
        socket.set(made);
        heardAt = ticker.nanos();
        Link link = message -> {
            if (made.isClosed()) {
                throw new IllegalStateException("the link is cut");
            }
            made.writeTextMessage(codec.write(message));
        };
        made.textMessageHandler(text -> {
            heardAt = ticker.nanos();
            hear(text, link);
        });
        made.closeHandler(end -> {
            socket.compareAndSet(made, null);
            says.accept(LinkText.LINK_LOST.text(server));
            ears.cut(link);
            again();
        });
        made.exceptionHandler(fault -> {}); // the close that follows it is enough
        link.send(new LinkMessage.Hello(LinkMessage.VERSION, hearsSilence, ears.dialogues()));
    }

    private void hear(String text, Link link) {
        try {
            LinkMessage message = codec.read(text, LinkMessage.class);
            if (message instanceof LinkMessage.Welcome welcome) {
                pause = 500;
                List<Prefix> networks = welcome.networks();
                says.accept(
                        networks.isEmpty()
                                ? LinkText.LINKED_WITHOUT_NETWORKS.text(server, welcome.name())
                                : LinkText.LINKED.text(
                                        server,
                                        welcome.name(),
                                        networks.stream().map(Prefix::toString).collect(Collectors.joining(", "))));
                ears.linked(link, welcome);
            } else if (message instanceof LinkMessage.TurnedAway away) {
                pause = LONGEST_PAUSE.toMillis();
                says.accept(LinkText.LINK_REFUSED.text(server, away.why()));
            } else if (message instanceof LinkMessage.Alive) {
                // nothing to do: it has said that it is there
            } else {
                ears.heard(message, link);
            }
        } catch (IOException e) {
            says.accept(LinkText.MESSAGE_UNREADABLE.text(e.getMessage()));
        }
    }

    private void ping() {
        WebSocket now = socket.get();
        if (now == null) {
            return;
        }
        if (ticker.nanos() - heardAt > DEAD.toNanos()) {
            now.close();
        } else {
            now.writeTextMessage(codec.write(new LinkMessage.Alive()));
        }
    }

    @Override
    public void close() {
        closed = true;
        client.close();
    }
}
