package lychnos.wire;

import io.vertx.core.Vertx;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;
import lychnos.wire.dial.Dialler;
import lychnos.wire.ssh.HostKey;
import lychnos.wire.vantage.LocalVantage;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;

/** Peers that do harm: silent, slow, endless, or gone. */
abstract class HarmfulPeers {

    static final Duration PATIENCE = Duration.ofMillis(900);
    /** Whatever it does, a probe is back by then. */
    static final Duration LONGEST = Duration.ofSeconds(9);

    static final Address AT = Address.parse("127.40.41.1");
    static final int MEGABYTE = 1 << 20;

    final Vertx vertx = Vertx.vertx();
    final LocalVantage vantage =
            new LocalVantage("test", false, new Dialler(() -> List.of(Prefix.parse("127.40.0.0/16")), true), vertx);
    final HostKey hostKey = new HostKey();
    final CountDownLatch ended = new CountDownLatch(1);
    ServerSocket server;
    final List<DatagramSocket> datagrams = new ArrayList<>();

    @BeforeEach
    void listen() throws IOException {
        server = new ServerSocket(0, 50, InetAddress.getByName(AT.toString()));
    }

    @AfterEach
    void close() throws IOException {
        ended.countDown();
        server.close();
        datagrams.forEach(DatagramSocket::close);
        hostKey.close();
        vantage.close();
        vertx.close().toCompletionStage().toCompletableFuture().join();
    }

    /** What a peer does with a connection, as long as the other side lets it. */
    interface Harm {
        void to(InputStream in, OutputStream out) throws Exception;
    }

    void serve(ServerSocket from, Harm harm) {
        thread(() -> {
            while (!from.isClosed()) {
                Socket socket;
                try {
                    socket = from.accept();
                } catch (IOException e) {
                    return;
                }
                thread(() -> {
                    try (socket) {
                        harm.to(socket.getInputStream(), socket.getOutputStream());
                    } catch (Exception e) {
                        // the other side has hung up, as it should
                    }
                });
            }
        });
    }

    static void thread(Runnable work) {
        Thread thread = new Thread(work, "harm");
        thread.setDaemon(true);
        thread.start();
    }

    boolean over() throws InterruptedException {
        return ended.await(150, java.util.concurrent.TimeUnit.MILLISECONDS);
    }

    final Harm silent = (in, out) -> ended.await();

    final Harm drips = (in, out) -> {
        while (!over()) {
            out.write(0x16);
            out.flush();
        }
    };

    final Harm hangsUp = (in, out) -> in.read();

    final Harm noise = (in, out) -> {
        byte[] noise = new byte[4096];
        new java.util.Random(7).nextBytes(noise);
        while (!over()) {
            out.write(noise);
        }
    };
}
