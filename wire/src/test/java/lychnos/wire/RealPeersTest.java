package lychnos.wire;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.vertx.core.Vertx;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;
import lychnos.core.proof.Rung;
import lychnos.core.proof.Trouble;
import lychnos.wire.console.Peer;
import lychnos.wire.dial.Dialler;
import lychnos.wire.fault.WireFault;
import lychnos.wire.iscsi.Discovery;
import lychnos.wire.ladder.Climb;
import lychnos.wire.ladder.Climbed;
import lychnos.wire.ladder.Target;
import lychnos.wire.nfs.NullCall;
import lychnos.wire.rmcp.Presence;
import lychnos.wire.snmp.Community;
import lychnos.wire.ssh.HostKey;
import lychnos.wire.vantage.LocalVantage;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * Checks against servers that others wrote: nginx, OpenSSH, an iSCSI target, an NFS server and a simulated management
 * controller.
 */
class RealPeersTest {

    private static final String HERE = "127.0.0.1";
    private static final Duration PATIENCE = Duration.ofSeconds(5);

    @TempDir
    Path folder;

    private final List<Peer> peers = new ArrayList<>();

    @AfterEach
    void close() {
        peers.forEach(Peer::close);
    }

    private Peer start(String... command) throws IOException {
        Peer peer = Peer.start(List.of(command));
        peers.add(peer);
        return peer;
    }

    private String run(String... command) throws Exception {
        Process process = new ProcessBuilder(command)
                .directory(folder.toFile())
                .redirectErrorStream(true)
                .start();
        String output = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertEquals(0, process.waitFor(), output);
        return output;
    }

    private static InetSocketAddress at(int port) {
        return new InetSocketAddress(HERE, port);
    }

    /** Asks again until the peer is up; what it says then counts. */
    private static <T> T whenUp(Asking<T> asking) throws WireFault {
        long end = System.nanoTime() + Duration.ofSeconds(20).toNanos();
        while (true) {
            try {
                return asking.ask();
            } catch (WireFault e) {
                if (System.nanoTime() > end) {
                    throw e;
                }
                java.util.concurrent.locks.LockSupport.parkNanos(100_000_000);
            }
        }
    }

    private interface Asking<T> {
        T ask() throws WireFault;
    }

    // --- nginx with several certificates ---

    /** @param more of openssl x509 */
    private void certificate(String name, String names, String key, String... more) throws Exception {
        run(
                "openssl",
                "req",
                "-new",
                "-nodes",
                "-subj",
                "/CN=" + name,
                "-keyout",
                name + ".key",
                "-out",
                name + ".csr",
                "-newkey",
                key.startsWith("rsa") ? key : "ec",
                "-pkeyopt",
                key.startsWith("rsa") ? "rsa_keygen_pubexp:65537" : "ec_paramgen_curve:P-256");
        Files.writeString(
                folder.resolve(name + ".ext"),
                names.equals("CA") ? "basicConstraints=critical,CA:TRUE" : "subjectAltName=" + names);
        List<String> command = new ArrayList<>(List.of(
                "openssl", "x509", "-req", "-in", name + ".csr", "-out", name + ".pem", "-extfile", name + ".ext"));
        command.addAll(List.of(more));
        run(command.toArray(String[]::new));
    }

    private Climbed climb(LocalVantage vantage, int port, String fingerprint) throws WireFault {
        Target target = new Target(
                Address.parse(HERE),
                port,
                null,
                fingerprint,
                List.of(),
                new Target.SignIn(false, new Target.SetUp(Instant.EPOCH, "NG-1", true), null),
                new Target.Names("array-1.ardal.example", Map.of(), Map.of()));
        return whenUp(() -> {
            Climbed climbed = new Climb(vantage, target, Clock.systemUTC()).climb();
            if (climbed.outcomes().get(1).trouble() == Trouble.PORT_REFUSED) {
                throw new WireFault(WireFault.Kind.REFUSED, "not up yet");
            }
            return climbed;
        });
    }

