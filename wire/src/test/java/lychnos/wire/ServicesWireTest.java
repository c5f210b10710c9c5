package lychnos.wire;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.vertx.core.Vertx;
import java.io.InputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;
import lychnos.core.fact.Secret;
import lychnos.core.kind.Kind;
import lychnos.core.service.NameSample;
import lychnos.core.service.Reply;
import lychnos.core.service.TimeSample;
import lychnos.core.text.Texts;
import lychnos.wire.dial.Dialler;
import lychnos.wire.dns.NameKey;
import lychnos.wire.dns.Pushed;
import lychnos.wire.dns.ZoneRecord;
import lychnos.wire.fault.WireFault;
import lychnos.wire.fault.WireText;
import lychnos.wire.smtp.Letter;
import lychnos.wire.smtp.RelaySeen;
import lychnos.wire.vantage.LocalVantage;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfEnvironmentVariable;

/** Against the real name, time and mail servers of the hall. */
@EnabledIfEnvironmentVariable(
        named = "LYCHNOS_TEST_NAME_KEY",
        matches = ".+",
        disabledReason = "the hall's servers run only in ./lychnos test")
class ServicesWireTest {

    private static final Duration SOON = Duration.ofSeconds(3);
    private static final Address PRIMARY = Address.parse("10.40.8.3");
    private static final Address SECONDARY = Address.parse("10.40.8.4");
    private static final Address ABSENT = Address.parse("10.40.8.99");
    private static final String ZONE = "ardal.example";

    private static Vertx vertx;
    private static LocalVantage vantage;

    @BeforeAll
    static void open() {
        vertx = Vertx.vertx();
        vantage = new LocalVantage(
                "test",
                true,
                new Dialler(() -> List.of(Prefix.parse("10.40.8.0/24"), Prefix.parse("127.0.0.0/8")), true),
                vertx);
    }

    @AfterAll
    static void close() {
        vantage.close();
        vertx.close().toCompletionStage().toCompletableFuture().join();
    }

    private static NameKey key() {
        return new NameKey(
                System.getenv("LYCHNOS_TEST_NAME_KEY_NAME"), Secret.of(System.getenv("LYCHNOS_TEST_NAME_KEY")));
    }

    private static NameKey wrongKey() {
        return new NameKey(key().name(), Secret.of("AAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAA="));
    }

    @Test
    void asksTimeServers() throws WireFault {
        TimeSample sample = vantage.time(Address.parse("10.40.8.6"), SOON).orElseThrow();
        assertTrue(sample.answersUs());
        assertEquals(4, sample.mode());
        assertTrue(sample.stratum() >= 1 && sample.stratum() <= 15, sample.toString());
        assertTrue(Math.abs(sample.offsetMillis()) < 500, "the same machine has the same clock: " + sample);
        assertTrue(vantage.time(ABSENT, Duration.ofMillis(300)).isEmpty());
    }

    @Test
    void measuresHowFarAClockIsOff() throws WireFault {
        assertEquals(
                120_000,
                vantage.time(Address.parse("10.40.8.9"), SOON).orElseThrow().offsetMillis(),
                1000);
    }

    @Test
    void asksNameServersOverBothTransports() throws WireFault {
        NameSample primary = vantage.names(PRIMARY, List.of(ZONE), Map.of(ZONE, key()), SOON);
        assertTrue(primary.udp() && primary.tcp() && !primary.recursion());
        assertTrue(primary.serials().get(ZONE) >= 2026112301L);
        assertEquals(List.of(Reply.accepted(Reply.Request.UPDATE, ZONE)), primary.updates());
        NameSample secondary = vantage.names(SECONDARY, List.of(ZONE, "elsewhere.example"), Map.of(), SOON);
        assertEquals(List.of(ZONE), List.copyOf(secondary.serials().keySet()));
        NameSample silent = vantage.names(ABSENT, List.of(ZONE), Map.of(), Duration.ofMillis(300));
        assertTrue(!silent.udp() && !silent.tcp());
    }

    @Test
    void saysWhyUpdatesAreRefused() throws WireFault {
        String answer = vantage.names(PRIMARY, List.of(ZONE), Map.of(ZONE, wrongKey()), SOON)
                .updates()
                .get(0)
                .text();
        assertTrue(answer.equals(WireText.DNS_KEY_UNKNOWN.text("BADSIG")), answer);
        Pushed pushed = vantage.makeRecords(
                        PRIMARY, ZONE, wrongKey(), List.of(new ZoneRecord("no." + ZONE, "A", "10.40.8.50")), SOON)
                .get(0);
        assertEquals(Pushed.State.REFUSED, pushed.state());
        assertEquals(List.of(), vantage.resolve(PRIMARY, "no." + ZONE, "A", SOON));
    }

