package lychnos.wire;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.vertx.core.Vertx;
import io.vertx.core.http.HttpServerOptions;
import io.vertx.core.http.HttpServerRequest;
import io.vertx.core.http.HttpServerResponse;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetSocketAddress;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicInteger;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;
import lychnos.core.fact.Mac;
import lychnos.core.fact.Secret;
import lychnos.core.kind.Kind;
import lychnos.core.proof.Rung;
import lychnos.lab.Certificates;
import lychnos.wire.dial.Dialler;
import lychnos.wire.dns.DnsClient;
import lychnos.wire.fault.WireFault;
import lychnos.wire.ladder.Climb;
import lychnos.wire.ladder.Climbed;
import lychnos.wire.ladder.Target;
import lychnos.wire.vantage.LocalVantage;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/**
 * A machine that tries to have us look elsewhere: in each way that an answer can name another place. Nothing ever comes
 * there.
 */
class ElsewhereTest {

    private static final Address AT = Address.parse("127.40.42.7");
    /** Lies in no declared network; whatever comes there is counted. */
    private static final String TRAP = "127.41.42.7";

    private static final int PORT = 18449;

    private final Vertx vertx = Vertx.vertx();
    private final LocalVantage vantage =
            new LocalVantage("test", false, new Dialler(() -> List.of(Prefix.parse("127.40.0.0/16")), true), vertx);
    private final AtomicInteger trapped = new AtomicInteger();

    @BeforeEach
    void setTheTrap() {
        vertx.createNetServer()
                .connectHandler(socket -> {
                    trapped.incrementAndGet();
                    socket.close();
                })
                .listen(PORT, TRAP)
                .toCompletionStage()
                .toCompletableFuture()
                .join();
    }

    @AfterEach
    void close() {
        assertEquals(0, trapped.get(), "somebody was led there");
        vantage.close();
        vertx.close().toCompletionStage().toCompletableFuture().join();
    }

    private void serve(java.util.function.BiConsumer<HttpServerRequest, HttpServerResponse> machine) {
        vertx.createHttpServer(new HttpServerOptions()
                        .setSsl(true)
                        .setKeyCertOptions(Certificates.selfSigned("leads-away", -1, 30)))
                .requestHandler(request -> request.body()
                        .onComplete(body -> machine.accept(
                                request, request.response().putHeader("Content-Type", "application/json"))))
                .listen(PORT, AT.toString())
                .toCompletionStage()
                .toCompletableFuture()
                .join();
    }

    private Climbed climb(Target.Service service) throws WireFault {
        return new Climb(
                        vantage,
                        new Target(
                                AT,
                                PORT,
                                null,
                                null,
                                List.of(),
                                service,
                                new Target.Names("away.ardal.example", Map.of(), Map.of())),
                        Clock.systemUTC())
                .climb();
    }

    private static Target.Redfish redfish() {
        return new Target.Redfish(
                "AW-1",
                Mac.parse("02:4c:59:a9:00:01"),
                LoopbackHall.plan(),
                new Target.Login("keeper", Secret.of("ours-and-nobody-elses")),
                new Kind.Login("keeper", Secret.of("fellside")));
    }

    @Test
    void aRedirectIsNotFollowedThere() throws Exception {
        serve((request, response) -> response.setStatusCode(302)
                .putHeader("Location", "https://" + TRAP + ":" + PORT + "/")
                .end());
        assertTrue(climb(new Target.SignIn(false, new Target.SetUp(Instant.EPOCH, "AW-1", true), null))
                .outcomes()
                .get(Rung.SERVICE.ordinal())
                .seen()
                .contains(TRAP));
    }

    @Test
    void aServiceRootBehindARedirectIsNoServiceRoot() throws Exception {
        serve((request, response) -> response.setStatusCode(307)
                .putHeader("Location", "https://" + TRAP + ":" + PORT + "/redfish/v1/")
                .end());
        assertEquals(Rung.SERVICE.ordinal(), first(climb(redfish())));
    }

    private static int first(Climbed climbed) {
        for (int i = 0; i < climbed.outcomes().size(); i++) {
            if (climbed.outcomes().get(i).trouble() != null) {
                return i;
            }
        }
        return -1;
    }

