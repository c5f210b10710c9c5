package lychnos.server.doctor;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermission;
import java.security.cert.Certificate;
import java.security.cert.CertificateException;
import java.security.cert.CertificateFactory;
import java.security.cert.X509Certificate;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import lychnos.core.address.Address;
import lychnos.server.secrets.SealKeys;
import lychnos.server.text.DoctorText;
import lychnos.wire.icmp.Echo;
import lychnos.wire.icmp.Pinger;
import lychnos.wire.tls.TlsProvider;

/** What the machine under the server allows and has: ICMP, raw sockets, namespaces, TLS, disk, clock, key, certificate. */
final class MachineExam {

    private static final Duration PATIENCE = Duration.ofSeconds(1);
    private static final Duration ENDS_SOON = Duration.ofDays(14);
    private static final long MEGABYTE = 1024 * 1024;
    private static final long LITTLE_MEGABYTES = 5 * 1024;
    private static final long TOO_LITTLE_MEGABYTES = 1024;
    /** CAP_NET_RAW (capabilities(7)). */
    private static final int NET_RAW = 13;

    private static final int HEXADECIMAL = 16;

    /** By what keeps the clock, the file that is there while it does. */
    private static final Map<String, Path> CLOCK_KEEPERS = Map.of(
            "systemd-timesyncd", Path.of("/run/systemd/timesync/synchronized"),
            "chrony", Path.of("/run/chrony/chronyd.pid"));

    private final MachineSettings settings;
    private final Path proc;
    private final Clock clock;

    /**
     * What the operator has set.
     *
     * @param reach prefixes that the server may reach
     * @param folders by what is kept there, the folder
     * @param certificate of the web page, if it has TLS of its own
     */
    record MachineSettings(
            boolean lab, List<String> reach, Path keyFile, Map<String, Path> folders, Optional<Path> certificate) {}

    /** @param proc where the kernel shows what it allows, {@code /proc} but for tests */
    MachineExam(MachineSettings settings, Path proc, Clock clock) {
        this.settings = settings;
        this.proc = proc;
        this.clock = clock;
    }

    List<DoctorLine> lines() {
        List<DoctorLine> lines = new ArrayList<>();
        lines.add(reach());
        lines.add(icmp(new Pinger().ping(Address.parse("127.0.0.1"), PATIENCE).state()));
        lines.add(rawSockets());
        lines.add(namespaces());
        lines.add(tls(TlsProvider.best()));
        settings.folders.forEach((what, folder) -> lines.add(disk(what, folder)));
        lines.add(clockKeeper());
        lines.add(key());
        settings.certificate.map(this::certificate).ifPresent(lines::add);
        return lines;
    }

    private DoctorLine reach() {
        if (settings.lab) {
            return DoctorLine.good(DoctorText.REACH_IS_LAB);
        }
        return settings.reach.isEmpty()
                ? DoctorLine.bad(DoctorText.REACH_IS_EMPTY).advised(DoctorText.REACH_SET)
                : DoctorLine.good(DoctorText.REACH_IS_SET, String.join(", ", settings.reach));
    }

    static DoctorLine icmp(Echo.State state) {
        return state == Echo.State.NOT_PERMITTED
                ? DoctorLine.look(DoctorText.ICMP_NOT_ALLOWED).advised(DoctorText.ICMP_ALLOW)
                : DoctorLine.good(DoctorText.ICMP_IS_ALLOWED);
    }

    private DoctorLine rawSockets() {
        boolean may = shown("self/status")
                .flatMap(status -> status.lines()
                        .filter(line -> line.startsWith("CapEff:"))
                        .findFirst())
                .map(line -> Long.parseUnsignedLong(
                        line.substring("CapEff:".length()).strip(), HEXADECIMAL))
                .filter(capabilities -> (capabilities >> NET_RAW & 1) == 1)
                .isPresent();
        return may
                ? DoctorLine.good(DoctorText.RAW_SOCKETS_ARE_ALLOWED)
                : DoctorLine.look(DoctorText.RAW_SOCKETS_NOT_ALLOWED).advised(DoctorText.RAW_SOCKETS_ALLOW);
    }

    /** The demo and the tests alone need them: the server works without. */
    private DoctorLine namespaces() {
        boolean may = shown("sys/user/max_net_namespaces")
                .filter(most -> !most.strip().equals("0"))
                .isPresent();
        return DoctorLine.good(may ? DoctorText.NAMESPACES_ARE_ALLOWED : DoctorText.NAMESPACES_NOT_ALLOWED);
    }

