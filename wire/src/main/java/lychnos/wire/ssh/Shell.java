package lychnos.wire.ssh;

import java.io.IOException;
import java.io.OutputStream;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.NoSuchElementException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import lychnos.core.dialogue.Look;
import lychnos.core.dialogue.Screen;
import lychnos.core.fact.Secret;
import lychnos.wire.fault.WireFault;
import lychnos.wire.fault.WireFault.Kind;
import lychnos.wire.fault.WireText;
import lychnos.wire.time.TimeLeft;
import org.apache.sshd.client.SshClient;
import org.apache.sshd.client.auth.password.PasswordIdentityProvider;
import org.apache.sshd.client.channel.ChannelShell;
import org.apache.sshd.client.session.ClientSession;
import org.apache.sshd.common.AttributeRepository;
import org.apache.sshd.common.SshConstants;
import org.apache.sshd.common.SshException;

/**
 * Signs in over SSH with a password (RFC 4252, section 8), once and never a second time, and types commands where the
 * machine shows its prompt. The password goes to the host key that is named and to no other.
 */
public final class Shell implements AutoCloseable {

    private static final AttributeRepository.AttributeKey<String> KEY = new AttributeRepository.AttributeKey<>();
    private static final int COLUMNS = Screen.COLUMNS;
    /** A prompt is looked for as often, and whenever something came. */
    private static final long LOOK_MILLIS = 20;

    private static final int MOST_PAGES = 200;

    private final SshClient client = SshClients.make();

    /**
     * What is done.
     *
     * @param hostKey the fingerprint that the machine must show
     * @param commands in their order; none tries the password and no more
     * @param paging what is pressed where a screen is longer than it can show
     */
    public record Script(String user, Secret phrase, String hostKey, List<Command> commands, List<Press> paging) {}

    /** A command, and the prompt that it is typed at, as {@link Look} writes it. */
    public record Command(String prompt, String sends) {}

    /** A key that is pressed where the screen shows something. */
    public record Press(String see, String key) {}

    /**
     * The result of a command.
     *
     * @param admitted whether the password was taken
     * @param outputs what each command has shown, without the line that it was typed in and the prompt behind it
     */
    public record Told(boolean admitted, List<String> outputs) {

        public Told {
            outputs = List.copyOf(outputs);
        }
    }

    public Shell() {
        client.setServerKeyVerifier((session, peer, key) -> HostKey.seen(key)
                .fingerprint()
                .equals(session.getConnectionContext().getAttribute(KEY)));
        client.start();
    }

