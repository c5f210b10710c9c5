package lychnos.wire.ldap;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import lychnos.core.fact.Secret;
import lychnos.core.kind.Kind;
import lychnos.wire.console.Peer;
import lychnos.wire.ldap.DirectoryQuestion.Protection;
import lychnos.wire.ldap.DirectorySeen.Result;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

/** At a real directory. */
class DirectoryProbeTest {

    private static final Duration PATIENCE = Duration.ofSeconds(2);
    private static final String BASE = "dc=ardal,dc=example";
    private static final Kind.Login LOOKS_UP = new Kind.Login("uid=looks-up," + BASE, Secret.of("moss-on-the-wall-4"));

    @TempDir
    static Path folder;

    private static Peer slapd;
    private static int plain;
    private static int tls;

    @BeforeAll
    static void start() throws IOException, InterruptedException {
        Peer.program("slapd");
        plain = Peer.freePort();
        tls = Peer.freePort();
        slapd = Peer.start(
                List.of("../lab/services/directory.sh", folder.toString(), "127.0.0.1", "" + plain, "" + tls));
        slapd.await("slapd starting");
    }

    @AfterAll
    static void stop() {
        slapd.close();
    }

    private static DirectorySeen ask(
            Protection protection, String certificate, Kind.Login login, String base, String group) {
        int port = protection == Protection.TLS ? tls : plain;
        return new DirectoryProbe()
                .probe(
                        new InetSocketAddress("127.0.0.1", port),
                        new DirectoryQuestion(protection, certificate, login, base, group),
                        PATIENCE);
    }

    /** What a person would compare: with no certificate known, it is shown and nobody signs in. */
    private static String certificate() {
        return ask(Protection.TLS, "", LOOKS_UP, BASE, "").certificate();
    }

    @ParameterizedTest
    @EnumSource(Protection.class)
    void theServiceAccountFindsTheGroup(Protection protection) {
        DirectorySeen seen = ask(protection, certificate(), LOOKS_UP, BASE, "storage-team");
        assertEquals(Result.FOUND, seen.result(), seen.said());
        assertEquals(protection == Protection.NONE ? "" : certificate(), seen.certificate());
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "dc=ardal,dc=example | night-team | NO_GROUP",
                "dc=ardal,dc=example | fabric-team | SEVERAL_GROUPS",
                "dc=ardal,dc=example | cn=fabric-team,ou=old,dc=ardal,dc=example | FOUND",
                "dc=ardal,dc=example | cn=gone,dc=ardal,dc=example | NO_GROUP",
                "dc=ardal,dc=example | *)(uid=* | NO_GROUP",
                "dc=elsewhere | storage-team | NO_BASE",
                "the hall | storage-team | NO_BASE",
            })
    void whatIsNotThereIsToldApart(String base, String group, Result result) {
        assertEquals(result, ask(Protection.NONE, "", LOOKS_UP, base, group).result());
    }

    @Test
    void aWrongPasswordIsRefused() {
        Kind.Login wrong = new Kind.Login(LOOKS_UP.user(), Secret.of("moss"));
        assertEquals(Result.REFUSED, ask(Protection.NONE, "", wrong, BASE, "").result());
        assertEquals(
                Result.NO_BASE,
                ask(Protection.NONE, "", null, BASE, "").result(),
                "without an account this directory shows nothing");
    }

    @ParameterizedTest
    @EnumSource(value = Protection.class, names = "NONE", mode = EnumSource.Mode.EXCLUDE)
    void noPasswordGoesToADirectoryWhoseCertificateIsNotTheOneThatWasEntered(Protection protection)
            throws InterruptedException {
        Kind.Login nobody = new Kind.Login("uid=must-not-be-sent-" + protection + "," + BASE, Secret.of("x"));
        DirectorySeen seen = ask(protection, "ab".repeat(32), nobody, BASE, "");
        assertEquals(Result.NOT_TRUSTED, seen.result());
        assertEquals(certificate(), seen.certificate());
        ask(
                Protection.NONE,
                "",
                new Kind.Login("uid=asked-after-" + protection + "," + BASE, Secret.of("x")),
                BASE,
                "");
        List<String> before = slapd.until("asked-after-" + protection);
        assertFalse(before.stream().anyMatch(line -> line.contains("must-not-be-sent")), before::toString);
    }

    @Test
    void aPeerThatIsNoDirectoryIsSilent() throws IOException, InterruptedException {
        try (ServerSocket socket = new ServerSocket(0, 4, InetAddress.getLoopbackAddress())) {
            Thread talks = new Thread(() -> {
                while (!socket.isClosed()) {
                    try (Socket peer = socket.accept()) {
                        peer.getOutputStream()
                                .write("220 relay ready\r\n".repeat(9000).getBytes(StandardCharsets.US_ASCII));
                        peer.getInputStream().readNBytes(1 << 20);
                    } catch (IOException e) {
                        // the client hung up, as it should
                    }
                }
            });
            talks.start();
            for (Protection protection : Protection.values()) {
                DirectorySeen seen = new DirectoryProbe()
                        .probe(
                                new InetSocketAddress("127.0.0.1", socket.getLocalPort()),
                                new DirectoryQuestion(protection, "", LOOKS_UP, BASE, ""),
                                Duration.ofMillis(300));
                assertTrue(seen.result() == Result.SILENT || seen.result() == Result.NO_TLS, seen::toString);
            }
            socket.close();
            talks.join();
        }
    }
}