    @Test
    void nginxShowsCertificatesOfEverySort() throws Exception {
        String nginx = Peer.program("nginx");
        certificate("root", "CA", "ec", "-signkey", "root.key", "-days", "3000");
        certificate("signing", "CA", "ec", "-CA", "root.pem", "-CAkey", "root.key", "-CAcreateserial", "-days", "2000");
        String[] signed = {"-CA", "signing.pem", "-CAkey", "signing.key", "-CAcreateserial", "-days", "300"};
        certificate("right", "DNS:array-1.ardal.example", "ec", signed);
        certificate("wild", "DNS:*.ardal.example", "ec", signed);
        certificate("other", "DNS:array-2.ardal.example,DNS:*.hall.ardal.example", "ec", signed);
        certificate("weak", "DNS:array-1.ardal.example", "rsa:1024", "-signkey", "weak.key", "-days", "300");
        certificate("own", "DNS:whatever", "ec", "-signkey", "own.key", "-days", "300");
        certificate("over", "DNS:array-1.ardal.example", "ec", "-signkey", "over.key", "-days", "-1");
        Map<String, List<String>> shown = Map.of(
                "right",
                List.of("right", "signing"),
                "wild",
                List.of("wild", "signing"),
                "other",
                List.of("other", "signing"),
                "alone",
                List.of("right"),
                "mixed",
                List.of("right", "root"),
                "weak",
                List.of("weak"),
                "own",
                List.of("own"),
                "over",
                List.of("over"));
        StringBuilder servers = new StringBuilder();
        Map<String, Integer> ports = new java.util.HashMap<>();
        for (Map.Entry<String, List<String>> each : shown.entrySet()) {
            StringBuilder chain = new StringBuilder();
            for (String part : each.getValue()) {
                chain.append(Files.readString(folder.resolve(part + ".pem")));
            }
            Files.writeString(folder.resolve(each.getKey() + ".chain"), chain);
            int port = Peer.freePort();
            ports.put(each.getKey(), port);
            servers.append("server { listen ")
                    .append(HERE)
                    .append(':')
                    .append(port)
                    .append(" ssl; ssl_certificate ")
                    .append(folder.resolve(each.getKey() + ".chain"))
                    .append("; ssl_certificate_key ")
                    .append(folder.resolve(each.getValue().get(0) + ".key"))
                    .append("; location / { default_type text/html; return 200 '<title>array</title><input "
                            + "type=password>'; } }\n");
        }
        Path conf = Files.writeString(
                folder.resolve("nginx.conf"),
                "daemon off; pid " + folder.resolve("pid")
                        + "; error_log stderr; worker_processes 1;\nevents { worker_connections 64; }\nhttp { "
                        + "access_log off; "
                        + "client_body_temp_path " + folder.resolve("t1") + "; proxy_temp_path " + folder.resolve("t2")
                        + "; fastcgi_temp_path " + folder.resolve("t3") + "; uwsgi_temp_path " + folder.resolve("t4")
                        + "; scgi_temp_path " + folder.resolve("t5")
                        + "; ssl_ciphers DEFAULT@SECLEVEL=0;\n" + servers + "}\n");
        start(nginx, "-e", "stderr", "-p", folder.toString(), "-c", conf.toString());
        Vertx vertx = Vertx.vertx();
        try (LocalVantage vantage =
                new LocalVantage("test", false, new Dialler(() -> List.of(Prefix.parse("127.0.0.0/8")), true), vertx)) {
            for (String good : List.of("right", "wild", "own")) {
                Climbed climbed = climb(vantage, ports.get(good), null);
                assertEquals(
                        null,
                        climbed.outcomes().get(Rung.TLS.ordinal()).trouble(),
                        () -> good + ": " + climbed.outcomes());
                assertEquals(shown.get(good).size(), climbed.tls().pem().size());
            }
            Map<String, Trouble> wrong = Map.of(
                    "other",
                    Trouble.CERTIFICATE_NAMES,
                    "alone",
                    Trouble.CHAIN_BROKEN,
                    "mixed",
                    Trouble.CHAIN_BROKEN,
                    "weak",
                    Trouble.WEAK_KEY,
                    "over",
                    Trouble.CERTIFICATE_EXPIRED);
            for (Map.Entry<String, Trouble> each : wrong.entrySet()) {
                Climbed climbed = climb(vantage, ports.get(each.getKey()), null);
                assertEquals(
                        each.getValue(),
                        climbed.outcomes().get(Rung.TLS.ordinal()).trouble(),
                        () -> each.getKey() + ": " + climbed.outcomes());
            }
            assertEquals(
                    Trouble.CERTIFICATE_CHANGED,
                    climb(
                                    vantage,
                                    ports.get("right"),
                                    climb(vantage, ports.get("wild"), null).fingerprint())
                            .outcomes()
                            .get(Rung.TLS.ordinal())
                            .trouble());
        } finally {
            vertx.close().toCompletionStage().toCompletableFuture().join();
        }
    }

