package lychnos.wire.http;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNotEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.vertx.core.Vertx;
import io.vertx.core.http.HttpServer;
import io.vertx.core.http.HttpServerOptions;
import io.vertx.core.net.KeyCertOptions;
import io.vertx.core.net.SelfSignedCertificate;
import java.net.InetSocketAddress;
import java.time.Clock;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicInteger;
import lychnos.core.address.Address;
import lychnos.lab.Authority;
import lychnos.lab.WebKey;
import lychnos.wire.fault.WireFault;
import lychnos.wire.fault.WireFault.Kind;
import lychnos.wire.time.Ticker;
import lychnos.wire.tls.Shown;
import lychnos.wire.tls.TlsProvider;
import lychnos.wire.tls.TlsSeen;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** What shakes hands makes no difference to what is seen, and none to who gets a request. */
class TlsProvidersTest {

    private static final String PEER = "127.40.8.67";
    private static final String NAME = "ard-srv-067-oob.ardal.example";
    private static final int PORT = 9443;
    private static final Duration PATIENCE = Duration.ofSeconds(8);
    private static final InetSocketAddress AT = new InetSocketAddress(PEER, PORT);

    private final Vertx vertx = Vertx.vertx();
    private final AtomicInteger asked = new AtomicInteger();

    @AfterEach
    void close() {
        vertx.close().toCompletionStage().toCompletableFuture().join();
    }

    private HttpServer peer(HttpServerOptions options, KeyCertOptions shown) {
        return vertx.createHttpServer(options.setSsl(true).setKeyCertOptions(shown))
                .requestHandler(request -> {
                    asked.incrementAndGet();
                    request.response().end("here");
                })
                .listen(PORT, PEER)
                .toCompletionStage()
                .toCompletableFuture()
                .join();
    }

    private HttpCaller caller(TlsProvider provider) {
        return new HttpCaller(vertx, Clock.systemUTC(), Ticker.SYSTEM, provider);
    }

    private static HttpAnswer get(HttpCaller caller, String pinned) throws WireFault {
        return caller.call(new HttpCall(Address.parse(PEER), PORT, "GET", "/", Map.of(), null, pinned, PATIENCE), AT);
    }

    @Test
    void theNativeOneLoadsOnThisMachine() {
        assertEquals(TlsProvider.NATIVE, TlsProvider.best());
    }

    @ParameterizedTest
    @EnumSource(TlsProvider.class)
    void aChainAndItsNamesAreSeen(TlsProvider provider) throws Exception {
        WebKey key = new WebKey(null, "delivered", 30);
        key.take(new Authority().sign(key.request(NAME, List.of(NAME, PEER))));
        peer(new HttpServerOptions(), key.shown());
        try (HttpCaller caller = caller(provider)) {
            TlsSeen seen = caller.look(AT, PATIENCE);
            assertEquals(provider.title(), seen.provider());
            assertEquals("TLSv1.3", seen.protocol());
            assertEquals(List.of(NAME, PEER), seen.names());
            assertEquals(2, seen.pem().size());
            assertEquals("", seen.chainFault());
            assertEquals("EC 256", seen.key());
            assertEquals(200, get(caller, seen.fingerprint()).status());
        }
    }

    /** Ended right after the handshake, a connection has no certificate any more: a fault of the peer, not ours. */
    @ParameterizedTest
    @EnumSource(TlsProvider.class)
    void aPeerThatEndsEachConnectionIsAFaultOfThePeer(TlsProvider provider) {
        vertx.createHttpServer(
                        new HttpServerOptions().setSsl(true).setKeyCertOptions(new WebKey(null, "ends", 30).shown()))
                .connectionHandler(connection -> connection.close())
                .requestHandler(request -> {})
                .listen(PORT, PEER)
                .toCompletionStage()
                .toCompletableFuture()
                .join();
        try (HttpCaller caller = caller(provider)) {
            for (int i = 0; i < 40; i++) {
                try {
                    String shown = caller.look(AT, PATIENCE).fingerprint();
                    assertThrows(WireFault.class, () -> get(caller, shown));
                } catch (WireFault ended) {
                    assertThrows(WireFault.class, () -> get(caller, "0".repeat(64)));
                }
            }
        }
    }

