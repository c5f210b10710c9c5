package lychnos.wire;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Duration;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import javax.net.ssl.SSLContext;
import lychnos.lab.Certificates;
import lychnos.wire.dns.DnsClient;
import lychnos.wire.fault.WireFault;
import lychnos.wire.http.HttpCall;
import lychnos.wire.iscsi.Discovery;
import lychnos.wire.nfs.NullCall;
import lychnos.wire.ntp.NtpClient;
import lychnos.wire.proxy.ProxyProbe;
import lychnos.wire.proxy.ProxyProbe.ProxySeen;
import lychnos.wire.redfish.RedfishClient;
import lychnos.wire.redfish.RedfishFault;
import lychnos.wire.rmcp.Presence;
import lychnos.wire.smtp.Letter;
import lychnos.wire.smtp.Postman;
import lychnos.wire.smtp.RelayProbe;
import lychnos.wire.smtp.RelaySeen;
import lychnos.wire.snmp.Community;
import lychnos.wire.ssh.Greeting;
import lychnos.wire.tls.TlsProbe;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.TestFactory;

/**
 * Peers that mean harm or are broken, against every probe: each has to end in its time and say something of its own.
 * Rows are what the peer does, and what each probe must say then; a probe that goes on permanently would keep a check
 * from ever ending.
 */
class RobustnessTest extends HarmfulPeers {

    private interface Probe {
        Object at(InetSocketAddress peer) throws WireFault, RedfishFault;
    }

    private Map<String, Probe> probes() {
        return Map.of(
                "TLS", peer -> new TlsProbe().probe(peer, PATIENCE),
                "SSH greeting", peer -> Greeting.read(peer, PATIENCE),
                "SSH host key", peer -> hostKey.read(peer, PATIENCE),
                "iSCSI", peer -> Discovery.ask(peer, PATIENCE),
                "NFS", peer -> NullCall.ask(peer, PATIENCE),
                "mail relay",
                        peer -> reached(new RelayProbe()
                                .probe(peer, "probe.ardal.example", List.of("arrays@ardal.example"), null, PATIENCE)),
                "mail", peer -> sent(peer),
                "web proxy",
                        peer -> reached(new ProxyProbe().probe(peer, "activate.ardal.example:443", null, PATIENCE)),
                "web",
                        peer -> vantage.http(
                                new HttpCall(AT, peer.getPort(), "GET", "/", Map.of(), null, null, PATIENCE)));
    }

    private static Object reached(RelaySeen seen) throws WireFault {
        if (!seen.answers()) {
            throw new WireFault(WireFault.Kind.SILENT, "the relay: " + seen.greeting());
        }
        return seen;
    }

    private static Object reached(ProxySeen seen) throws WireFault {
        if (seen.status() == 0) {
            throw new WireFault(WireFault.Kind.SILENT, "the proxy: " + seen.line());
        }
        return seen;
    }

    private static Object sent(InetSocketAddress peer) throws WireFault {
        Postman.send(peer, new Letter("lychnos@ardal.example", "hall@ardal.example", "one change", "a text"), PATIENCE);
        return "sent";
    }

    private static Exception fault(String what, Probe probe, InetSocketAddress peer) {
        long begun = System.nanoTime();
        Exception fault = assertThrows(Exception.class, () -> probe.at(peer), what);
        Duration took = Duration.ofNanos(System.nanoTime() - begun);
        assertTrue(
                fault instanceof WireFault || fault instanceof RedfishFault,
                () -> what + " ends in a fault of ours, not in " + fault);
        assertTrue(took.compareTo(LONGEST) < 0, () -> what + " took " + took);
        assertTrue(
                fault.getMessage().length() > 5 && fault.getMessage().length() < 300,
                () -> what + ": " + fault.getMessage());
        return fault;
    }

    /** Each harm against each probe over TCP. */
    @TestFactory
    Stream<DynamicTest> overTcp() {
        return Map.of(
                        "accepts and says nothing",
                        silent,
                        "drips one byte after the other",
                        drips,
                        "hangs up",
                        hangsUp,
                        "sends noise without end",
                        noise)
                .entrySet()
                .stream()
                .flatMap(harm -> probes().keySet().stream()
                        .map(name -> DynamicTest.dynamicTest(name + " from one that " + harm.getKey(), () -> {
                            try (ServerSocket own = new ServerSocket(0, 50, InetAddress.getByName(AT.toString()))) {
                                serve(own, harm.getValue());
                                fault(
                                        name,
                                        probes().get(name),
                                        new InetSocketAddress(own.getInetAddress(), own.getLocalPort()));
                            }
                        })));
    }

