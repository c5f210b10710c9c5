package lychnos.server;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertInstanceOf;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.quarkus.test.common.http.TestHTTPResource;
import io.quarkus.test.junit.QuarkusTest;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.WebSocket;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CompletionStage;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import lychnos.wire.far.Codec;
import lychnos.wire.far.LinkMessage;
import lychnos.wire.far.VantageClient;
import org.junit.jupiter.api.Test;

/** A vantage point of another version is turned away: it gets a message, and the page of vantage points says so. */
@QuarkusTest
class LinkVersionTest {

    private static final String CLOSED = "closed";

    @TestHTTPResource("/")
    URI root;

    private final Codec codec = new Codec();
    /** Kept as long as the test runs: a client that nobody holds may stop reading its sockets. */
    private final HttpClient http = HttpClient.newHttpClient();

    private final Client lead = Client.lead();
    private final String name = "cage-" + UUID.randomUUID().toString().substring(0, 8);

    /** What arrives over a link that says only this. */
    private BlockingQueue<String> saying(String token, String hello) throws Exception {
        BlockingQueue<String> heard = new LinkedBlockingQueue<>();
        http.newWebSocketBuilder()
                .header("Authorization", "Bearer " + token)
                .buildAsync(URI.create("ws://" + root.getAuthority() + VantageClient.PATH), new WebSocket.Listener() {
                    @Override
                    public CompletionStage<?> onText(WebSocket from, CharSequence data, boolean last) {
                        heard.add(data.toString());
                        from.request(1);
                        return null;
                    }

                    @Override
                    public CompletionStage<?> onClose(WebSocket from, int code, String reason) {
                        heard.add(CLOSED + code);
                        return null;
                    }
                })
                .get(20, TimeUnit.SECONDS)
                .sendText(hello, true);
        return heard;
    }

    private LinkMessage first(BlockingQueue<String> heard) throws Exception {
        return codec.read(heard.poll(20, TimeUnit.SECONDS), LinkMessage.class);
    }

    private String hello(int version) {
        return codec.write(new LinkMessage.Hello(version, true, List.of()));
    }

    private boolean shown(String what) {
        return lead.get("/api/vantages").getBoolean("find { it.name == '" + name + "' }." + what);
    }

    @Test
    void anotherVersionIsTurnedAwayUntilBothAreTheSame() throws Exception {
        String token = lead.post("/api/vantages", Map.of("name", name))
                .statusCode(200)
                .json()
                .getString("token");
        for (String other : List.of(hello(LinkMessage.VERSION + 1), "{\"hello\":{\"hearsSilence\":true}}")) {
            BlockingQueue<String> heard = saying(token, other);
            LinkMessage.TurnedAway away = assertInstanceOf(LinkMessage.TurnedAway.class, first(heard));
            assertEquals(LinkMessage.VERSION, away.version());
            assertEquals(CLOSED + WebSocket.NORMAL_CLOSURE, heard.poll(20, TimeUnit.SECONDS));
            assertTrue(shown("otherVersion"));
        }
        LinkMessage.Welcome welcome =
                assertInstanceOf(LinkMessage.Welcome.class, first(saying(token, hello(LinkMessage.VERSION))));
        assertEquals(name, welcome.name());
        assertTrue(shown("linked"));
        assertTrue(!shown("otherVersion"));
    }
}