    // --- SSH ---

    @Test
    void opensshShowsItsHostKeyToWhoeverAsks() throws Exception {
        String sshd = Peer.program("sshd");
        int port = Peer.freePort();
        run("ssh-keygen", "-q", "-t", "ed25519", "-N", "", "-f", "key");
        Files.writeString(
                folder.resolve("passwd"), "root:x:0:0:root:/root:/bin/sh\nsshd:x:100:65534::/run/sshd:/bin/false\n");
        Path settings = Files.writeString(
                folder.resolve("sshd_config"),
                "ListenAddress " + HERE + ":" + port + "\nHostKey " + folder.resolve("key")
                        + "\nPidFile none\nUsePAM no\nStrictModes no\n");
        Peer server = start(
                "unshare",
                "--mount",
                "sh",
                "-c",
                "mount -t tmpfs tmpfs /run && mkdir /run/sshd && mount --bind " + folder.resolve("passwd")
                        + " /etc/passwd && exec " + sshd + " -D -e -f " + settings);
        server.await("Server listening");
        try (HostKey probe = new HostKey()) {
            HostKey.Seen seen = probe.read(at(port), PATIENCE);
            assertTrue(run("ssh-keygen", "-lf", "key.pub").contains(seen.fingerprint()), seen::toString);
            assertTrue(Files.readString(folder.resolve("key.pub")).startsWith(seen.line()), seen::toString);
            assertEquals(
                    WireFault.Kind.REFUSED,
                    assertThrows(WireFault.class, () -> probe.read(at(Peer.freePort()), PATIENCE))
                            .kind());
        }
    }

    // --- storage ---

    @Test
    void anIscsiTargetTellsItsTargets() throws Exception {
        String tgtd = Peer.program("tgtd");
        int port = Peer.freePort();
        // the braces make it wait for the mount: its socket would be hidden by one that came later
        start(
                "unshare",
                "--mount",
                "sh",
                "-c",
                "mount -t tmpfs tmpfs /run && mkdir -p /run/tgtd /var/run/tgtd && { (for i in $(seq 100); do "
                        + Peer.program("tgtadm")
                        + " --lld iscsi --op new --mode target --tid 1 -T iqn.2026-11.example.ardal:one; "
                        + Peer.program("tgtadm")
                        + " --lld iscsi --op bind --mode target --tid 1 -I ALL && break; sleep 0.1; done) & exec "
                        + tgtd
                        + " -f --iscsi portal=" + HERE + ":" + port + "; }");
        List<Discovery.Found> found = whenUp(() -> {
            List<Discovery.Found> told = Discovery.ask(at(port), PATIENCE);
            if (told.isEmpty()) {
                throw new WireFault(WireFault.Kind.SILENT, "its target is not made yet");
            }
            return told;
        });
        assertEquals("iqn.2026-11.example.ardal:one", found.get(0).name());
        assertEquals(List.of(HERE), found.get(0).addresses());
    }

