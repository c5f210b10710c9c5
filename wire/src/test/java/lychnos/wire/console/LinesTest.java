package lychnos.wire.console;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import io.vertx.core.Vertx;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Executors;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;
import lychnos.core.dialogue.LineSettings;
import lychnos.core.fact.Secret;
import lychnos.core.text.Texts;
import lychnos.wire.dial.Dialler;
import lychnos.wire.far.Codec;
import lychnos.wire.far.FarVantage;
import lychnos.wire.far.LinkMessage;
import lychnos.wire.far.RoutedVantage;
import lychnos.wire.far.VantageHost;
import lychnos.wire.fault.WireFault;
import lychnos.wire.vantage.LocalVantage;
import lychnos.wire.vantage.Vantage;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Lines against servers that others wrote: ser2net, sshd, pyserial's RFC 2217 server, and socat's pseudo-terminals. */
class LinesTest {

    private static final Address HERE = Address.parse("127.0.0.1");
    private static final LineSettings FAST = LineSettings.parse("57600 8N1");

    private final Vertx vertx = Vertx.vertx();
    private final Lines lines = new Lines(vertx, new Dialler(() -> List.of(Prefix.parse("127.0.0.0/8")), true));
    private final List<AutoCloseable> open = new ArrayList<>();

    @TempDir
    Path folder;

    @AfterEach
    void close() throws Exception {
        for (AutoCloseable each : open) {
            each.close();
        }
        lines.close();
        vertx.close().toCompletionStage().toCompletableFuture().join();
    }

    private Peer start(String... command) throws IOException {
        Peer peer = Peer.start(List.of(command));
        open.add(0, peer);
        return peer;
    }

    private ConsoleLine line(LineAddress address, LineSettings settings, Heard heard) throws WireFault {
        ConsoleLine line = lines.open(address, settings, heard);
        open.add(0, line);
        return line;
    }

