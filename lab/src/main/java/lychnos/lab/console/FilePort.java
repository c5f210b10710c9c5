package lychnos.lab.console;

import io.vertx.core.Vertx;
import io.vertx.core.buffer.Buffer;
import io.vertx.core.net.NetServer;
import io.vertx.core.net.NetSocket;
import io.vertx.core.parsetools.RecordParser;

/**
 * The NFS port of an array, as far as a null call goes (RFC 5531, RFC 1813): version 3 is there, any other is told
 * that.
 */
final class FilePort {

    private static final int PORT = 2049;
    private static final int NFS = 100003;
    private static final int VERSION = 3;
    private static final int LAST = 0x80000000;
    private static final int CALL = 40;
    private static final int LARGEST = 4096;

    private final NetServer server;

    FilePort(Vertx vertx, String at) {
        server = vertx.createNetServer().connectHandler(FilePort::begin);
        server.listen(PORT, at).toCompletionStage().toCompletableFuture().join();
    }

    private static void begin(NetSocket socket) {
        RecordParser parser = RecordParser.newFixed(4);
        boolean[] inRecord = {false};
        parser.handler(piece -> {
            if (!inRecord[0]) {
                int length = piece.getInt(0) & ~LAST;
                if (length < CALL || length > LARGEST) {
                    socket.close();
                    return;
                }
                parser.fixedSizeMode(length);
            } else if (piece.getInt(12) != NFS) {
                socket.close();
                return;
            } else {
                answer(socket, piece.getInt(0), piece.getInt(16), piece.getInt(20));
                parser.fixedSizeMode(4);
            }
            inRecord[0] = !inRecord[0];
        });
        socket.handler(parser);
    }

    /** Accepted: taken, no such version (3 to 3), or no such procedure. */
    private static void answer(NetSocket socket, int transaction, int version, int procedure) {
        Buffer reply =
                Buffer.buffer().appendInt(transaction).appendInt(1).appendInt(0).appendLong(0);
        if (version != VERSION) {
            reply.appendInt(2).appendInt(VERSION).appendInt(VERSION);
        } else {
            reply.appendInt(procedure == 0 ? 0 : 3);
        }
        socket.write(Buffer.buffer().appendInt(LAST | reply.length()).appendBuffer(reply));
    }

    void close() {
        server.close().toCompletionStage().toCompletableFuture().join();
    }
}
