package lychnos.server.doctor;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNotNull;

import io.vertx.core.net.KeyCertOptions;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Clock;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javax.net.ssl.X509KeyManager;
import lychnos.lab.Certificates;
import lychnos.server.secrets.SealKeys;
import lychnos.server.text.DoctorText;
import lychnos.wire.icmp.Echo;
import lychnos.wire.tls.TlsProvider;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class MachineExamTest {

    @TempDir
    Path directory;

    private Path key;

    @BeforeEach
    void aMachineThatAllowsEverything() throws IOException {
        key = directory.resolve("seal.key");
        SealKeys.read(key);
        proc("self/status", "Name:\tjava\nCapEff:\t0000000000002000\n");
        proc("sys/user/max_net_namespaces", "127\n");
    }

    private void proc(String file, String text) throws IOException {
        Path path = directory.resolve("proc").resolve(file);
        Files.createDirectories(path.getParent());
        Files.writeString(path, text);
    }

    private MachineExam exam(boolean lab, List<String> reach, Path certificate) {
        return new MachineExam(
                new MachineExam.MachineSettings(
                        lab,
                        reach,
                        key,
                        Map.of("images", directory.resolve("not/made/yet")),
                        Optional.ofNullable(certificate)),
                directory.resolve("proc"),
                Clock.systemUTC());
    }

    private DoctorLine found(DoctorText code, MachineExam exam) {
        return exam.lines().stream()
                .filter(line -> line.code().equals(code.name()))
                .findFirst()
                .orElseThrow(() -> new AssertionError(exam.lines().toString()));
    }

    private MachineExam exam() {
        return exam(false, List.of("10.40.0.0/13"), null);
    }

    private static void bad(DoctorState state, DoctorLine line) {
        assertEquals(state, line.state(), line::toString);
        assertNotNull(line.advice(), line::toString);
    }

    @Test
    void whatIsAllowedIsGood() {
        for (DoctorText code : List.of(
                DoctorText.REACH_IS_SET,
                DoctorText.RAW_SOCKETS_ARE_ALLOWED,
                DoctorText.NAMESPACES_ARE_ALLOWED,
                DoctorText.KEY_IS_GOOD)) {
            assertEquals(DoctorState.GOOD, found(code, exam()).state(), code.name());
        }
    }

    @Test
    void whatIsNotAllowedComesWithAdvice() throws IOException {
        proc("self/status", "Name:\tjava\nCapEff:\t0000000000001fff\n");
        proc("sys/user/max_net_namespaces", "0\n");
        bad(DoctorState.BAD, found(DoctorText.REACH_IS_EMPTY, exam(false, List.of(), null)));
        assertEquals(
                DoctorState.GOOD,
                found(DoctorText.REACH_IS_LAB, exam(true, List.of(), null)).state());
        bad(DoctorState.LOOK, found(DoctorText.RAW_SOCKETS_NOT_ALLOWED, exam()));
        // the server works without them
        assertEquals(
                DoctorState.GOOD,
                found(DoctorText.NAMESPACES_NOT_ALLOWED, exam()).state());
        bad(DoctorState.LOOK, MachineExam.icmp(Echo.State.NOT_PERMITTED));
        assertEquals(DoctorState.GOOD, MachineExam.icmp(Echo.State.ANSWERED).state());
        bad(DoctorState.LOOK, MachineExam.tls(TlsProvider.JAVA));
        assertEquals(DoctorState.GOOD, MachineExam.tls(TlsProvider.NATIVE).state());
    }

    @Test
    void littleSpaceIsToldBeforeThereIsNone() {
        Path folder = Path.of("/var/lib/lychnos");
        assertEquals(
                DoctorState.GOOD, MachineExam.disk("images", folder, 50_000).state());
        bad(DoctorState.LOOK, MachineExam.disk("images", folder, 4_000));
        bad(DoctorState.BAD, MachineExam.disk("images", folder, 900));
    }

    @Test
    void theKeyIsThereReadableByItsOwnerAloneAndOnlyOne() throws IOException {
        SealKeys.read(key).withNew().write(key);
        bad(DoctorState.LOOK, found(DoctorText.KEY_ROTATION_BROKE_OFF, exam()));
        Files.setPosixFilePermissions(key, PosixFilePermissions.fromString("rw-r-----"));
        bad(DoctorState.BAD, found(DoctorText.KEY_IS_OPEN, exam()));
        Files.delete(key);
        bad(DoctorState.LOOK, found(DoctorText.KEY_IS_MISSING, exam()));
    }

    /** A certificate that is valid until so many days from now. */
    private Path certificate(int days) throws Exception {
        KeyCertOptions made = Certificates.selfSigned("web", -40, days);
        X509KeyManager keys = (X509KeyManager) made.getKeyManagerFactory(null).getKeyManagers()[0];
        String alias = keys.getServerAliases("EC", null)[0];
        return Files.write(directory.resolve("until" + days + ".der"), keys.getCertificateChain(alias)[0].getEncoded());
    }

    @Test
    void aCertificateThatEndsIsToldTwoWeeksAhead() throws Exception {
        List<String> reach = List.of("10.40.0.0/13");
        assertEquals(
                DoctorState.GOOD,
                found(DoctorText.CERTIFICATE_IS_GOOD, exam(false, reach, certificate(40)))
                        .state());
        bad(DoctorState.LOOK, found(DoctorText.CERTIFICATE_ENDS_SOON, exam(false, reach, certificate(10))));
        bad(DoctorState.BAD, found(DoctorText.CERTIFICATE_ENDED, exam(false, reach, certificate(-2))));
    }

    @Test
    void aCertificateThatCannotBeReadIsMissing() throws IOException {
        Path none = Files.writeString(directory.resolve("web.pem"), "not a certificate");
        bad(DoctorState.BAD, found(DoctorText.CERTIFICATE_NOT_READ, exam(false, List.of("10.40.0.0/13"), none)));
    }
}
