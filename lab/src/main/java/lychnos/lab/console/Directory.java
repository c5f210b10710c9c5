package lychnos.lab.console;

import io.vertx.core.Vertx;
import io.vertx.core.buffer.Buffer;
import io.vertx.core.net.NetServer;
import java.nio.charset.StandardCharsets;
import java.util.Map;

/**
 * A directory that knows a few accounts and answers simple binds (RFC 4511, section 4.2), and nothing else. For
 * recordings of dialogues alone: the hall has a real directory.
 */
public final class Directory implements AutoCloseable {

    private static final int LDAP = 389;
    private static final byte SUCCESS = 0;
    private static final byte INVALID_CREDENTIALS = 49;

    private final NetServer server;
    private final Map<String, String> accounts;

    /** @param accounts by name, the password of each */
    public Directory(Vertx vertx, String address, Map<String, String> accounts) {
        this.accounts = Map.copyOf(accounts);
        server = vertx.createNetServer()
                .connectHandler(socket -> socket.handler(request -> socket.write(answer(request))));
        server.listen(LDAP, address).toCompletionStage().toCompletableFuture().join();
    }

    /** Message number, the bind's answer with its result, and two empty texts (section 4.1.9). */
    private Buffer answer(Buffer request) {
        byte result = admits(request) ? SUCCESS : INVALID_CREDENTIALS;
        return Buffer.buffer(
                new byte[] {0x30, 12, 0x02, 1, request.getByte(4), 0x61, 7, 0x0a, 1, result, 0x04, 0, 0x04, 0});
    }

    /** Reads version, name and password of a short bind: each has its length in one octet. */
    private boolean admits(Buffer request) {
        int name = 10;
        if (request.length() < name + 2 || request.getByte(5) != 0x60) {
            return false;
        }
        int nameEnds = name + 2 + request.getByte(name + 1);
        int secretEnds = nameEnds + 2 + request.getByte(nameEnds + 1);
        String account = new String(request.getBytes(name + 2, nameEnds), StandardCharsets.UTF_8)
                .replaceFirst("^uid=([^,]*),.*", "$1");
        String secret = new String(request.getBytes(nameEnds + 2, secretEnds), StandardCharsets.UTF_8);
        return secret.equals(accounts.get(account));
    }

    @Override
    public void close() {
        server.close().toCompletionStage().toCompletableFuture().join();
    }
}