    /**
     * Does it all.
     *
     * @param timeout for everything together
     * @throws WireFault of kind SILENT, REFUSED, OTHER_CERTIFICATE for another host key, or GARBAGE; a refused password
     * is an answer
     */
    public Told run(InetSocketAddress peer, Script script, Duration timeout) throws WireFault {
        TimeLeft left = TimeLeft.of(timeout);
        ClientSession session = null;
        try {
            session = client.connect(script.user(), peer, AttributeRepository.ofKeyValuePair(KEY, script.hostKey()))
                    .verify(timeout)
                    .getSession();
            session.setPasswordIdentityProvider(once(script.phrase()));
            if (!admitted(session, left)) {
                return new Told(false, List.of());
            }
            return new Told(true, script.commands().isEmpty() ? List.of() : talk(session, script, left));
        } catch (IOException e) {
            throw SshClients.fault(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new WireFault(Kind.SILENT, "interrupted", e);
        } finally {
            if (session != null) {
                session.close(true);
            }
        }
    }

    /**
     * Handed out once: a server that offers passwords in two ways would be tried twice, and a second try may lock an
     * account.
     */
    private static PasswordIdentityProvider once(Secret phrase) {
        AtomicBoolean tried = new AtomicBoolean();
        return context -> () -> new Iterator<>() {
            @Override
            public boolean hasNext() {
                return !tried.get();
            }

            @Override
            public String next() {
                if (tried.getAndSet(true)) {
                    throw new NoSuchElementException();
                }
                return phrase.use(text -> text);
            }
        };
    }

    private static boolean admitted(ClientSession session, TimeLeft left) throws IOException, WireFault {
        try {
            session.auth().verify(left.millis());
            return true;
        } catch (SshException e) {
            if (e.getDisconnectCode() == SshConstants.SSH2_DISCONNECT_NO_MORE_AUTH_METHODS_AVAILABLE) {
                return false;
            }
            if (e.getDisconnectCode() == SshConstants.SSH2_DISCONNECT_HOST_KEY_NOT_VERIFIABLE) {
                throw new WireFault(Kind.OTHER_CERTIFICATE, WireText.SSH_OTHER_HOST_KEY.text(), e);
            }
            throw e;
        }
    }

    private static List<String> talk(ClientSession session, Script script, TimeLeft left)
            throws IOException, InterruptedException, WireFault {
        try (ChannelShell channel = session.createShellChannel()) {
            channel.setPtyType("xterm");
            channel.setPtyColumns(COLUMNS);
            channel.setPtyLines(Screen.ROWS);
            Heard heard = new Heard();
            channel.setOut(heard);
            channel.setErr(heard);
            channel.open().verify(left.millis());
            List<String> outputs = new ArrayList<>();
            Screen.Place from = new Screen.Place(-1, 0);
            for (Command command : script.commands()) {
                Look prompt = Look.parse(command.prompt());
                heard.await(channel, prompt, script.paging(), from, left);
                from = heard.cursor();
                type(channel, command.sends() + "\r");
                heard.await(channel, prompt, script.paging(), from, left);
                outputs.add(heard.between(from));
                from = new Screen.Place(heard.cursor().row() - 1, 0);
            }
            return outputs;
        }
    }

    private static void type(ChannelShell channel, String keys) throws IOException {
        OutputStream in = channel.getInvertedIn();
        in.write(keys.getBytes(StandardCharsets.ISO_8859_1));
        in.flush();
    }

    /** What the machine has shown, as a person would see it. */
    private static final class Heard extends OutputStream {

        private final Screen screen = new Screen();
        private int pages;
        private long received;
        private long pressedAt = -1;

        @Override
        public void write(int octet) {
            write(new byte[] {(byte) octet}, 0, 1);
        }

        @Override
        public synchronized void write(byte[] bytes, int from, int count) {
            screen.write(new String(bytes, from, count, StandardCharsets.ISO_8859_1));
            received += count;
            notifyAll();
        }

        synchronized Screen.Place cursor() {
            return screen.cursor();
        }

        private String row() {
            List<String> rows = screen.since(new Screen.Place(screen.cursor().row(), 0));
            return rows.isEmpty() ? "" : rows.get(0);
        }

        /**
         * Until the prompt stands in a row below the one where the last command was typed, and nothing is behind it.
         */
        synchronized void await(
                ChannelShell channel, Look prompt, List<Press> paging, Screen.Place below, TimeLeft left)
                throws IOException, InterruptedException, WireFault {
            long looked = -1;
            while (screen.cursor().row() <= below.row() || !prompt.in(row())) {
                if (left.over()) {
                    throw new WireFault(Kind.SILENT, WireText.SSH_NO_PROMPT.text(row().strip()));
                }
                if (channel.isClosing()) {
                    throw new WireFault(Kind.GARBAGE, WireText.SSH_ENDED_BEFORE_PROMPT.text());
                }
                boolean quiet = looked == received;
                looked = received;
                if (quiet && received != pressedAt) {
                    turnPage(channel, paging);
                }
                TimeUnit.MILLISECONDS.timedWait(this, LOOK_MILLIS);
            }
        }

        /** Once for each time that it asks: a key too many would stand in the next command. */
        private void turnPage(ChannelShell channel, List<Press> paging) throws IOException, WireFault {
            for (Press press : paging) {
                if (Look.parse(press.see()).in(row())) {
                    if (++pages > MOST_PAGES) {
                        throw new WireFault(Kind.GARBAGE, WireText.SSH_PAGER.text());
                    }
                    pressedAt = received;
                    type(channel, press.key());
                    return;
                }
            }
        }

        /** The rows between the command and the prompt. */
        synchronized String between(Screen.Place from) {
            List<String> rows = screen.since(new Screen.Place(from.row() + 1, 0));
            int last = (int) (screen.cursor().row() - from.row() - 1);
            return String.join("\n", rows.subList(0, Math.max(0, Math.min(last, rows.size()))));
        }
    }

    @Override
    public void close() {
        client.stop();
    }
}