    @Test
    void makesAndRemovesRecordsAndMayDoSoTwice() throws WireFault {
        List<ZoneRecord> records = IntStream.range(0, 900)
                .mapToObj(i -> new ZoneRecord("made-" + i + "." + ZONE, "A", "10.40.9." + (i % 250 + 1)))
                .toList();
        assertEquals(
                900,
                vantage.makeRecords(PRIMARY, ZONE, key(), records, SOON).stream()
                        .filter(p -> p.state() == Pushed.State.DONE)
                        .count());
        assertEquals(List.of("10.40.9.8"), vantage.resolve(PRIMARY, "made-7." + ZONE, "A", SOON));
        List<ZoneRecord> some = records.subList(0, 9);
        assertTrue(vantage.makeRecords(PRIMARY, ZONE, key(), some, SOON).stream()
                .allMatch(p -> p.state() == Pushed.State.THERE));
        assertTrue(vantage.transfer(PRIMARY, ZONE, key(), SOON).containsAll(records));
        assertTrue(vantage.removeRecords(PRIMARY, ZONE, key(), records, SOON).stream()
                .allMatch(p -> p.state() == Pushed.State.DONE));
        assertEquals(List.of(), vantage.resolve(PRIMARY, "made-7." + ZONE, "A", SOON));
    }

    @Test
    void neverOverwritesARecordOfSomebodyElse() throws WireFault {
        ZoneRecord theirs = new ZoneRecord("printer." + ZONE, "A", "10.40.8.77");
        ZoneRecord alias = new ZoneRecord("copier." + ZONE, "CNAME", "printer." + ZONE);
        vantage.makeRecords(PRIMARY, ZONE, key(), List.of(theirs, alias), SOON);
        List<ZoneRecord> ours = new ArrayList<>(List.of(
                new ZoneRecord("fresh-1." + ZONE, "A", "10.40.8.61"),
                new ZoneRecord("fresh-2." + ZONE, "A", "10.40.8.62")));
        ours.add(1, new ZoneRecord("printer." + ZONE, "A", "10.40.8.60"));
        ours.add(2, new ZoneRecord("copier." + ZONE, "A", "10.40.8.63"));
        List<Pushed> pushed = vantage.makeRecords(PRIMARY, ZONE, key(), ours, SOON);
        assertEquals(
                List.of(Pushed.State.DONE, Pushed.State.REFUSED, Pushed.State.REFUSED, Pushed.State.DONE),
                pushed.stream().map(Pushed::state).toList());
        assertTrue(
                pushed.get(1).why().contains("10.40.8.77")
                        && Texts.says(WireText.RECORD_NOT_OURS, pushed.get(1).why()),
                pushed.get(1).why());
        assertTrue(
                pushed.get(2).why().contains(WireText.AN_ALIAS.text("printer." + ZONE)),
                pushed.get(2).why());
        assertEquals(List.of("10.40.8.77"), vantage.resolve(PRIMARY, "printer." + ZONE, "A", SOON));
        vantage.removeRecords(PRIMARY, ZONE, key(), List.of(theirs, alias, ours.get(0), ours.get(3)), SOON);
    }

    @Test
    void saysThatATransferIsRefusedOrCutShort() throws Exception {
        assertEquals(
                WireFault.Kind.REFUSED,
                assertThrows(WireFault.class, () -> vantage.transfer(PRIMARY, ZONE, null, SOON))
                        .kind());
        try (ServerSocket cut = new ServerSocket(53, 1, InetAddress.getByName("127.0.0.1"))) {
            Thread thread = new Thread(() -> answerHalf(cut));
            thread.start();
            WireFault fault =
                    assertThrows(WireFault.class, () -> vantage.transfer(Address.parse("127.0.0.1"), ZONE, null, SOON));
            assertEquals(WireFault.Kind.GARBAGE, fault.kind());
            thread.join();
        }
    }

    /** Takes a question and breaks off in the middle of its answer's length. */
    private static void answerHalf(ServerSocket server) {
        try (Socket socket = server.accept();
                InputStream in = socket.getInputStream()) {
            in.readNBytes(20);
            socket.getOutputStream().write(new byte[] {2, 0, 1});
        } catch (java.io.IOException e) {
            throw new IllegalStateException(e);
        }
    }

