package lychnos.server.configure.bench;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import io.quarkus.security.identity.SecurityIdentity;
import io.quarkus.websockets.next.OnClose;
import io.quarkus.websockets.next.OnOpen;
import io.quarkus.websockets.next.OnTextMessage;
import io.quarkus.websockets.next.PathParam;
import io.quarkus.websockets.next.WebSocket;
import io.quarkus.websockets.next.WebSocketConnection;
import jakarta.annotation.security.RolesAllowed;
import jakarta.enterprise.context.SessionScoped;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import lychnos.server.configure.line.FarLine;
import lychnos.server.configure.line.LineStanding;
import lychnos.server.configure.line.Onlooker;
import lychnos.server.configure.line.OpenLine;
import lychnos.server.identity.caller.Who;
import lychnos.server.live.sockets.OpenSockets;

/**
 * A screen on a line. From here: {@code {"o": text}} what the line showed, {@code {"s": standing}} how the dialogue
 * stands, {@code {"x": sentence}} why nothing can be shown or was not done. From there: {@code {"k": keys}}, {@code
 * {"v": name}} to type a value of the plan in a setup by hand, {@code {"b": 1}} for a break, {@code {"r": [columns,
 * rows]}}.
 */
@WebSocket(path = "/api/lines/{dialogue}")
@SessionScoped
@RolesAllowed("viewer")
public class LineSocket {

    /** More keys than that in one message are no typing. */
    private static final int MOST_KEYS = 4096;

    private final Consoles consoles;
    private final ObjectMapper json;
    private final SecurityIdentity identity;
    private final OpenSockets sockets;
    private OpenLine line;
    private FarLine far;
    private Onlooker onlooker;

    LineSocket(Consoles consoles, ObjectMapper json, SecurityIdentity identity, OpenSockets sockets) {
        this.sockets = sockets;
        this.consoles = consoles;
        this.json = json;
        this.identity = identity;
    }

    @OnOpen
    void open(@PathParam String dialogue, WebSocketConnection connection) {
        if (!sockets.opened(connection, identity)) {
            return;
        }
        long id = dialogue.matches("\\d{1,18}") ? Long.parseLong(dialogue) : -1;
        onlooker = new Onlooker() {
            @Override
            public void shown(String text) {
                send(connection, Map.of("o", text));
            }

            @Override
            public void changed(LineStanding standing) {
                send(connection, Map.of("s", standing));
            }
        };
        Optional<OpenLine> found = consoles.line(id);
        if (found.isPresent()) {
            line = found.get();
            line.watch(onlooker);
            return;
        }
        far = consoles.watchFar(id, onlooker, () -> send(connection, Map.of("x", "closed")))
                .orElse(null);
        if (far == null) {
            send(connection, Map.of("x", "closed"));
        }
    }

    private void send(WebSocketConnection connection, Map<String, ?> message) {
        try {
            connection.sendText(json.writeValueAsString(message)).subscribe().with(sent -> {}, fault -> leave());
        } catch (JsonProcessingException e) {
            throw new IllegalStateException("a message can be written", e);
        }
    }

    @OnTextMessage
    void message(String text, WebSocketConnection connection) throws JsonProcessingException {
        if (text.length() > 2 * MOST_KEYS) {
            sockets.end(connection);
            return;
        }
        // a person who was signed out meanwhile types nothing more
        if (!identity.hasRole("engineer") || !sockets.isGood(connection)) {
            return;
        }
        JsonNode message = json.readTree(text);
        if (far != null && (message.has("k") || message.has("v") || message.has("b"))) {
            send(connection, Map.of("x", FarLine.ELSEWHERE));
        }
        if (line == null) {
            return;
        }
        String login = ((Who.Person) identity.getAttribute("person")).login();
        if (message.path("k").isTextual() && message.path("k").asText().length() <= MOST_KEYS) {
            told(connection, line.typed(message.path("k").asText(), login));
        } else if (message.path("v").isTextual()) {
            told(connection, line.typeValue(message.path("v").asText(), login));
        } else if (message.has("b")) {
            told(connection, line.sendBreak(login));
        } else if (message.path("r").size() == 2) {
            line.resize(
                    Math.max(20, Math.min(400, message.path("r").path(0).asInt())),
                    Math.max(5, Math.min(200, message.path("r").path(1).asInt())));
        }
    }

    private void told(WebSocketConnection connection, CompletableFuture<Optional<String>> decided) {
        decided.thenAccept(refused -> refused.ifPresent(sentence -> send(connection, Map.of("x", sentence))));
    }

    @OnClose
    void close(WebSocketConnection connection) {
        sockets.closed(connection);
        leave();
    }

    private void leave() {
        if (line != null && onlooker != null) {
            line.leave(onlooker);
        }
        if (far != null) {
            far.close();
        }
    }
}
