package lychnos.wire.http;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import io.vertx.core.Handler;
import io.vertx.core.buffer.Buffer;
import io.vertx.core.http.HttpServerRequest;
import java.time.Duration;
import java.util.Map;
import java.util.concurrent.atomic.AtomicInteger;
import lychnos.core.address.Address;
import lychnos.wire.LoopbackHall;
import lychnos.wire.fault.WireFault;
import lychnos.wire.fault.WireFault.Kind;
import lychnos.wire.redfish.RedfishClient;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Peers that answer wrongly, too much, elsewhere or not at all. */
class HttpCallerTest {

    private static final Address PEER = Address.parse("127.40.8.66");

    private LoopbackHall lab;

    @BeforeEach
    void open() {
        lab = new LoopbackHall();
    }

    @AfterEach
    void close() {
        lab.close();
    }

    private void peer(Handler<HttpServerRequest> handler) {
        var options = new io.vertx.core.http.HttpServerOptions()
                .setSsl(true)
                .setKeyCertOptions(
                        io.vertx.core.net.SelfSignedCertificate.create("peer").keyCertOptions());
        lab.vertx
                .createHttpServer(options)
                .requestHandler(handler)
                .listen(LoopbackHall.PORT, PEER.toString())
                .toCompletionStage()
                .toCompletableFuture()
                .join();
    }

    private HttpAnswer get(String path, Duration timeout) throws WireFault {
        return lab.vantage.http(new HttpCall(PEER, LoopbackHall.PORT, "GET", path, Map.of(), null, null, timeout));
    }

    private void fails(Kind kind, Handler<HttpServerRequest> handler) {
        peer(handler);
        assertEquals(
                kind,
                assertThrows(WireFault.class, () -> get("/", Duration.ofSeconds(2)))
                        .kind());
    }

    @Test
    void anAnswerWithoutEndIsCutOff() {
        Buffer block = Buffer.buffer(new byte[100_000]);
        fails(Kind.GARBAGE, request -> {
            request.response().setChunked(true);
            lab.vertx.setPeriodic(1, timer -> {
                if (request.response().closed()) {
                    lab.vertx.cancelTimer(timer);
                } else {
                    request.response().write(block);
                }
            });
        });
    }

    @Test
    void noAnswerIsAnUnknownOutcome() {
        fails(Kind.UNKNOWN_OUTCOME, request -> {});
    }

    @Test
    void aConnectionThatEndsIsAnUnknownOutcome() {
        fails(Kind.UNKNOWN_OUTCOME, request -> request.connection().close());
    }

    @Test
    void nobodyThereIsARefusal() {
        assertEquals(
                Kind.REFUSED,
                assertThrows(WireFault.class, () -> get("/", Duration.ofSeconds(2)))
                        .kind());
    }

    @Test
    void aRedirectIsAnAnswerAndIsNotFollowed() throws WireFault {
        AtomicInteger asked = new AtomicInteger();
        peer(request -> {
            asked.incrementAndGet();
            request.response()
                    .setStatusCode(302)
                    .putHeader("Location", "https://127.40.8.10:" + LoopbackHall.PORT + "/redfish/v1/")
                    .end();
        });
        assertEquals(302, get("/", Duration.ofSeconds(2)).status());
        assertEquals(1, asked.get());
    }

    @Test
    void anAddressOutsideTheDeclaredNetworksIsNeverAsked() {
        HttpCall call = new HttpCall(
                Address.parse("127.41.0.1"),
                LoopbackHall.PORT,
                "GET",
                "/",
                Map.of(),
                null,
                null,
                Duration.ofSeconds(1));
        assertEquals(
                Kind.NOT_DECLARED,
                assertThrows(WireFault.class, () -> lab.vantage.http(call)).kind());
    }

    @Test
    void linksThatLeadOutOfTheServiceAreRefused() {
        for (String link : new String[] {
            "https://127.40.8.10/redfish/v1/x",
            "//127.40.8.10/redfish",
            "/redfish/../admin",
            "/admin",
            "/redfish/a b",
            ""
        }) {
            Kind kind = assertThrows(
                            WireFault.class,
                            () -> {
                                LoopbackHall other = lab;
                                var server = other.vertx
                                        .createHttpServer(new io.vertx.core.http.HttpServerOptions()
                                                .setSsl(true)
                                                .setKeyCertOptions(
                                                        io.vertx.core.net.SelfSignedCertificate.create("peer")
                                                                .keyCertOptions()))
                                        .requestHandler(request -> request.response()
                                                .end("{\"RedfishVersion\":\"1.0\",\"Managers\":{\"@odata.id\":\"" + link
                                                        + "\"}}"));
                                server.listen(LoopbackHall.PORT, PEER.toString())
                                        .toCompletionStage()
                                        .toCompletableFuture()
                                        .join();
                                try (RedfishClient client =
                                        new RedfishClient(other.vantage, PEER, LoopbackHall.PORT, null)) {
                                    client.members(client.root().json().path("Managers"));
                                } catch (lychnos.wire.redfish.RedfishFault e) {
                                    throw new AssertionError(e);
                                } finally {
                                    server.close()
                                            .toCompletionStage()
                                            .toCompletableFuture()
                                            .join();
                                }
                            },
                            link)
                    .kind();
            assertEquals(Kind.GARBAGE, kind, link);
        }
    }

    @Test
    void jsonThatIsTooDeepIsGarbage() {
        String deep = "[".repeat(100) + "]".repeat(100);
        peer(request -> request.response().end("{\"a\":" + deep + "}"));
        assertEquals(
                Kind.GARBAGE,
                assertThrows(WireFault.class, () -> new RedfishClient(lab.vantage, PEER, LoopbackHall.PORT, null)
                                .root())
                        .kind());
    }
}
