package lychnos.wire.iscsi;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.DataInputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import lychnos.core.text.Texts;
import lychnos.wire.fault.WireFault;
import lychnos.wire.fault.WireText;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Discovery against portals that behave, and against peers that do not; the bytes are written here after RFC 7143. */
class DiscoveryTest {

    private static final Duration PATIENCE = Duration.ofSeconds(2);

    /** What a peer does with a connection. */
    private interface Peer {
        void meet(DataInputStream in, OutputStream out) throws IOException;
    }

    private ServerSocket server;
    private final List<byte[]> requests = new ArrayList<>();

    @BeforeEach
    void listen() throws IOException {
        server = new ServerSocket(0, 5, InetAddress.getLoopbackAddress());
    }

    @AfterEach
    void close() throws IOException {
        server.close();
    }

    private List<Discovery.Found> ask(Peer peer) throws WireFault {
        Thread thread = new Thread(() -> {
            try (Socket socket = server.accept()) {
                peer.meet(new DataInputStream(socket.getInputStream()), socket.getOutputStream());
            } catch (IOException e) {
                // the other side has hung up, as it should
            }
        });
        thread.setDaemon(true);
        thread.start();
        try {
            return Discovery.ask(new InetSocketAddress(server.getInetAddress(), server.getLocalPort()), PATIENCE);
        } finally {
            ended(thread);
        }
    }

    /**
     * What the peer has noted is looked at once it has ended: the last request comes when the answer is there already.
     */
    private static void ended(Thread peer) {
        try {
            peer.join(PATIENCE.multipliedBy(10).toMillis());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    private String request(DataInputStream in) throws IOException {
        byte[] header = new byte[48];
        in.readFully(header);
        requests.add(header);
        int length = ByteBuffer.wrap(header).getInt(4) & 0xffffff;
        byte[] data = new byte[(length + 3) / 4 * 4];
        in.readFully(data);
        return new String(data, 0, length, StandardCharsets.UTF_8);
    }

    private static byte[] answer(int opcode, int flags, String text) {
        byte[] data = text.getBytes(StandardCharsets.UTF_8);
        ByteBuffer pdu = ByteBuffer.allocate(48 + (data.length + 3) / 4 * 4);
        pdu.put(0, (byte) opcode).put(1, (byte) flags).putInt(4, data.length);
        return pdu.position(48).put(data).array();
    }

    private static byte[] loggedIn() {
        return answer(0x23, 0x87, "TargetPortalGroupTag=1\0");
    }

    @Test
    void targetsAreToldWithWhereTheyAreReached() throws Exception {
        List<Discovery.Found> found = ask((in, out) -> {
            assertTrue(request(in).contains("SessionType=Discovery\0"));
            out.write(loggedIn());
            assertEquals("SendTargets=All\0", request(in));
            out.write(answer(
                    0x24,
                    0x80,
                    "TargetName=iqn.2026-11.example.a:1\0TargetAddress=10.40.16.11:3260,1\0"
                            + "TargetAddress=[fd40:a4da:1:16::11]:3260,1\0"
                            + "TargetName=iqn.2026-11.example.a:2\0"));
            request(in);
        });
        assertEquals(
                List.of(
                        new Discovery.Found("iqn.2026-11.example.a:1", List.of("10.40.16.11", "fd40:a4da:1:16::11")),
                        new Discovery.Found("iqn.2026-11.example.a:2", List.of())),
                found);
        assertEquals(
                List.of(0x43, 0x04),
                requests.subList(0, 2).stream().map(header -> (int) header[0]).toList(),
                "a log-in and a question");
        assertEquals((byte) 0x87, requests.get(0)[1], "from operational negotiation into the full feature phase");
    }

    @Test
    void anAnswerMayComeInPartsAndALoginInRounds() throws Exception {
        List<Discovery.Found> found = ask((in, out) -> {
            request(in);
            out.write(answer(0x23, 0x04, "")); // not yet
            request(in);
            out.write(loggedIn());
            request(in);
            byte[] first = answer(0x24, 0x40, "TargetName=iqn.2026-11.example.a:1\0Target");
            ByteBuffer.wrap(first).putInt(20, 77);
            for (byte each : first) {
                out.write(each);
                out.flush();
            }
            request(in);
            out.write(answer(0x24, 0x80, "Address=10.40.16.11:3260,1\0"));
        });
        assertEquals(List.of("10.40.16.11"), found.get(0).addresses());
        assertEquals(77, ByteBuffer.wrap(requests.get(3)).getInt(20), "asked on with the tag that it gave");
    }

    private String fault(Peer peer) {
        long begin = System.nanoTime();
        WireFault fault = assertThrows(WireFault.class, () -> ask(peer));
        assertTrue(System.nanoTime() - begin < PATIENCE.multipliedBy(3).toNanos(), "it took its time and no more");
        return fault.kind() + " " + fault.getMessage();
    }

    @Test
    void peersThatDoNotBehaveAreTold() {
        assertEquals("GARBAGE " + WireText.PORTAL_REFUSES.text(2, 3), fault((in, out) -> {
            request(in);
            byte[] refusal = loggedIn();
            refusal[36] = 2;
            refusal[37] = 3;
            out.write(refusal);
        }));
        assertEquals("GARBAGE " + WireText.PORTAL_REDIRECTS.text(), fault((in, out) -> {
            request(in);
            byte[] elsewhere = answer(0x23, 0x87, "TargetAddress=10.99.0.1:3260\0");
            elsewhere[36] = 1;
            out.write(elsewhere);
        }));
        assertTrue(Texts.says(
                WireText.NOT_ISCSI,
                fault((in, out) -> out.write(Arrays.copyOf(
                        "SSH-2.0-something else that greets first".getBytes(StandardCharsets.US_ASCII), 60)))));
        assertTrue(Texts.says(WireText.ENDED_IN_ANSWER, fault((in, out) -> request(in))));
        assertTrue(Texts.says(WireText.ANSWER_TOO_LONG, fault((in, out) -> {
            request(in);
            byte[] endless = loggedIn();
            ByteBuffer.wrap(endless).putInt(4, 0xffffff);
            out.write(endless);
        })));
        assertEquals("GARBAGE " + WireText.PORTAL_LOGIN_ENDLESS.text(), fault((in, out) -> {
            while (true) {
                request(in);
                out.write(answer(0x23, 0x04, ""));
            }
        }));
        assertEquals("GARBAGE " + WireText.PORTAL_LIST_ENDLESS.text(), fault((in, out) -> {
            request(in);
            out.write(loggedIn());
            while (true) {
                request(in);
                out.write(answer(0x24, 0x40, "TargetName=iqn.2026-11.example.a:1\0"));
            }
        }));
    }

    @Test
    void whoSaysNothingOrAByteNowAndThenIsSilent() {
        assertTrue(fault((in, out) -> in.readNBytes(1000)).startsWith("SILENT"));
        assertTrue(fault((in, out) -> {
                    byte[] answer = loggedIn();
                    for (int i = 0; i < answer.length; i++) {
                        out.write(answer[i]);
                        out.flush();
                        java.util.concurrent.locks.LockSupport.parkNanos(300_000_000);
                    }
                })
                .startsWith("SILENT"));
    }
}