    // --- over TLS ---

    private ServerSocket tls() throws Exception {
        SSLContext context = SSLContext.getInstance("TLS");
        context.init(
                Certificates.selfSigned("harm", -1, 30)
                        .getKeyManagerFactory(vertx)
                        .getKeyManagers(),
                null,
                null);
        return context.getServerSocketFactory().createServerSocket(0, 50, InetAddress.getByName(AT.toString()));
    }

    private static byte[] text(String text) {
        return text.getBytes(StandardCharsets.US_ASCII);
    }

    private final Map<String, Harm> webHarms = Map.of(
            "headers without end",
                    (in, out) -> {
                        out.write(text("HTTP/1.1 200 OK\r\n"));
                        for (int i = 0; ; i++) {
                            out.write(text("X-Header-" + i + ": " + "a".repeat(200) + "\r\n"));
                        }
                    },
            "a first line without end",
                    (in, out) -> {
                        out.write(text("HTTP/1.1 200 "));
                        while (true) {
                            out.write(text("a".repeat(4096)));
                        }
                    },
            "a gigabyte of JSON",
                    (in, out) -> {
                        out.write(text("HTTP/1.1 200 OK\r\nContent-Type: application/json\r\nContent-Length: "
                                + "1073741824\r\n\r\n{\"RedfishVersion\":\"1.17.0\",\"x\":\""));
                        byte[] more = new byte[MEGABYTE];
                        Arrays.fill(more, (byte) 'a');
                        for (int i = 0; i < 1024; i++) {
                            out.write(more);
                        }
                    },
            "JSON that is nested without end",
                    (in, out) -> out.write(text("HTTP/1.1 200 OK\r\nConnection: close\r\nContent-Type: "
                            + "application/json\r\nContent-Length: 200000\r\n\r\n"
                            + "[".repeat(200_000))),
            "a body that drips",
                    (in, out) -> {
                        out.write(text("HTTP/1.1 200 OK\r\nContent-Length: 5000\r\n\r\n"));
                        while (!over()) {
                            out.write('{');
                            out.flush();
                        }
                    },
            "chunks that lie",
                    (in, out) -> out.write(
                            text("HTTP/1.1 200 OK\r\nTransfer-Encoding: chunked\r\n\r\nffffffffffffffff\r\nabc\r\n")),
            "no HTTP", (in, out) -> out.write(text("SMTP ready\r\n\r\n")),
            "nothing", silent);

    /** A service root from a service that means harm. */
    @TestFactory
    Stream<DynamicTest> overTls() {
        return webHarms.entrySet().stream()
                .map(harm -> DynamicTest.dynamicTest("a service that sends " + harm.getKey(), () -> {
                    try (ServerSocket own = tls()) {
                        serve(own, (in, out) -> {
                            in.read(new byte[8192]);
                            harm.getValue().to(in, out);
                            ended.await();
                        });
                        Runtime runtime = Runtime.getRuntime();
                        System.gc();
                        long before = runtime.totalMemory() - runtime.freeMemory();
                        Probe root = peer -> {
                            vantage.http(new HttpCall(
                                    AT, peer.getPort(), "GET", "/redfish/v1/", Map.of(), null, null, PATIENCE));
                            return new RedfishClient(vantage, AT, peer.getPort(), null)
                                    .root(); // where the first came through, the second must not
                        };
                        fault(harm.getKey(), root, new InetSocketAddress(own.getInetAddress(), own.getLocalPort()));
                        System.gc();
                        long kept = (runtime.totalMemory() - runtime.freeMemory() - before) / MEGABYTE;
                        assertTrue(kept < 64, () -> kept + " MB were kept");
                    }
                }));
    }

    // --- over UDP ---

    private interface Answer {
        byte[] to(byte[] question);
    }