    @Test
    void talksToTheRelayWithoutSending() throws WireFault {
        RelaySeen seen = vantage.relay(
                Address.parse("10.40.8.20"),
                25,
                List.of("arrays@ardal.example", "arrays@hall.lan"),
                "ops@ardal.example",
                SOON);
        assertTrue(seen.answers() && seen.startTls(), seen.toString());
        assertEquals(
                Reply.accepted(Reply.Request.SENDER, "arrays@ardal.example"),
                seen.senders().get(0));
        assertTrue(
                Reply.refusal(seen.senders(), Reply.Request.SENDER, "arrays@hall.lan")
                        .orElseThrow()
                        .text()
                        .startsWith("550"),
                seen::toString);
        assertTrue(!vantage.relay(ABSENT, 25, List.of(), null, Duration.ofMillis(300))
                .answers());
    }

    @Test
    void aLetterIsTakenByTheRelayOrNotWithItsReason() throws WireFault {
        Address relay = Address.parse("10.40.8.20");
        vantage.mail(
                relay,
                25,
                new Letter("lychnos@ardal.example", "duty@ardal.example", "Ardal: 2 changes", "one\n.\ntwo\n"),
                SOON);
        WireFault refused = assertThrows(
                WireFault.class,
                () -> vantage.mail(
                        relay, 25, new Letter("lychnos@hall.lan", "duty@ardal.example", "Ardal", "text"), SOON));
        assertEquals(WireFault.Kind.REFUSED, refused.kind());
        assertTrue(
                Texts.says(WireText.RELAY_ANSWERS, refused.getMessage())
                        && refused.getMessage().contains("550 5.1.8"),
                refused.getMessage());
        assertEquals(
                WireFault.Kind.SILENT,
                assertThrows(
                                WireFault.class,
                                () -> vantage.mail(
                                        ABSENT,
                                        25,
                                        new Letter("a@ardal.example", "b@ardal.example", "s", "t"),
                                        Duration.ofMillis(300)))
                        .kind());
    }

    @Test
    void signsInAtAProxy() throws Exception {
        try (ServerSocket proxy = new ServerSocket(0, 1, InetAddress.getByName("127.0.0.1"))) {
            Thread thread = new Thread(() -> {
                try (Socket socket = proxy.accept();
                        java.util.Scanner asked =
                                new java.util.Scanner(socket.getInputStream()).useDelimiter("\r\n\r\n")) {
                    String request = asked.next();
                    socket.getOutputStream()
                            .write(("HTTP/1.1 "
                                            + (request.contains("\r\nProxy-Authorization: Basic "
                                                            + "aGFsbDpvdXQtYnktdGhlLWdhdGU=")
                                                    ? "200 Established"
                                                    : "403 Forbidden")
                                            + "\r\n\r\n")
                                    .getBytes());
                } catch (java.io.IOException e) {
                    throw new IllegalStateException(e);
                }
            });
            thread.start();
            assertEquals(
                    200,
                    vantage.proxy(
                                    Address.parse("127.0.0.1"),
                                    proxy.getLocalPort(),
                                    "activate.ardal.example:443",
                                    new Kind.Login("hall", Secret.of("out-by-the-gate")),
                                    SOON)
                            .status());
            thread.join();
        }
    }

    @Test
    void asksAProxyToLetThrough() throws Exception {
        try (ServerSocket proxy = new ServerSocket(0, 1, InetAddress.getByName("127.0.0.1"))) {
            Thread thread = new Thread(() -> {
                try (Socket socket = proxy.accept()) {
                    socket.getInputStream().read(new byte[64]);
                    socket.getOutputStream().write("HTTP/1.1 407 Proxy Authentication Required\r\n\r\n".getBytes());
                } catch (java.io.IOException e) {
                    throw new IllegalStateException(e);
                }
            });
            thread.start();
            assertEquals(
                    407,
                    vantage.proxy(
                                    Address.parse("127.0.0.1"),
                                    proxy.getLocalPort(),
                                    "activate.ardal.example:443",
                                    null,
                                    SOON)
                            .status());
            thread.join();
        }
        assertEquals(
                "silent",
                vantage.proxy(ABSENT, 3128, "a.example:443", null, Duration.ofMillis(300))
                        .line()
                        .replaceFirst("(?i).*timed out.*", "silent"));
    }
}