    @ParameterizedTest
    @EnumSource(TlsProvider.class)
    void aCertificateThatWasReplacedIsSeenAtOnceAndGetsNoRequest(TlsProvider provider) throws Exception {
        WebKey key = new WebKey(null, "before", 30);
        peer(new HttpServerOptions(), key.shown());
        try (HttpCaller caller = caller(provider)) {
            String before = caller.look(AT, PATIENCE).fingerprint();
            assertEquals(200, get(caller, before).status());
            key.take(new Authority().sign(key.request(NAME, List.of(NAME))));
            assertNotEquals(before, caller.look(AT, PATIENCE).fingerprint());
            int until = asked.get();
            assertEquals(
                    Kind.OTHER_CERTIFICATE,
                    assertThrows(WireFault.class, () -> get(caller, before)).kind());
            assertEquals(until, asked.get());
        }
    }

    @ParameterizedTest
    @EnumSource(TlsProvider.class)
    void everyLookShakesHands(TlsProvider provider) throws Exception {
        AtomicInteger connections = new AtomicInteger();
        HttpServerOptions options = new HttpServerOptions();
        WebKey key = new WebKey(null, "one", 30);
        vertx.createHttpServer(options.setSsl(true).setKeyCertOptions(key.shown()))
                .requestHandler(request -> request.response().end())
                .connectionHandler(connection -> connections.incrementAndGet())
                .listen(PORT, PEER)
                .toCompletionStage()
                .toCompletableFuture()
                .join();
        try (HttpCaller caller = caller(provider)) {
            for (int i = 0; i < 10; i++) {
                String seen = caller.look(AT, PATIENCE).fingerprint();
                get(caller, seen); // leaves a connection that could be used again
            }
            assertTrue(connections.get() >= 10, connections + " connections");
        }
    }

    @ParameterizedTest
    @EnumSource(TlsProvider.class)
    void noLookIsAnsweredByASessionOfBefore(TlsProvider provider) throws Exception {
        WebKey key = new WebKey(null, "one", 30);
        peer(new HttpServerOptions(), key.shown());
        try (HttpCaller caller = caller(provider)) {
            for (int i = 0; i < 20; i++) {
                key.take(new Authority().sign(key.request(NAME, List.of(NAME))));
                String shown = Shown.fingerprint(key.certificate());
                assertEquals(shown, caller.look(AT, PATIENCE).fingerprint());
                assertEquals(200, get(caller, shown).status());
            }
        }
    }

    /** Old gear agrees on its keys in a way (RFC 5246, DHE) that the native one does not know. */
    @Test
    void aPeerThatTheNativeOneRefusesIsAskedWithJavas() throws Exception {
        peer(
                new HttpServerOptions()
                        .setEnabledSecureTransportProtocols(java.util.Set.of("TLSv1.2"))
                        .addEnabledCipherSuite("TLS_DHE_RSA_WITH_AES_256_GCM_SHA384"),
                SelfSignedCertificate.create("old-gear").keyCertOptions());
        try (HttpCaller caller = caller(TlsProvider.NATIVE)) {
            TlsSeen seen = caller.look(AT, PATIENCE);
            assertEquals(TlsProvider.JAVA.title(), seen.provider());
            assertEquals("TLSv1.2", seen.protocol());
            assertEquals(200, get(caller, seen.fingerprint()).status());
        }
    }

    @ParameterizedTest
    @EnumSource(TlsProvider.class)
    void aPeerWithoutTlsIsNoTls(TlsProvider provider) throws Exception {
        vertx.createHttpServer()
                .requestHandler(request -> request.response().end())
                .listen(PORT, PEER)
                .toCompletionStage()
                .toCompletableFuture()
                .join();
        try (HttpCaller caller = caller(provider)) {
            assertEquals(
                    Kind.NO_TLS,
                    assertThrows(WireFault.class, () -> caller.look(AT, PATIENCE))
                            .kind());
        }
    }
}