    @Test
    void anNfsServerTakesANullCall() throws Exception {
        String ganesha = Peer.program("ganesha.nfsd");
        int port = Peer.freePort();
        Files.createDirectory(folder.resolve("recovery"));
        Path conf = Files.writeString(
                folder.resolve("ganesha.conf"),
                "NFS_CORE_PARAM { NFS_Port = " + port
                        + "; Enable_NLM = false; Enable_RQUOTA = false; Protocols = 4; }\n"
                        + "NFSv4 { Graceless = true; RecoveryBackend = fs; RecoveryRoot = " + folder.resolve("recovery")
                        + "; Only_Numeric_Owners = true; UseGetpwnam = true; DomainName = ardal.example; }\nNFS_KRB5 "
                        + "{ Active_krb5 = false; }\nDIRECTORY_SERVICES { DomainName = ardal.example; "
                        + "Idmapping_Active = false; }\n");
        start(
                ganesha,
                "-F",
                "-f",
                conf.toString(),
                "-L",
                folder.resolve("log").toString(),
                "-p",
                folder.resolve("pid").toString(),
                "-N",
                "NIV_EVENT");
        assertEquals(List.of(4), whenUp(() -> NullCall.ask(at(port), PATIENCE)), "it was told to take version 4 alone");
    }

    // --- a management controller ---

    @Test
    void aSimulatedControllerAnswersAPresencePing() throws Exception {
        String simulator = Peer.program("ipmi_sim");
        int port = Peer.freePort();
        Path lan = Files.writeString(
                folder.resolve("lan.conf"),
                "name \"brack\"\nset_working_mc 0x20\nstartlan 1\n addr " + HERE + " " + port
                        + "\n priv_limit admin\n allowed_auths_admin none md5\n guid "
                        + "a123456789abcdefa123456789abcdef\nendlan\nuser 2 true \"keeper\" \"fellside\" "
                        + "admin 10 none md5\n");
        Path commands = Files.writeString(
                folder.resolve("sim.emu"),
                "mc_setbmc 0x20\nmc_add 0x20 0 no-device-sdrs 0x23 9 8 0x9f 0x1291 0xf02\nmc_enable 0x20\n");
        start(
                "sh",
                "-c",
                "tail -f /dev/null | exec " + simulator + " -c " + lan + " -f " + commands + " -n -s "
                        + folder.resolve("state"));
        assertTrue(whenUp(() -> Presence.ask(at(port), PATIENCE)).ipmi());
        assertFalse(assertThrows(WireFault.class, () -> Presence.ask(at(Peer.freePort()), Duration.ofMillis(600)))
                .getMessage()
                .isEmpty());
    }

    @Test
    void anAgentAnswersTheCommunityThatItKnowsAndNoOther() throws Exception {
        String agent = Peer.program("snmpd");
        int port = Peer.freePort();
        Path settings = Files.writeString(folder.resolve("agent.conf"), "rocommunity openly " + HERE + "\n");
        start(
                "env",
                "MIBS=",
                "SNMP_PERSISTENT_DIR=" + folder.resolve("agent"),
                agent,
                "-f",
                "-Lo",
                "-C",
                "-c",
                settings.toString(),
                "udp:" + HERE + ":" + port);
        LoopbackHall.until("the agent answers", () -> {
            try {
                return Community.answers(at(port), "openly", PATIENCE);
            } catch (WireFault e) {
                return false;
            }
        });
        assertFalse(Community.answers(at(port), "public", Duration.ofMillis(800)));
        assertFalse(Community.answers(at(Peer.freePort()), "openly", Duration.ofMillis(600)));
    }
}
