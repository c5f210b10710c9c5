package lychnos.lab;

import io.vertx.core.Vertx;
import io.vertx.core.buffer.Buffer;
import io.vertx.core.datagram.DatagramPacket;
import io.vertx.core.datagram.DatagramSocket;

/** A controller's answer to a presence ping (DMTF DSP0136): it is there, and takes IPMI. Nothing else is understood. */
final class PresencePort {

    private static final int PORT = 623;
    private static final int ASF = 0x000011be;
    private final DatagramSocket socket;

    PresencePort(Vertx vertx, String at) {
        socket = vertx.createDatagramSocket().handler(this::answer);
        socket.listen(PORT, at).toCompletionStage().toCompletableFuture().join();
    }

    private void answer(DatagramPacket packet) {
        Buffer asked = packet.data();
        if (asked.length() < 12 || asked.getInt(4) != ASF || (asked.getByte(8) & 0xff) != 0x80) {
            return;
        }
        Buffer pong = Buffer.buffer(new byte[] {0x06, 0, (byte) 0xff, 0x06})
                .appendInt(ASF)
                .appendByte((byte) 0x40)
                .appendByte(asked.getByte(9))
                .appendByte((byte) 0)
                .appendByte((byte) 16);
        pong.appendInt(ASF)
                .appendInt(0)
                .appendByte((byte) 0x81)
                .appendByte((byte) 0)
                .appendBytes(new byte[6]);
        socket.send(pong, packet.sender().port(), packet.sender().host());
    }

    void close() {
        socket.close().toCompletionStage().toCompletableFuture().join();
    }
}
