package lychnos.server.live.sockets;

import io.quarkus.security.identity.SecurityIdentity;
import io.quarkus.websockets.next.OnClose;
import io.quarkus.websockets.next.OnOpen;
import io.quarkus.websockets.next.OnTextMessage;
import io.quarkus.websockets.next.WebSocket;
import io.quarkus.websockets.next.WebSocketConnection;
import jakarta.enterprise.context.SessionScoped;
import lychnos.server.live.Screens;

/**
 * The push channel of the screens: one line a change, {@code BRING-UP TOPIC}. For people who are signed in; it ends
 * with their session.
 */
@WebSocket(path = "/api/live", endpointId = Screens.ENDPOINT)
@SessionScoped
public class LiveSocket {

    private final OpenSockets sockets;
    private final SecurityIdentity identity;

    LiveSocket(OpenSockets sockets, SecurityIdentity identity) {
        this.sockets = sockets;
        this.identity = identity;
    }

    /** The first line says that the channel is open; who missed something looks again. */
    @OnOpen
    public String open(WebSocketConnection connection) {
        return sockets.opened(connection, identity) ? "0 all" : "0 closed";
    }

    /** Nothing is ever said from there. */
    @OnTextMessage
    void message(String text, WebSocketConnection connection) {
        sockets.end(connection);
    }

    @OnClose
    void close(WebSocketConnection connection) {
        sockets.closed(connection);
    }
}
