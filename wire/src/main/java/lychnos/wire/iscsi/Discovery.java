package lychnos.wire.iscsi;

import java.io.DataInputStream;
import java.io.IOException;
import java.net.ConnectException;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.net.SocketTimeoutException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import lychnos.wire.fault.Refused;
import lychnos.wire.fault.WireFault;
import lychnos.wire.fault.WireFault.Kind;
import lychnos.wire.fault.WireText;
import lychnos.wire.time.TimeLeft;

/**
 * Asks an iSCSI portal which targets it has: a discovery session, SendTargets, and a logout (RFC 7143, sections 4.3 and
 * appendix C).
 * Nothing of a target itself is touched.
 */
public final class Discovery {

    private static final String INITIATOR = "iqn.2026-11.example.ardal:prover";
    private static final int HEADER = 48;
    private static final int LARGEST = 65_536;
    private static final int MOST_ROUNDS = 8;
    private static final int LOGIN = 0x03;
    private static final int TEXT = 0x04;
    private static final int LOGOUT = 0x06;
    private static final int ANSWER = 0x20;
    private static final int IMMEDIATE = 0x40;
    private static final int FINAL = 0x80;
    private static final int CONTINUES = 0x40;
    /** From operational negotiation into the full feature phase. */
    private static final int TO_FULL_FEATURE = FINAL | 1 << 2 | 3;

    private static final int NO_TAG = 0xffffffff;

    private final Socket socket;
    private final DataInputStream in;
    private final TimeLeft left;
    private int task = 1;
    private int command = 1;
    private int expected;

    private Discovery(Socket socket, TimeLeft left) throws IOException {
        this.socket = socket;
        this.in = new DataInputStream(socket.getInputStream());
        this.left = left;
    }

    /**
     * A target.
     *
     * @param addresses where it says that it is reached, without port and portal group
     */
    public record Found(String name, List<String> addresses) {}

    /**
     * Asks.
     *
     * @param timeout for everything together
     * @throws WireFault of kind SILENT, REFUSED, or GARBAGE where something else answers or the log-in is refused
     */
    public static List<Found> ask(InetSocketAddress portal, Duration timeout) throws WireFault {
        TimeLeft left = TimeLeft.of(timeout);
        try (Socket socket = new Socket()) {
            socket.connect(portal, (int) timeout.toMillis());
            Discovery discovery = new Discovery(socket, left);
            discovery.logIn();
            List<Found> found = targets(discovery.sendTargets());
            discovery.send(LOGOUT | IMMEDIATE, FINAL, new byte[0]);
            return found;
        } catch (SocketTimeoutException e) {
            throw new WireFault(Kind.SILENT, WireText.NO_ANSWER_IN.text(timeout.toSeconds()), e);
        } catch (ConnectException e) {
            throw Refused.orNone(e);
        } catch (IOException e) {
            throw new WireFault(Kind.GARBAGE, WireText.ENDED_IN_ANSWER.text(), e);
        }
    }

    private void logIn() throws IOException, WireFault {
        String keys = "InitiatorName=" + INITIATOR
                + "\0SessionType=Discovery\0HeaderDigest=None\0DataDigest=None\0MaxRecvDataSegmentLength=" + LARGEST
                + "\0";
        for (int round = 0; round < MOST_ROUNDS; round++) {
            send(LOGIN | IMMEDIATE, TO_FULL_FEATURE, round == 0 ? keys.getBytes(StandardCharsets.UTF_8) : new byte[0]);
            Answer answer = answer(LOGIN);
            int status = answer.header.get(36) & 0xff;
            if (status == 1) {
                throw new WireFault(Kind.GARBAGE, WireText.PORTAL_REDIRECTS.text());
            }
            if (status != 0) {
                throw new WireFault(Kind.GARBAGE, WireText.PORTAL_REFUSES.text(status, answer.header.get(37) & 0xff));
            }
            if ((answer.flags & FINAL) != 0 && (answer.flags & 3) == 3) {
                return;
            }
        }
        throw new WireFault(Kind.GARBAGE, WireText.PORTAL_LOGIN_ENDLESS.text());
    }