    static DoctorLine tls(TlsProvider provider) {
        return provider == TlsProvider.NATIVE
                ? DoctorLine.good(DoctorText.TLS_IS_NATIVE)
                : DoctorLine.look(DoctorText.TLS_IS_JAVA).advised(DoctorText.TLS_ALLOW_NATIVE);
    }

    private Optional<String> shown(String file) {
        try {
            return Optional.of(Files.readString(proc.resolve(file)));
        } catch (IOException e) {
            return Optional.empty(); // not shown, so not known to be allowed
        }
    }

    private DoctorLine disk(String what, Path folder) {
        try {
            Path there = folder.toAbsolutePath();
            while (!Files.exists(there)) {
                there = there.getParent(); // it is made when it is needed
            }
            return disk(what, folder, Files.getFileStore(there).getUsableSpace() / MEGABYTE);
        } catch (IOException e) {
            return DoctorLine.look(DoctorText.DISK_NOT_READ, folder).advised(DoctorText.DISK_MAKE_SPACE, folder);
        }
    }

    static DoctorLine disk(String what, Path folder, long free) {
        if (free >= LITTLE_MEGABYTES) {
            return DoctorLine.good(DoctorText.DISK_FREE, free, what);
        }
        DoctorLine.Found found = free < TOO_LITTLE_MEGABYTES
                ? DoctorLine.bad(DoctorText.DISK_FREE, free, what)
                : DoctorLine.look(DoctorText.DISK_FREE, free, what);
        return found.advised(DoctorText.DISK_MAKE_SPACE, folder);
    }

    private DoctorLine clockKeeper() {
        return CLOCK_KEEPERS.entrySet().stream()
                .filter(keeper -> Files.exists(keeper.getValue()))
                .findFirst()
                .map(keeper -> DoctorLine.good(DoctorText.CLOCK_IS_SYNCHRONISED, keeper.getKey()))
                .orElseGet(() -> DoctorLine.look(DoctorText.CLOCK_NOT_KNOWN).advised(DoctorText.CLOCK_SYNCHRONISE));
    }

    private DoctorLine key() {
        Path file = settings.keyFile;
        if (!Files.exists(file)) {
            return DoctorLine.look(DoctorText.KEY_IS_MISSING, file).advised(DoctorText.KEY_RESTORE);
        }
        try {
            Set<PosixFilePermission> may = Files.getPosixFilePermissions(file);
            may.removeAll(Set.of(PosixFilePermission.OWNER_READ, PosixFilePermission.OWNER_WRITE));
            if (!may.isEmpty()) {
                return DoctorLine.bad(DoctorText.KEY_IS_OPEN).advised(DoctorText.KEY_CHECK_OWNER, file);
            }
            return SealKeys.read(file).taking()
                    ? DoctorLine.look(DoctorText.KEY_ROTATION_BROKE_OFF).advised(DoctorText.KEY_FINISH_ROTATION)
                    : DoctorLine.good(DoctorText.KEY_IS_GOOD);
        } catch (IOException e) {
            return DoctorLine.bad(DoctorText.KEY_IS_MISSING, file).advised(DoctorText.KEY_RESTORE);
        }
    }

    private DoctorLine certificate(Path file) {
        try (InputStream in = Files.newInputStream(file)) {
            Certificate first = CertificateFactory.getInstance("X.509").generateCertificate(in);
            Instant end = ((X509Certificate) first).getNotAfter().toInstant();
            Instant now = clock.instant();
            Object day = end.atZone(ZoneOffset.UTC).toLocalDate();
            if (!end.isAfter(now)) {
                return DoctorLine.bad(DoctorText.CERTIFICATE_ENDED, day).advised(DoctorText.CERTIFICATE_RENEW, file);
            }
            return end.isBefore(now.plus(ENDS_SOON))
                    ? DoctorLine.look(DoctorText.CERTIFICATE_ENDS_SOON, day).advised(DoctorText.CERTIFICATE_RENEW, file)
                    : DoctorLine.good(DoctorText.CERTIFICATE_IS_GOOD, day);
        } catch (IOException | CertificateException e) {
            return DoctorLine.bad(DoctorText.CERTIFICATE_NOT_READ, e.getMessage())
                    .advised(DoctorText.CERTIFICATE_RENEW, file);
        }
    }
}
