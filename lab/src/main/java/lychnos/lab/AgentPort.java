package lychnos.lab;

import io.vertx.core.Vertx;
import io.vertx.core.buffer.Buffer;
import io.vertx.core.datagram.DatagramPacket;
import io.vertx.core.datagram.DatagramSocket;
import java.nio.charset.StandardCharsets;

/**
 * An SNMP agent (RFC 1157, RFC 1901) that is not locked: it answers to the community of the
 * factory.
 */
final class AgentPort {

    private static final int PORT = 161;
    private static final byte[] COMMUNITY = "public".getBytes(StandardCharsets.US_ASCII);
    private static final int GET = 0xa0;
    private static final int RESPONSE = 0xa2;
    /** A time in hundredths of a second (RFC 2578, section 7.1.8). */
    private static final int TIME_TICKS = 0x43;

    private static final int NOTHING = 0x05;
    private final DatagramSocket socket;

    AgentPort(Vertx vertx, String at) {
        socket = vertx.createDatagramSocket().handler(this::answer);
        socket.listen(PORT, at).toCompletionStage().toCompletableFuture().join();
    }

    /**
     * The answer is the question with another word for what it is and with a value: in all of it only lengths below 128
     * stand.
     */
    private void answer(DatagramPacket packet) {
        Buffer asked = packet.data();
        int community = 5;
        int request = community + 2 + COMMUNITY.length;
        boolean known = asked.length() > request + 8
                && asked.getByte(0) == 0x30
                && asked.getByte(community + 1) == COMMUNITY.length
                && java.util.Arrays.equals(asked.getBytes(community + 2, request), COMMUNITY)
                && asked.getUnsignedByte(request) == GET
                && asked.getByte(asked.length() - 2) == NOTHING
                && asked.getByte(1) == asked.length() - 2;
        if (!known) {
            return;
        }
        int bindings = request + 2 + 2 + asked.getByte(request + 3) + 6;
        Buffer answer = asked.copy();
        answer.setByte(request, (byte) RESPONSE);
        for (int length : new int[] {1, request + 1, bindings + 1, bindings + 3}) {
            answer.setByte(length, (byte) (asked.getByte(length) + Integer.BYTES));
        }
        answer.setByte(asked.length() - 2, (byte) TIME_TICKS).setByte(asked.length() - 1, (byte) Integer.BYTES);
        answer.appendInt((int) (System.currentTimeMillis() / 10 & 0xffffff));
        socket.send(answer, packet.sender().port(), packet.sender().host());
    }

    void close() {
        socket.close().toCompletionStage().toCompletableFuture().join();
    }
}
