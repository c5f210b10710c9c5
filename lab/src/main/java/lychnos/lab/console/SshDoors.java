package lychnos.lab.console;

import java.io.IOException;
import java.net.InetSocketAddress;
import java.net.SocketAddress;
import java.security.KeyPair;
import java.util.List;
import java.util.Map;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Consumer;
import java.util.function.Predicate;
import org.apache.sshd.common.io.IoAcceptor;
import org.apache.sshd.common.keyprovider.KeyPairProvider;
import org.apache.sshd.common.session.Session;
import org.apache.sshd.common.session.SessionContext;
import org.apache.sshd.common.session.SessionListener;
import org.apache.sshd.core.CoreModuleProperties;
import org.apache.sshd.server.ServerBuilder;
import org.apache.sshd.server.SshServer;

/**
 * The SSH servers of all machines of a hall, at an address each, with its own software and host key (RFC 4253). They
 * exchange keys and let in whom the machine lets in. One server for all of them: hundreds would have a thread each.
 */
final class SshDoors {

    private static final int PORT = 22;
    private static final Map<String, Door> DOORS = new ConcurrentHashMap<>();
    private static Server server;

    private SshDoors() {}

    /** What a machine shows after a login. */
    interface Shell {

        /** What stands among the typed keys once nobody types any more. */
        char GONE = 4;

        boolean opensTo(String user, String phrase);

        /** The same for another way in, which has a count of its own. */
        boolean knows(String user, String phrase);

        /** Talks until it or the other one has had enough. Blocks. */
        void serve(BlockingQueue<Character> typed, Consumer<byte[]> listener);
    }

    /**
     * What is behind an address; where there is no shell, nobody is let in.
     *
     * @param from from which addresses people may log in
     */
    record Door(String software, KeyPair key, Shell shell, Predicate<String> from) {}

    /** A server whose addresses come and go. */
    private static final class Server extends SshServer {
        IoAcceptor acceptor() {
            return acceptor;
        }
    }

    private static synchronized Server server() throws IOException {
        if (server == null) {
            Server made = (Server) ServerBuilder.builder().factory(Server::new).build();
            CoreModuleProperties.SERVER_IDENTIFICATION.set(made, "Ardal_1");
            CoreModuleProperties.TCP_NODELAY.set(made, true);
            made.setNioWorkers(1);
            made.setPasswordAuthenticator((user, phrase, session) -> {
                Door door = DOORS.get(at(session));
                return door != null
                        && door.shell != null
                        && door.from.test(host(session.getRemoteAddress()))
                        && door.shell.opensTo(user, phrase);
            });
            made.setShellFactory(channel -> new SshTalk(shell(channel.getSession())));
            made.setKeyPairProvider(new KeyPairProvider() {
                @Override
                public Iterable<KeyPair> loadKeys(SessionContext session) {
                    Door door = session == null ? null : DOORS.get(at(session));
                    return door == null ? List.of() : List.of(door.key);
                }
            });
            made.addSessionListener(new SessionListener() {
                @Override
                public void sessionEstablished(Session session) {
                    Door door = DOORS.get(at(session));
                    if (door != null
                            && !door.from.test(host(session.getIoSession().getRemoteAddress()))) {
                        throw new IllegalStateException("not from there"); // ends the connection without a greeting
                    }
                    if (door != null) {
                        CoreModuleProperties.SERVER_IDENTIFICATION.set(session, door.software);
                    }
                }
            });
            made.setHost("127.0.0.1");
            made.start();
            server = made;
        }
        return server;
    }

    private static Shell shell(SessionContext session) {
        Door door = DOORS.get(at(session));
        return door == null ? null : door.shell;
    }

    private static String at(SessionContext session) {
        return host(session.getLocalAddress());
    }

    private static String host(SocketAddress socket) {
        return ((InetSocketAddress) socket).getAddress().getHostAddress();
    }

    private static InetSocketAddress peer(String address) {
        return new InetSocketAddress(address, PORT);
    }

    static void open(String address, Door door) {
        try {
            DOORS.put(peer(address).getAddress().getHostAddress(), door);
            server().acceptor().bind(peer(address));
        } catch (IOException e) {
            throw new IllegalStateException("no SSH at " + address, e);
        }
    }

    static void close(String address) {
        try {
            if (DOORS.remove(peer(address).getAddress().getHostAddress()) != null) {
                server().acceptor().unbind(peer(address));
            }
        } catch (IOException e) {
            throw new IllegalStateException("SSH at " + address + " does not end", e);
        }
    }
}
