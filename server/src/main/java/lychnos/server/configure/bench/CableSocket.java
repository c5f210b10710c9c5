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
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import lychnos.core.dialogue.LineSettings;
import lychnos.server.configure.line.CableLine;
import lychnos.server.configure.line.CablePage;
import lychnos.server.configure.line.Cables;
import lychnos.server.configure.line.PortFault;
import lychnos.server.live.sockets.OpenSockets;

/**
 * A page that has the serial port of a member's line. From here: {@code {"open": settings}}, {@code {"n": number, "d":
 * text}} to write, {@code {"b": 1}} for a break, {@code {"h": 1}} for a sign of life, {@code {"x": "closed"}} where
 * no line waits for a cable, {@code {"x": "taken"}} where another page has it. From there: {@code {"up": 1}} once the
 * port is open, {@code {"n": number, "d": text}} for what it received, {@code {"a": number}} for what it has written,
 * {@code {"e": fault}}, {@code {"h": 1}}. Text has one byte a character.
 */
@WebSocket(path = "/api/cables/{dialogue}")
@SessionScoped
@RolesAllowed("engineer")
public class CableSocket {

    /** More than a port receives while a page takes breath. */
    private static final int LONGEST = 64 * 1024;

    private final Cables cables;
    private final ObjectMapper json;
    private final SecurityIdentity identity;
    private final OpenSockets sockets;
    private CableLine line;
    private CablePage page;

    CableSocket(Cables cables, ObjectMapper json, SecurityIdentity identity, OpenSockets sockets) {
        this.cables = cables;
        this.json = json;
        this.identity = identity;
        this.sockets = sockets;
    }

    @OnOpen
    void open(@PathParam String dialogue, WebSocketConnection connection) {
        if (!sockets.opened(connection, identity)) {
            return;
        }
        Optional<CableLine> waits =
                dialogue.matches("\\d{1,18}") ? cables.line(Long.parseLong(dialogue)) : Optional.empty();
        page = new Page(connection);
        if (waits.isPresent() && waits.get().plug(page)) {
            line = waits.get();
        } else {
            send(connection, Map.of("x", waits.isPresent() ? "taken" : "closed"));
        }
    }

    private final class Page implements CablePage {
        private final WebSocketConnection connection;

        Page(WebSocketConnection connection) {
            this.connection = connection;
        }

        @Override
        public void open(LineSettings settings) {
            send(
                    connection,
                    Map.of(
                            "open",
                            Map.of(
                                    "baudRate", settings.rate(),
                                    "dataBits", settings.dataBits(),
                                    "parity", settings.parity().name().toLowerCase(Locale.ROOT),
                                    "stopBits", settings.stopBits())));
        }

        @Override
        public void write(long number, String text) {
            send(connection, Map.of("n", number, "d", text));
        }

        @Override
        public void sendBreak() {
            send(connection, Map.of("b", 1));
        }

        @Override
        public void ask() {
            send(connection, Map.of("h", 1));
        }

        @Override
        public void end() {
            sockets.end(connection);
        }
    }

    private void send(WebSocketConnection connection, Map<String, ?> message) {
        try {
            connection.sendText(json.writeValueAsString(message)).subscribe().with(sent -> {}, fault -> gone());
        } catch (JsonProcessingException e) {
            throw new IllegalStateException("a message can be written", e);
        }
    }

    @OnTextMessage
    void message(String text, WebSocketConnection connection) throws JsonProcessingException {
        if (text.length() > LONGEST) {
            sockets.end(connection);
            gone();
            return;
        }
        if (line == null) {
            return;
        }
        JsonNode message = json.readTree(text);
        if (message.has("up")) {
            line.opened(page);
        } else if (message.path("d").isTextual()) {
            line.received(
                    page, message.path("n").asLong(), message.path("d").asText().getBytes(StandardCharsets.ISO_8859_1));
        } else if (message.has("a")) {
            line.confirmed(page, message.path("a").asLong());
        } else if (message.has("e")) {
            PortFault.named(message.path("e").asText()).ifPresent(fault -> line.reports(page, fault));
        } else {
            line.isAlive(page);
        }
    }

    @OnClose
    void close(WebSocketConnection connection) {
        sockets.closed(connection);
        gone();
    }

    private void gone() {
        if (line != null) {
            line.gone(page);
        }
    }
}
