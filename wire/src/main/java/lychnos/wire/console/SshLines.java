package lychnos.wire.console;

import java.io.IOException;
import java.io.OutputStream;
import java.net.InetSocketAddress;
import java.security.PublicKey;
import java.time.Duration;
import java.util.Map;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import lychnos.wire.ssh.SshClients;
import org.apache.sshd.client.SshClient;
import org.apache.sshd.client.channel.ChannelShell;
import org.apache.sshd.client.session.ClientSession;
import org.apache.sshd.common.AttributeRepository;
import org.apache.sshd.common.SshConstants;
import org.apache.sshd.common.config.keys.KeyUtils;
import org.apache.sshd.common.digest.BuiltinDigests;
import org.apache.sshd.common.util.buffer.Buffer;
import org.apache.sshd.core.CoreModuleProperties;

/**
 * Lines over SSH (RFC 4254), to a line server or straight to a machine. One client for all; nothing of the user's own
 * settings is read.
 */
final class SshLines implements AutoCloseable {

    private static final Duration PATIENCE = Duration.ofSeconds(15);
    private static final long BREAK_MILLIS = 500;
    private static final AttributeRepository.AttributeKey<LineEvents> EVENTS = new AttributeRepository.AttributeKey<>();

    private final SshClient client = SshClients.make();
    private final ExecutorService openers = Executors.newCachedThreadPool(work -> {
        Thread thread = new Thread(work, "ssh line");
        thread.setDaemon(true);
        return thread;
    });

    SshLines() {
        client.setServerKeyVerifier((session, peer, key) ->
                session.getConnectionContext().getAttribute(EVENTS).hostKey(fingerprint(key)));
        CoreModuleProperties.HEARTBEAT_INTERVAL.set(client, Duration.ofSeconds(30));
        client.start();
    }

    private static String fingerprint(PublicKey key) {
        return KeyUtils.getFingerPrint(BuiltinDigests.sha256, key);
    }

    ConsoleLine open(LineAddress address, InetSocketAddress peer, LineEvents events) {
        Line line = new Line(events);
        openers.execute(() -> line.open(client, address, peer));
        return line;
    }

    @Override
    public void close() {
        client.stop();
        openers.shutdownNow();
    }

    /** One shell with a terminal. */
    private final class Line implements ConsoleLine {

        private final LineEvents events;
        private ClientSession session;
        private ChannelShell shell;
        private boolean closed;

        Line(LineEvents events) {
            this.events = events;
        }

        void open(SshClient with, LineAddress address, InetSocketAddress peer) {
            try {
                AttributeRepository own = AttributeRepository.ofAttributesMap(Map.of(EVENTS, events));
                ClientSession begun =
                        with.connect(address.user(), peer, own).verify(PATIENCE).getSession();
                synchronized (this) {
                    session = begun;
                }
                address.word().use(word -> {
                    begun.addPasswordIdentity(word);
                    return null;
                });
                begun.auth().verify(PATIENCE);
                ChannelShell channel = begun.createShellChannel();
                channel.setPtyType("xterm");
                channel.setPtyColumns(80);
                channel.setPtyLines(24);
                OutputStream screen = new Screen();
                channel.setOut(screen);
                channel.setErr(screen);
                channel.open().verify(PATIENCE);
                synchronized (this) {
                    shell = channel;
                }
                channel.addCloseFutureListener(end -> down(ConsoleText.SSH_ENDED.text()));
                events.up();
                if (closed()) {
                    begun.close(true);
                }
            } catch (IOException e) {
                down(ConsoleText.SSH_FAILS.text(address, e.getMessage()));
                close();
            }
        }

        private synchronized boolean closed() {
            return closed;
        }

        private void down(String why) {
            synchronized (this) {
                if (closed) {
                    return;
                }
                closed = true;
            }
            events.down(why);
        }

        @Override
        public synchronized void send(byte[] bytes) {
            if (shell == null || closed) {
                return;
            }
            try {
                OutputStream keys = shell.getInvertedIn();
                keys.write(bytes);
                keys.flush();
            } catch (IOException e) {
                events.noted(ConsoleText.SSH_NO_INPUT.text(e.getMessage()));
            }
        }

        /** RFC 4335. */
        @Override
        public synchronized void sendBreak() {
            if (shell == null || closed) {
                return;
            }
            try {
                Buffer buffer = session.createBuffer(SshConstants.SSH_MSG_CHANNEL_REQUEST);
                buffer.putUInt(shell.getRecipient());
                buffer.putString("break");
                buffer.putBoolean(false);
                buffer.putUInt(BREAK_MILLIS);
                session.writePacket(buffer);
            } catch (IOException e) {
                events.noted(ConsoleText.BREAK_NOT_SENT.text(e.getMessage()));
            }
        }

        @Override
        public synchronized void resize(int columns, int rows) {
            if (shell != null && !closed) {
                try {
                    shell.sendWindowChange(columns, rows);
                } catch (IOException e) {
                    events.noted(ConsoleText.SCREEN_SIZE_NOT_SENT.text(e.getMessage()));
                }
            }
        }

        @Override
        public synchronized void close() {
            closed = true;
            if (session != null) {
                session.close(true);
            }
        }

        /** Hands on what comes; closed by the session itself. */
        private final class Screen extends OutputStream {

            @Override
            public void write(int octet) {
                write(new byte[] {(byte) octet}, 0, 1);
            }

            @Override
            public void write(byte[] bytes, int from, int count) {
                if (!closed()) {
                    events.received(java.util.Arrays.copyOfRange(bytes, from, from + count));
                }
            }
        }
    }
}
