package lychnos.lab.console;

import io.vertx.core.Vertx;
import io.vertx.core.buffer.Buffer;
import io.vertx.core.datagram.DatagramSocket;

/**
 * A name server that knows every name, all by one address (RFC 1035, section 4.1), for machines that check their own
 * reach.
 */
public final class AnyName implements AutoCloseable {

    private static final int DNS = 53;
    /** The answer points at the name in the question: A, IN, an hour, four octets. */
    private static final byte[] RECORD = {(byte) 0xc0, 12, 0, 1, 0, 1, 0, 0, 0x0e, 0x10, 0, 4, 127, 40, 9, 9};

    private final DatagramSocket socket;

    public AnyName(Vertx vertx, String address) {
        socket = vertx.createDatagramSocket();
        socket.handler(packet -> {
            Buffer answer = Buffer.buffer(packet.data().getBytes());
            answer.setByte(2, (byte) 0x81)
                    .setByte(3, (byte) 0x80)
                    .setByte(7, (byte) 1)
                    .appendBytes(RECORD);
            socket.send(answer, packet.sender().port(), packet.sender().host());
        });
        socket.listen(DNS, address).toCompletionStage().toCompletableFuture().join();
    }

    @Override
    public void close() {
        socket.close().toCompletionStage().toCompletableFuture().join();
    }
}