    private String sendTargets() throws IOException, WireFault {
        StringBuilder text = new StringBuilder();
        send(TEXT, FINAL, "SendTargets=All\0".getBytes(StandardCharsets.UTF_8));
        for (int round = 0; round < MOST_ROUNDS; round++) {
            Answer answer = answer(TEXT);
            text.append(new String(answer.data, StandardCharsets.UTF_8));
            if ((answer.flags & CONTINUES) == 0) {
                return text.toString();
            }
            send(TEXT, FINAL, new byte[0], answer.header.getInt(20));
        }
        throw new WireFault(Kind.GARBAGE, WireText.PORTAL_LIST_ENDLESS.text());
    }

    private static List<Found> targets(String text) {
        List<Found> found = new ArrayList<>();
        for (String pair : text.split("\0")) {
            if (pair.startsWith("TargetName=")) {
                found.add(new Found(pair.substring("TargetName=".length()), new ArrayList<>()));
            } else if (pair.startsWith("TargetAddress=") && !found.isEmpty()) {
                String address = pair.substring("TargetAddress=".length())
                        .replaceFirst(",\\d+$", "")
                        .replaceFirst(":\\d+$", "");
                found.get(found.size() - 1).addresses.add(address.replaceAll("[\\[\\]]", ""));
            }
        }
        return found;
    }

    private record Answer(ByteBuffer header, int flags, byte[] data) {}

    private void send(int opcode, int flags, byte[] data) throws IOException {
        send(opcode, flags, data, NO_TAG);
    }

    private void send(int opcode, int flags, byte[] data, int transfer) throws IOException {
        ByteBuffer pdu = ByteBuffer.allocate(HEADER + (data.length + 3) / 4 * 4);
        pdu.put(0, (byte) opcode).put(1, (byte) flags).putInt(4, data.length);
        boolean login = (opcode & 0x3f) == LOGIN;
        if (login) {
            pdu.put(8, (byte) 0x80).putInt(10, 0x4c59); // a session identifier of the random sort
        }
        pdu.putInt(16, task++);
        if (!login) {
            pdu.putInt(20, transfer);
        }
        pdu.putInt(24, command).putInt(28, expected);
        pdu.position(HEADER);
        pdu.put(data);
        if ((opcode & IMMEDIATE) == 0) {
            command++;
        }
        socket.getOutputStream().write(pdu.array());
    }

    private Answer answer(int wanted) throws IOException, WireFault {
        byte[] header = read(HEADER);
        ByteBuffer buffer = ByteBuffer.wrap(header);
        int opcode = header[0] & 0x3f;
        if (opcode != (wanted | ANSWER)) {
            throw new WireFault(Kind.GARBAGE, WireText.NOT_ISCSI.text(opcode));
        }
        int length = buffer.getInt(4) & 0xffffff;
        int more = (header[4] & 0xff) * 4;
        if (length > LARGEST) {
            throw new WireFault(Kind.GARBAGE, WireText.ANSWER_TOO_LONG.text(LARGEST));
        }
        read(more);
        byte[] data = read((length + 3) / 4 * 4);
        expected = buffer.getInt(24) + 1;
        return new Answer(buffer, header[1] & 0xff, java.util.Arrays.copyOf(data, length));
    }

    private byte[] read(int length) throws IOException {
        byte[] bytes = new byte[length];
        int at = 0;
        while (at < length) {
            if (left.over()) {
                throw new SocketTimeoutException(WireText.DRIP.text());
            }
            socket.setSoTimeout(left.millis());
            int read = in.read(bytes, at, length - at);
            if (read < 0) {
                throw new IOException("ended");
            }
            at += read;
        }
        return bytes;
    }
}
