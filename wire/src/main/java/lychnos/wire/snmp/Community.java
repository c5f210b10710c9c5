package lychnos.wire.snmp;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetSocketAddress;
import java.net.PortUnreachableException;
import java.net.SocketTimeoutException;
import java.nio.BufferUnderflowException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.security.SecureRandom;
import java.time.Duration;
import lychnos.wire.fault.WireFault;
import lychnos.wire.fault.WireFault.Kind;
import lychnos.wire.fault.WireText;
import lychnos.wire.time.TimeLeft;

/**
 * Whether an SNMP agent answers to a community: it is asked for its uptime, in SNMPv2c (RFC 1901) and in
 * SNMPv1 (RFC 1157).
 * An agent does not answer a community that it does not know (RFC 1157, section 4.1), so silence is a refusal.
 */
public final class Community {

    public static final int PORT = 161;
    /** More letters than any agent takes would not fit a short form length (X.690, section 8.1.3.4). */
    public static final int LONGEST = 32;

    private static final int INTEGER = 0x02;
    private static final int OCTETS = 0x04;
    private static final int SEQUENCE = 0x30;
    private static final int GET_REQUEST = 0xa0;
    private static final int GET_RESPONSE = 0xa2;
    /** sysUpTime.0, 1.3.6.1.2.1.1.3.0 (RFC 3418), with nothing as its value. */
    private static final byte[] UPTIME = {
        0x30, 0x0c, 0x06, 0x08, 0x2b, 0x06, 0x01, 0x02, 0x01, 0x01, 0x03, 0x00, 0x05, 0x00
    };

    private static final byte[] NO_ERROR = {INTEGER, 1, 0, INTEGER, 1, 0};
    private static final int[] VERSIONS = {1, 0};
    private static final int TRIES = 2;
    private static final SecureRandom RANDOM = new SecureRandom();

    private Community() {}

    /**
     * Asks twice, as datagrams get lost.
     *
     * @param community at most {@link #LONGEST} letters of ASCII
     * @return whether it answers
     * @throws WireFault of kind GARBAGE where something answers that is no SNMP
     */
    public static boolean answers(InetSocketAddress peer, String community, Duration timeout) throws WireFault {
        int id = RANDOM.nextInt(1 << 30, Integer.MAX_VALUE);
        try (DatagramSocket socket = new DatagramSocket()) {
            socket.connect(peer); // the kernel hands over what comes from there alone
            for (int i = 0; i < TRIES; i++) {
                for (int version : VERSIONS) {
                    byte[] request = request(version, community, id);
                    socket.send(new DatagramPacket(request, request.length));
                }
                TimeLeft left = TimeLeft.of(timeout.dividedBy(TRIES));
                while (!left.over()) {
                    socket.setSoTimeout(left.millis());
                    DatagramPacket answer = new DatagramPacket(new byte[1500], 1500);
                    try {
                        socket.receive(answer);
                    } catch (SocketTimeoutException e) {
                        break;
                    }
                    if (answered(ByteBuffer.wrap(answer.getData(), 0, answer.getLength())) == id) {
                        return true;
                    }
                }
            }
            return false;
        } catch (PortUnreachableException e) {
            return false;
        } catch (IOException e) {
            throw new WireFault(Kind.SILENT, WireText.NOT_SENT.text(e.getMessage()), e);
        }
    }

    private static byte[] request(int version, String community, int id) {
        byte[] pdu = value(
                GET_REQUEST,
                joined(value(INTEGER, ByteBuffer.allocate(4).putInt(id).array()), NO_ERROR, value(SEQUENCE, UPTIME)));
        return value(
                SEQUENCE,
                joined(
                        value(INTEGER, new byte[] {(byte) version}),
                        value(OCTETS, community.getBytes(StandardCharsets.US_ASCII)),
                        pdu));
    }

    private static byte[] value(int tag, byte[] content) {
        return joined(new byte[] {(byte) tag, (byte) content.length}, content);
    }

    private static byte[] joined(byte[]... parts) {
        ByteArrayOutputStream all = new ByteArrayOutputStream();
        for (byte[] part : parts) {
            all.writeBytes(part);
        }
        return all.toByteArray();
    }

    /** To which request it is the answer; that the agent has no such value is an answer too. */
    private static int answered(ByteBuffer message) throws WireFault {
        try {
            ByteBuffer whole = content(message, SEQUENCE);
            content(whole, INTEGER);
            content(whole, OCTETS);
            ByteBuffer id = content(content(whole, GET_RESPONSE), INTEGER);
            return id.remaining() == Integer.BYTES ? id.getInt() : 0;
        } catch (BufferUnderflowException | IllegalArgumentException e) {
            throw new WireFault(Kind.GARBAGE, WireText.NOT_SNMP.text(), e);
        }
    }

    /** The content of the next value, which must have this tag (X.690, section 8.1). */
    private static ByteBuffer content(ByteBuffer in, int tag) {
        if ((in.get() & 0xff) != tag) {
            throw new IllegalArgumentException("another tag");
        }
        int length = in.get() & 0xff;
        if (length > 0x7f) {
            int bytes = length & 0x7f;
            if (bytes == 0 || bytes > 2) {
                throw new IllegalArgumentException("no length of a datagram");
            }
            length = 0;
            for (int i = 0; i < bytes; i++) {
                length = length << 8 | in.get() & 0xff;
            }
        }
        if (length > in.remaining()) {
            throw new BufferUnderflowException();
        }
        ByteBuffer content = in.slice(in.position(), length);
        in.position(in.position() + length);
        return content;
    }
}
