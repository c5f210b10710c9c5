package lychnos.lab;

import java.io.IOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.SocketTimeoutException;
import java.nio.ByteBuffer;
import java.util.Arrays;
import java.util.HexFormat;

/**
 * A machine's way to its first address: DHCP (RFC 2131) with a real server, through a relay agent (RFC 1542) that this
 * is as well, so that neither has to share a segment with the other.
 */
public final class Dhcp {

    private static final byte[] COOKIE = {99, (byte) 130, 83, 99};
    private static final int OPTIONS = 240;
    private static final int MESSAGE_TYPE = 53;
    private static final int REQUESTED_ADDRESS = 50;
    private static final int SERVER_IDENTIFIER = 54;
    private static final int DISCOVER = 1;
    private static final int OFFER = 2;
    private static final int REQUEST = 3;
    private static final int ACK = 5;
    private static final int PATIENCE_MILLIS = 2000;
    private static final int TRIES = 5;

    private final InetSocketAddress server;
    private final InetSocketAddress relay;

    private Dhcp(InetSocketAddress server, InetSocketAddress relay) {
        this.server = server;
        this.relay = relay;
    }

    /** @param text {@code SERVER:PORT/RELAY:PORT} */
    public static Dhcp at(String text) {
        String[] ends = text.split("/");
        return new Dhcp(end(ends[0]), end(ends[1]));
    }

    private static InetSocketAddress end(String text) {
        int colon = text.lastIndexOf(':');
        return new InetSocketAddress(text.substring(0, colon), Integer.parseInt(text.substring(colon + 1)));
    }

    /**
     * Leases an address. One machine at a time: there is one relay agent.
     *
     * @throws IOException where no server answers, or the one that does refuses
     */
    public synchronized String lease(String mac) throws IOException {
        try (DatagramSocket socket = new DatagramSocket(relay)) {
            socket.setSoTimeout(PATIENCE_MILLIS);
            int exchange = mac.hashCode();
            byte[] offer = ask(socket, exchange, message(exchange, mac, DISCOVER, new byte[0]), OFFER);
            byte[] offered = Arrays.copyOfRange(offer, 16, 20);
            byte[] chosen = ByteBuffer.allocate(12)
                    .put((byte) REQUESTED_ADDRESS)
                    .put((byte) 4)
                    .put(offered)
                    .put((byte) SERVER_IDENTIFIER)
                    .put((byte) 4)
                    .put(option(offer, SERVER_IDENTIFIER))
                    .array();
            byte[] given = ask(socket, exchange, message(exchange, mac, REQUEST, chosen), ACK);
            return InetAddress.getByAddress(Arrays.copyOfRange(given, 16, 20)).getHostAddress();
        }
    }

    private byte[] ask(DatagramSocket socket, int exchange, byte[] message, int wanted) throws IOException {
        for (int tries = 0; tries < TRIES; tries++) {
            socket.send(new DatagramPacket(message, message.length, server));
            try {
                while (true) {
                    DatagramPacket answer = new DatagramPacket(new byte[1500], 1500);
                    socket.receive(answer);
                    byte[] bytes = Arrays.copyOf(answer.getData(), answer.getLength());
                    if (bytes.length > OPTIONS && ByteBuffer.wrap(bytes).getInt(4) == exchange) {
                        byte[] type = option(bytes, MESSAGE_TYPE);
                        if (type[0] != wanted) {
                            throw new IOException(
                                    "the DHCP server answers with " + type[0] + " where " + wanted + " was due");
                        }
                        return bytes;
                    }
                }
            } catch (SocketTimeoutException e) {
                // asked again, as RFC 2131, section 4.1 has it
            }
        }
        throw new IOException("no DHCP server answers at " + server);
    }

    private byte[] message(int exchange, String mac, int type, byte[] options) {
        ByteBuffer message = ByteBuffer.allocate(OPTIONS + 4 + options.length);
        message.put(new byte[] {1, 1, 6, 1}).putInt(exchange); // a request over Ethernet, after one hop
        message.position(24);
        message.put(relay.getAddress().getAddress())
                .put(HexFormat.ofDelimiter(":").parseHex(mac));
        message.position(OPTIONS - COOKIE.length);
        message.put(COOKIE)
                .put(new byte[] {MESSAGE_TYPE, 1, (byte) type})
                .put(options)
                .put((byte) 255);
        return message.array();
    }

    /** An option's bytes (RFC 2132). */
    private static byte[] option(byte[] message, int wanted) throws IOException {
        for (int at = OPTIONS;
                at + 1 < message.length && message[at] != (byte) 255;
                at += message[at] == 0 ? 1 : 2 + message[at + 1]) {
            if (message[at] == wanted) {
                return Arrays.copyOfRange(message, at + 2, at + 2 + message[at + 1]);
            }
        }
        throw new IOException("the DHCP server's answer lacks option " + wanted);
    }
}
