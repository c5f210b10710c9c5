package lychnos.lab.console;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.SocketTimeoutException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;

/** What a machine checks on its own: whether a name server answers it, and knows a name. */
final class OwnCheck {

    private static final int DNS = 53;
    private static final int PATIENCE_MILLIS = 2000;
    /** A question or its answer may be lost on the way; resolvers ask again. */
    private static final int TRIES = 3;

    private static final byte[] HEAD = {0x4c, 0x59, 1, 0, 0, 1, 0, 0, 0, 0, 0, 0};
    private static final byte[] ONE_ADDRESS = {0, 0, 1, 0, 1};

    private OwnCheck() {}

    /** How a name server answers. */
    enum Found {
        SILENT,
        UNKNOWN,
        KNOWN
    }

    /**
     * Asks a name server for the address of a name (RFC 1035, section 4.1), from one of the machine's own addresses.
     */
    static Found ask(String own, String server, String name) {
        try (DatagramSocket socket = new DatagramSocket(new InetSocketAddress(InetAddress.getByName(own), 0))) {
            socket.setSoTimeout(PATIENCE_MILLIS);
            byte[] question = question(name);
            DatagramPacket answer = new DatagramPacket(new byte[512], 512);
            for (int i = 0; i < TRIES; i++) {
                socket.send(new DatagramPacket(question, question.length, InetAddress.getByName(server), DNS));
                if (received(socket, answer)) {
                    byte[] bytes = answer.getData();
                    return (bytes[3] & 0xf) == 0 && (bytes[6] << 8 | bytes[7] & 0xff) > 0 ? Found.KNOWN : Found.UNKNOWN;
                }
            }
            return Found.SILENT;
        } catch (IOException e) {
            return Found.SILENT;
        }
    }

    private static boolean received(DatagramSocket socket, DatagramPacket answer) throws IOException {
        try {
            socket.receive(answer);
            return true;
        } catch (SocketTimeoutException e) {
            return false;
        }
    }

    private static byte[] question(String name) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        bytes.writeBytes(HEAD);
        Arrays.stream(name.split("\\."))
                .map(label -> label.getBytes(StandardCharsets.US_ASCII))
                .forEach(label -> {
                    bytes.write(label.length);
                    bytes.writeBytes(label);
                });
        bytes.writeBytes(ONE_ADDRESS);
        return bytes.toByteArray();
    }
}
