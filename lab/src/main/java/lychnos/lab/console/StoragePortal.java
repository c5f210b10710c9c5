package lychnos.lab.console;

import io.vertx.core.Vertx;
import io.vertx.core.buffer.Buffer;
import io.vertx.core.net.NetServer;
import io.vertx.core.net.NetSocket;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.function.Supplier;

/**
 * The iSCSI portal of an array (RFC 7143), as far as somebody goes who only asks which targets there are: log-in to a
 * discovery session, SendTargets, logout. A log-in to a target itself is refused.
 */
final class StoragePortal {

    private static final int HEADER = 48;
    private static final int LOGIN_REQUEST = 0x03;
    private static final int TEXT_REQUEST = 0x04;
    private static final int LOGOUT_REQUEST = 0x06;
    private static final int LOGIN_RESPONSE = 0x23;
    private static final int TEXT_RESPONSE = 0x24;
    private static final int LOGOUT_RESPONSE = 0x26;
    private static final int REJECT = 0x3f;
    private static final int INITIATOR_ERROR = 0x02;
    private static final int NOT_FOUND = 0x03;

    private final NetServer server;

    /**
     * Opens it.
     *
     * @param target its one target
     * @param addresses where it says that the target is reached
     */
    StoragePortal(Vertx vertx, String at, int port, String target, Supplier<List<String>> addresses) {
        server = vertx.createNetServer().connectHandler(socket -> new Session(socket, target, addresses, port).begin());
        server.listen(port, at).toCompletionStage().toCompletableFuture().join();
    }

    void close() {
        server.close().toCompletionStage().toCompletableFuture().join();
    }

    /** One connection. */
    private static final class Session {
        private final NetSocket socket;
        private final String target;
        private final Supplier<List<String>> addresses;
        private final int port;
        private Buffer waiting = Buffer.buffer();
        private boolean discovers;
        private int sent;

        Session(NetSocket socket, String target, Supplier<List<String>> addresses, int port) {
            this.socket = socket;
            this.target = target;
            this.addresses = addresses;
            this.port = port;
        }

        void begin() {
            socket.handler(bytes -> {
                waiting.appendBuffer(bytes);
                while (waiting.length() >= HEADER) {
                    int length = waiting.getMedium(5);
                    int whole = HEADER + (length + 3) / 4 * 4;
                    if (waiting.length() < whole) {
                        return;
                    }
                    request(waiting.getBuffer(0, HEADER), waiting.getString(HEADER, HEADER + length));
                    waiting = waiting.getBuffer(whole, waiting.length());
                }
            });
        }

        private void request(Buffer header, String text) {
            switch (header.getByte(0) & 0x3f) {
                case LOGIN_REQUEST -> {
                    discovers = List.of(text.split("\0")).contains("SessionType=Discovery")
                            && text.contains("InitiatorName=iqn.");
                    Buffer answer = answer(
                            LOGIN_RESPONSE,
                            header.getByte(1),
                            header,
                            "TargetPortalGroupTag=1\0MaxRecvDataSegmentLength=8192\0");
                    answer.setBuffer(8, header.getBuffer(8, 14)).setShort(14, (short) 7);
                    if (!discovers) {
                        answer.setByte(36, (byte) INITIATOR_ERROR).setByte(37, (byte) NOT_FOUND);
                    }
                    socket.write(answer);
                }
                case TEXT_REQUEST -> {
                    StringBuilder list = new StringBuilder();
                    if (discovers && text.startsWith("SendTargets=All")) {
                        list.append("TargetName=").append(target).append('\0');
                        addresses.get().forEach(address -> list.append("TargetAddress=")
                                .append(address)
                                .append(':')
                                .append(port)
                                .append(",1\0"));
                    }
                    socket.write(answer(TEXT_RESPONSE, 0x80, header, list.toString()));
                }
                case LOGOUT_REQUEST -> socket.end(answer(LOGOUT_RESPONSE, 0x80, header, ""));
                default -> socket.end(answer(REJECT, 0x80, header, ""));
            }
        }

        private Buffer answer(int opcode, int flags, Buffer request, String text) {
            byte[] data = text.getBytes(StandardCharsets.UTF_8);
            Buffer answer = Buffer.buffer(new byte[HEADER + (data.length + 3) / 4 * 4]);
            answer.setByte(0, (byte) opcode).setByte(1, (byte) flags).setMedium(5, data.length);
            answer.setBuffer(16, request.getBuffer(16, 20)).setInt(20, 0xffffffff);
            answer.setInt(24, ++sent).setInt(28, request.getInt(24) + 1).setInt(32, request.getInt(24) + 8);
            return answer.setBytes(HEADER, data);
        }
    }
}