    private static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.ISO_8859_1);
    }

    /** Two ends of one pseudo-terminal cable; gives their device paths. */
    private List<String> cable(String name) throws Exception {
        Path a = folder.resolve(name + "a");
        Path b = folder.resolve(name + "b");
        Peer socat = start(Peer.program("socat"), "-d", "-d", "pty,raw,echo=0,link=" + a, "pty,raw,echo=0,link=" + b);
        socat.await("starting data transfer loop");
        return List.of(
                Files.readSymbolicLink(a).toString(), Files.readSymbolicLink(b).toString());
    }

    @Test
    void ser2netCarriesEveryByteOverTelnetAndRaw() throws Exception {
        for (String how : List.of("telnet(rfc2217)", "telnet", "raw")) {
            List<String> cable = cable(how.substring(0, 3) + how.length());
            int port = Peer.freePort();
            Path settings = folder.resolve("ser2net.yaml");
            String accepter = how.equals("raw") ? "tcp,127.0.0.1," + port : how + ",tcp,127.0.0.1," + port;
            Files.writeString(
                    settings,
                    "connection: &one\n  accepter: " + accepter + "\n  connector: serialdev," + cable.get(0)
                            + ",57600n81,local\n");
            Peer ser2net = start(Peer.program("ser2net"), "-n", "-c", settings.toString());
            Heard machine = new Heard();
            ConsoleLine device = line(LineAddress.device(cable.get(1)), FAST, machine);
            machine.awaitUp();
            LineAddress.Protocol protocol = how.equals("raw")
                    ? LineAddress.Protocol.RAW
                    : how.equals("telnet") ? LineAddress.Protocol.TELNET : LineAddress.Protocol.RFC2217;
            Heard heard = untilUp(LineAddress.tcp(protocol, HERE, port));
            StringBuilder all = new StringBuilder();
            for (int octet = 1; octet < 256; octet++) {
                all.append((char) octet);
            }
            device.send(bytes(all + "<end>"));
            heard.await(all + "<end>");
            newest.send(bytes(all + "<back>"));
            machine.await(all + "<back>");
            newest.sendBreak();
            newest.send(bytes("after"));
            machine.await("after");
            newest.close();
            ser2net.close();
        }
    }

    private ConsoleLine newest;

    /** The server may not listen yet. */
    private Heard untilUp(LineAddress address) throws WireFault {
        for (int attempt = 0; ; attempt++) {
            Heard heard = new Heard();
            newest = line(address, FAST, heard);
            try {
                heard.awaitUpOrDown();
                return heard;
            } catch (IllegalStateException refused) {
                assertTrue(attempt < 2000, refused.getMessage());
            }
        }
    }

    @Test
    void pyserialSetsWhatWasWantedAndHoldsTheBreak() throws Exception {
        assumeTrue(
                Files.exists(Path.of("/usr/lib/python3/dist-packages/serial/rfc2217.py")),
                "python3-serial is not here; ./lychnos test brings it");
        int port = Peer.freePort();
        Path script = folder.resolve("peer.py");
        try (var source = getClass().getResourceAsStream("/rfc2217_peer.py")) {
            Files.copy(source, script);
        }
        Peer peer = start("/usr/bin/python3", script.toString(), String.valueOf(port));
        peer.await("listening");
        Heard heard = new Heard();
        ConsoleLine line = line(
                LineAddress.tcp(LineAddress.Protocol.RFC2217, HERE, port), LineSettings.parse("115200 7E2"), heard);
        peer.await("set 115200 7E2");
        line.send(bytes("round \u00ff trip\r"));
        heard.await("round \u00ff trip\r");
        line.sendBreak();
        peer.await("break on");
        peer.await("break off");
        assertEquals(List.of(), heard.notes());
    }

    @Test
    void sshdShowsItsKeyAndIsRefusedWhenItChanges() throws Exception {
        String sshd = Peer.program("sshd");
        assumeTrue(
                "root".equals(System.getProperty("user.name")) && !"1".equals(System.getenv("LYCHNOS_MAPPED")),
                "sshd lets nobody in without being root");
        int port = Peer.freePort();
        run(
                "ssh-keygen",
                "-q",
                "-t",
                "ed25519",
                "-N",
                "",
                "-f",
                folder.resolve("key").toString());
        Path machine = folder.resolve("machine.sh");
        Files.writeString(
                machine,
                "#!/bin/sh\nstty -echo\nprintf 'ORREL says: '\nread words\nprintf 'heard %s on %s' \"$words\" "
                        + "\"$(stty size)\"\nread more\n");
        Files.setPosixFilePermissions(machine, PosixFilePermissions.fromString("rwxr-xr-x"));
        Path settings = folder.resolve("sshd_config");
        Files.writeString(
                settings,
                "ListenAddress 127.0.0.1:" + port + "\nHostKey " + folder.resolve("key")
                        + "\nPidFile none\nUsePAM no\nPasswordAuthentication yes\nPermitRootLogin yes\nForceCommand "
                        + machine + "\n");
        String digest = run("openssl", "passwd", "-6", "line-word-7").strip();
        Files.writeString(
                folder.resolve("shadow"), "root:" + digest + ":19000:0:99999:7:::\nsshd:*:19000:0:99999:7:::\n");
        Files.writeString(
                folder.resolve("passwd"), "root:x:0:0:root:/root:/bin/sh\nsshd:x:100:65534::/run/sshd:/bin/false\n");
        // in a mount namespace of its own, so that the machine's own accounts are not touched
        Peer server = start(
                "unshare",
                "--mount",
                "sh",
                "-c",
                "mount -t tmpfs tmpfs /run && mkdir /run/sshd && mount --bind " + folder.resolve("shadow")
                        + " /etc/shadow && mount --bind " + folder.resolve("passwd") + " /etc/passwd && exec " + sshd
                        + " -D -e -f " + settings);
        server.await("Server listening");
        Heard heard = new Heard();
        ConsoleLine line = line(LineAddress.ssh(HERE, port, "root", Secret.of("line-word-7")), FAST, heard);
        heard.await("ORREL says: ");
        line.resize(100, 30);
        line.sendBreak();
        line.send(bytes("one two\r"));
        heard.await("heard one two on 30 100");
        String remembered = heard.fingerprint();
        assertTrue(remembered.startsWith("SHA256:"), remembered);
        line.send(bytes("\r"));
        assertEquals(ConsoleText.SSH_ENDED.text(), heard.awaitDown());

        Heard wrongWord = new Heard();
        line(LineAddress.ssh(HERE, port, "root", Secret.of("not-the-word")), FAST, wrongWord);
        assertTrue(wrongWord.awaitDown().contains("No more authentication methods"), wrongWord::toString);

        Heard other = new Heard(key -> key.equals("SHA256:another"));
        line(LineAddress.ssh(HERE, port, "root", Secret.of("line-word-7")), FAST, other);
        other.awaitDown();
        assertEquals(remembered, other.fingerprint());
    }

    private String run(String... command) throws Exception {
        Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
        String output = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertEquals(0, process.waitFor(), output);
        return output;
    }

    /** The cable is in a laptop elsewhere: its device is opened there, over the messages of a link. */
    @Test
    void aSerialPortIsReachedThroughAVantage() throws Exception {
        List<String> cable = cable("far");
        Heard machine = new Heard();
        ConsoleLine device = line(LineAddress.device(cable.get(1)), FAST, machine);
        machine.awaitUp();
        Codec codec = new Codec();
        var pool = Executors.newCachedThreadPool();
        open.add(pool::shutdownNow);
        LocalVantage laptop = new LocalVantage("laptop", true, new Dialler(List::of, true), vertx);
        open.add(laptop);
        FarVantage far = new FarVantage("laptop", codec, pool);
        VantageHost host = new VantageHost(laptop, codec, pool);
        far.linked(message -> host.heard(travelled(codec, message), back -> far.heard(travelled(codec, back))), true);
        Vantage routed =
                new RoutedVantage(laptop, address -> laptop, name -> name.equals("laptop") ? far.vantage() : null);
        Heard heard = new Heard();
        ConsoleLine there = routed.line(LineAddress.device(cable.get(0) + "@laptop"), FAST, heard);
        open.add(0, there);
        heard.awaitUp();
        device.send(bytes("login: \u00ff"));
        heard.await("login: \u00ff");
        there.send(bytes("keeper\r"));
        machine.await("keeper\r");
    }

    private static LinkMessage travelled(Codec codec, LinkMessage message) {
        try {
            return codec.read(codec.write(message), LinkMessage.class);
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    @Test
    void nothingListensAndNothingIsDeclared() throws Exception {
        Heard heard = new Heard();
        line(LineAddress.tcp(LineAddress.Protocol.RAW, HERE, Peer.freePort()), FAST, heard);
        assertTrue(Texts.says(ConsoleText.CONNECTION_REFUSED, heard.awaitDown()), heard::toString);
        assertThrows(
                WireFault.class,
                () -> lines.open(
                        LineAddress.tcp(LineAddress.Protocol.TELNET, Address.parse("10.40.8.99"), 6101), FAST, heard));
        assertThrows(WireFault.class, () -> lines.open(LineAddress.device("/etc/shadow"), FAST, heard));
    }
}
