package lychnos.server.vantage;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import io.quarkus.runtime.StartupEvent;
import io.quarkus.websockets.next.HandshakeRequest;
import io.quarkus.websockets.next.WebSocketConnection;
import io.smallrye.mutiny.Uni;
import jakarta.enterprise.inject.Instance;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicLong;
import java.util.concurrent.atomic.AtomicReference;
import lychnos.server.time.Clockwork;
import lychnos.wire.far.Codec;
import lychnos.wire.far.LinkMessage;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** When a link counts as dead. */
class VantageSocketTest {

    private static final long SILENCE = Duration.ofSeconds(20).toNanos();

    private final AtomicLong now = new AtomicLong();
    private final AtomicInteger ended = new AtomicInteger();
    private final AtomicReference<Runnable> look = new AtomicReference<>();
    private final Codec codec = new Codec();
    private final Vantages vantages = mock(Vantages.class);
    private final WebSocketConnection connection = mock(WebSocketConnection.class);
    private VantageSocket socket;

    @BeforeEach
    @SuppressWarnings("unchecked")
    void link() {
        HandshakeRequest handshake = mock(HandshakeRequest.class);
        when(handshake.header("Authorization")).thenReturn("Bearer token");
        when(connection.handshakeRequest()).thenReturn(handshake);
        when(connection.id()).thenReturn("link");
        when(connection.sendText(any(String.class))).thenReturn(Uni.createFrom().voidItem());
        when(connection.close()).thenAnswer(call -> {
            ended.incrementAndGet();
            return Uni.createFrom().voidItem();
        });
        when(vantages.codec()).thenReturn(codec);
        when(vantages.nameOf("token")).thenReturn(Optional.of("cage-1"));
        when(vantages.welcome("cage-1")).thenReturn(new LinkMessage.Welcome("cage-1", List.of(), List.of()));
        Instance<VantageEars> ears = mock(Instance.class);
        Clockwork clockwork = mock(Clockwork.class);
        doAnswer(call -> {
                    look.set(call.getArgument(2));
                    return null;
                })
                .when(clockwork)
                .every(any(), any(), any());
        socket = new VantageSocket(vantages, ears, now::get);
        socket.start(new StartupEvent(), clockwork);
        socket.open(connection);
    }

    private void greets() {
        socket.message(codec.write(new LinkMessage.Hello(LinkMessage.VERSION, true, List.of())), connection);
    }

    /** What happens while the greeting is worked on. */
    private void meanwhile(Runnable what) {
        doAnswer(call -> {
                    what.run();
                    return null;
                })
                .when(vantages)
                .linked(any(), any(), any());
    }

    @Test
    void aVantagePointThatSaysNothingIsDead() {
        greets();
        look.get().run();
        assertEquals(0, ended.get());
        now.addAndGet(SILENCE);
        look.get().run();
        assertEquals(1, ended.get());
    }

    @Test
    void oneWhoseMessageTakesLongHereIsNotDead() {
        meanwhile(() -> {
            now.addAndGet(SILENCE);
            look.get().run();
        });
        greets();
        look.get().run();
        assertEquals(0, ended.get());
        now.addAndGet(SILENCE);
        look.get().run();
        assertEquals(1, ended.get());
    }
}
