package lychnos.wire.rmcp;

import java.io.IOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetSocketAddress;
import java.net.PortUnreachableException;
import java.net.SocketTimeoutException;
import java.nio.ByteBuffer;
import java.security.SecureRandom;
import java.time.Duration;
import lychnos.wire.fault.WireFault;
import lychnos.wire.fault.WireFault.Kind;
import lychnos.wire.fault.WireText;
import lychnos.wire.time.TimeLeft;

/**
 * The presence ping of RMCP and ASF (DMTF DSP0136, section 3.2.4): who answers manages a server out of band. Nothing is
 * logged in to.
 */
public final class Presence {

    /** RMCP version 1.0, no acknowledgement wanted, class ASF. */
    private static final byte[] HEADER = {0x06, 0x00, (byte) 0xff, 0x06};

    private static final int ASF = 0x000011be;
    private static final byte PING = (byte) 0x80;
    private static final byte PONG = 0x40;
    private static final int REQUEST = 12;
    private static final int ANSWER = 28;
    private static final int TRIES = 2;
    private static final SecureRandom RANDOM = new SecureRandom();

    private Presence() {}

    /**
     * What answered.
     *
     * @param ipmi whether it says that it takes IPMI
     * @param maker its enterprise number as IANA gives them out; 4542 where it tells none
     */
    public record Seen(boolean ipmi, int maker) {}

    /** @throws WireFault of kind SILENT, REFUSED where the port is closed, or GARBAGE */
    public static Seen ask(InetSocketAddress peer, Duration timeout) throws WireFault {
        byte tag = (byte) RANDOM.nextInt(0xff); // 255 would ask for no answer
        try (DatagramSocket socket = new DatagramSocket()) {
            socket.connect(peer); // the kernel hands over what comes from there alone
            byte[] request = ByteBuffer.allocate(REQUEST)
                    .put(HEADER)
                    .putInt(ASF)
                    .put(PING)
                    .put(tag)
                    .put((byte) 0)
                    .put((byte) 0)
                    .array();
            for (int i = 0; i < TRIES; i++) {
                socket.send(new DatagramPacket(request, request.length));
                TimeLeft left = TimeLeft.of(timeout.dividedBy(TRIES));
                while (!left.over()) {
                    socket.setSoTimeout(left.millis());
                    DatagramPacket answer = new DatagramPacket(new byte[512], 512);
                    try {
                        socket.receive(answer);
                    } catch (SocketTimeoutException e) {
                        break;
                    }
                    ByteBuffer packet = ByteBuffer.wrap(answer.getData(), 0, answer.getLength());
                    if (answer.getLength() < REQUEST || packet.getInt(4) != ASF || packet.get(8) != PONG) {
                        throw new WireFault(Kind.GARBAGE, WireText.NOT_RMCP.text());
                    }
                    if (packet.get(9) == tag && answer.getLength() >= ANSWER) {
                        return new Seen((packet.get(20) & 0x80) != 0, packet.getInt(12));
                    }
                }
            }
            throw new WireFault(Kind.SILENT, WireText.NO_PRESENCE.text(timeout.toSeconds()));
        } catch (PortUnreachableException e) {
            throw new WireFault(Kind.REFUSED, WireText.UDP_CLOSED.text(), e);
        } catch (IOException e) {
            throw new WireFault(Kind.SILENT, WireText.NOT_SENT.text(e.getMessage()), e);
        }
    }
}
