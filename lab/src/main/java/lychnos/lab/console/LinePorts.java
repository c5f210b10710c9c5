package lychnos.lab.console;

import io.vertx.core.Vertx;
import io.vertx.core.buffer.Buffer;
import io.vertx.core.net.NetServer;
import io.vertx.core.net.NetServerOptions;
import io.vertx.core.net.NetSocket;
import java.util.ArrayList;
import java.util.List;

/**
 * The line ports of a virtualisation host: the serial port of a virtual machine as one TCP port each, every octet as it
 * is. One client a port; a second one is turned away while the first is there.
 */
final class LinePorts implements AutoCloseable {

    private final Vertx vertx;
    private final List<NetServer> servers = new ArrayList<>();

    LinePorts(Vertx vertx) {
        this.vertx = vertx;
    }

    void plug(String address, int port, SerialPort machine) {
        NetServer server =
                vertx.createNetServer(new NetServerOptions().setTcpNoDelay(true).setReuseAddress(true));
        NetSocket[] taken = new NetSocket[1];
        server.connectHandler(socket -> {
            if (taken[0] != null) {
                socket.close();
                return;
            }
            taken[0] = socket;
            socket.handler(typed -> machine.typed(typed.getBytes()));
            socket.exceptionHandler(fault -> socket.close());
            socket.closeHandler(end -> {
                taken[0] = null;
                machine.attach(null, null);
            });
            machine.attach(bytes -> socket.write(Buffer.buffer(bytes)), socket::close);
        });
        server.listen(port, address).toCompletionStage().toCompletableFuture().join();
        servers.add(server);
    }

    @Override
    public void close() {
        servers.forEach(server ->
                server.close().toCompletionStage().toCompletableFuture().join());
    }
}