    @Test
    void linksOfAServiceStayInsideIt() throws Exception {
        for (String link : List.of(
                "https://" + TRAP + ":" + PORT + "/redfish/v1/Sessions",
                "//" + TRAP + ":" + PORT + "/redfish/v1/Sessions",
                "/redfish/../../elsewhere",
                "http://" + TRAP + "/",
                "/redfish/v1/@" + TRAP + ":" + PORT + "\\x")) {
            Vertx own = Vertx.vertx();
            try {
                own.createHttpServer(new HttpServerOptions()
                                .setSsl(true)
                                .setKeyCertOptions(Certificates.selfSigned("leads-away", -1, 30)))
                        .requestHandler(request -> request.response()
                                .end("{\"RedfishVersion\":\"1.17.0\",\"Links\":{\"Sessions\":{\"@odata.id\":\""
                                        + link.replace("\\", "\\\\") + "\"}}}"))
                        .listen(PORT, AT.toString())
                        .toCompletionStage()
                        .toCompletableFuture()
                        .join();
                assertTrue(first(climb(redfish())) >= Rung.IDENTITY.ordinal(), link);
            } finally {
                own.close().toCompletionStage().toCompletableFuture().join();
            }
        }
    }

    @Test
    void aSessionOrATaskElsewhereIsNotGoneTo() throws Exception {
        String away = "https://" + TRAP + ":" + PORT + "/redfish/v1/Sessions/1";
        serve((request, response) -> {
            if (request.method().name().equals("POST")) {
                response.setStatusCode(201)
                        .putHeader("X-Auth-Token", "t")
                        .putHeader("Location", away)
                        .end("{\"@odata.id\":\"" + away + "\"}");
            } else {
                response.end("{\"RedfishVersion\":\"1.17.0\","
                        + "\"Links\":{\"Sessions\":{\"@odata.id\":\"/redfish/v1/Sessions\"}},"
                        + "\"Managers\":{\"@odata.id\":\""
                        + away + "\"}}");
            }
        });
        assertTrue(first(climb(redfish())) >= Rung.IDENTITY.ordinal());
    }

    @Test
    void whatANameServerSaysIsComparedAndNeverDialled() throws Exception {
        try (DatagramSocket server = new DatagramSocket(new InetSocketAddress("127.40.42.9", 0))) {
            Thread answering = new Thread(() -> {
                try {
                    DatagramPacket question = new DatagramPacket(new byte[512], 512);
                    server.receive(question);
                    int length = question.getLength();
                    byte[] answer = java.util.Arrays.copyOf(question.getData(), length + 16);
                    answer[2] |= (byte) 0x84;
                    answer[7] = 1;
                    answer[11] = 0;
                    // the question's own name, type A, class IN, a minute, four bytes: the trap
                    int at = endOfQuestion(question.getData());
                    byte[] record = {(byte) 0xc0, 12, 0, 1, 0, 1, 0, 0, 0, 60, 0, 4, 127, 41, 42, 7};
                    System.arraycopy(record, 0, answer, at, record.length);
                    server.send(new DatagramPacket(answer, at + record.length, question.getSocketAddress()));
                } catch (java.io.IOException e) {
                    // closed
                }
            });
            answering.setDaemon(true);
            answering.start();
            assertEquals(
                    List.of(TRAP),
                    new DnsClient((InetSocketAddress) server.getLocalSocketAddress(), java.time.Duration.ofSeconds(3))
                            .ask("away.ardal.example", "A"));
        }
    }

    private static int endOfQuestion(byte[] question) {
        int at = 12;
        while (question[at] != 0) {
            at += question[at] + 1;
        }
        return at + 5;
    }

    @Test
    void noCallGoesOutsideByItself() {
        Address trap = Address.parse(TRAP);
        for (Probe probe : List.<Probe>of(
                () -> vantage.ping(trap, java.time.Duration.ofSeconds(1)),
                () -> vantage.port(trap, PORT, java.time.Duration.ofSeconds(1)),
                () -> vantage.tls(trap, PORT, java.time.Duration.ofSeconds(1)),
                () -> vantage.greeting(trap, PORT, java.time.Duration.ofSeconds(1)),
                () -> vantage.hostKey(trap, PORT, java.time.Duration.ofSeconds(1)),
                () -> vantage.presence(trap, java.time.Duration.ofSeconds(1)),
                () -> vantage.nfs(trap, java.time.Duration.ofSeconds(1)),
                () -> vantage.targets(trap, PORT, java.time.Duration.ofSeconds(1)),
                () -> vantage.claimants(trap),
                () -> vantage.neighbour(trap),
                () -> vantage.sweep(List.of(AT, trap), java.time.Duration.ofSeconds(1)),
                () -> vantage.time(trap, java.time.Duration.ofSeconds(1)),
                () -> vantage.resolve(trap, "a.ardal.example", "A", java.time.Duration.ofSeconds(1)))) {
            assertEquals(
                    WireFault.Kind.NOT_DECLARED,
                    assertThrows(WireFault.class, probe::look).kind());
        }
    }

    private interface Probe {
        Object look() throws WireFault;
    }
}