    private InetSocketAddress udp(Answer answer, DatagramSocket from) throws IOException {
        DatagramSocket socket = new DatagramSocket(new InetSocketAddress(AT.toString(), 0));
        datagrams.add(socket);
        thread(() -> {
            try {
                while (true) {
                    DatagramPacket packet = new DatagramPacket(new byte[2048], 2048);
                    socket.receive(packet);
                    byte[] said = answer.to(Arrays.copyOf(packet.getData(), packet.getLength()));
                    (from == null ? socket : from)
                            .send(new DatagramPacket(said, said.length, packet.getSocketAddress()));
                }
            } catch (IOException e) {
                // closed
            }
        });
        return (InetSocketAddress) socket.getLocalSocketAddress();
    }

    private static byte[] changed(byte[] bytes, int at, int value) {
        byte[] other = bytes.clone();
        other[at] = (byte) value;
        return other;
    }

    /** A DNS answer without records to the question. */
    private static byte[] dns(byte[] question) {
        return changed(question, 2, question[2] | 0x80);
    }

    @TestFactory
    Stream<DynamicTest> names() throws IOException {
        DatagramSocket elsewhere = new DatagramSocket(new InetSocketAddress("127.40.41.9", 0));
        datagrams.add(elsewhere);
        record Row(String what, Answer answer, DatagramSocket from) {}
        return Stream.of(
                        new Row("the wrong id", question -> changed(dns(question), 0, ~question[0]), null),
                        new Row("from another address", RobustnessTest::dns, elsewhere),
                        new Row("to another question", question -> changed(dns(question), 13, question[13] ^ 1), null),
                        new Row("noise", question -> new byte[] {1, 2, 3}, null))
                .map(row -> DynamicTest.dynamicTest(
                        "a name server that answers " + row.what,
                        () -> fault(
                                row.what,
                                peer -> new DnsClient(peer, PATIENCE).ask("array-1.ardal.example", "A"),
                                udp(row.answer, row.from))));
    }

    @TestFactory
    Stream<DynamicTest> timeAndPresence() {
        return Stream.of(
                DynamicTest.dynamicTest("a time server that says nothing of ours", () -> {
                    InetSocketAddress peer = udp(question -> new byte[48], null);
                    assertTrue(
                            new NtpClient(Clock.systemUTC())
                                    .ask(peer, PATIENCE)
                                    .map(sample -> !sample.answersUs())
                                    .orElse(true),
                            "an answer to nobody's question is not taken for one to ours");
                }),
                DynamicTest.dynamicTest("a kiss of death", () -> {
                    InetSocketAddress peer = udp(
                            question -> {
                                byte[] kiss = new byte[48];
                                kiss[0] = (byte) (3 << 6 | 4 << 3 | 4);
                                System.arraycopy("DENY".getBytes(StandardCharsets.US_ASCII), 0, kiss, 12, 4);
                                System.arraycopy(question, 40, kiss, 24, 8);
                                return kiss;
                            },
                            null);
                    assertEquals(
                            0,
                            new NtpClient(Clock.systemUTC())
                                    .ask(peer, PATIENCE)
                                    .orElseThrow()
                                    .stratum(),
                            "stratum 0 is what tells it (RFC 5905, section 7.4)");
                }),
                DynamicTest.dynamicTest(
                        "a presence ping that is answered with noise",
                        () -> fault(
                                "noise",
                                peer -> Presence.ask(peer, PATIENCE),
                                udp(question -> new byte[] {6, 0, 1}, null))),
                DynamicTest.dynamicTest(
                        "a community that is answered with noise",
                        () -> fault(
                                "no SNMP",
                                peer -> Community.answers(peer, "public", PATIENCE),
                                udp(question -> new byte[] {0x30, 2, 1}, null))),
                DynamicTest.dynamicTest(
                        "a community that is answered with a length beyond its end",
                        () -> fault(
                                "no SNMP",
                                peer -> Community.answers(peer, "public", PATIENCE),
                                udp(question -> changed(question, 1, 0x7f), null))),
                DynamicTest.dynamicTest(
                        "a community whose answer is to somebody else's question",
                        () -> assertFalse(Community.answers(
                                udp(question -> changed(changed(question, 13, 0xa2), 17, question[17] ^ 1), null),
                                "public",
                                PATIENCE))),
                DynamicTest.dynamicTest(
                        "a presence ping that is answered with another tag",
                        () -> fault(
                                "tag",
                                peer -> Presence.ask(peer, PATIENCE),
                                udp(
                                        question -> changed(
                                                changed(Arrays.copyOf(question, 28), 8, 0x40), 9, question[9] ^ 1),
                                        null))));
    }
}
