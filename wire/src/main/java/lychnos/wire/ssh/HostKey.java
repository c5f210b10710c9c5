package lychnos.wire.ssh;

import java.io.IOException;
import java.net.InetSocketAddress;
import java.security.PublicKey;
import java.time.Duration;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import lychnos.wire.fault.WireFault;
import lychnos.wire.fault.WireFault.Kind;
import lychnos.wire.fault.WireText;
import lychnos.wire.time.TimeLeft;
import org.apache.sshd.client.SshClient;
import org.apache.sshd.client.session.ClientSession;
import org.apache.sshd.common.AttributeRepository;
import org.apache.sshd.common.config.keys.KeyUtils;
import org.apache.sshd.common.config.keys.PublicKeyEntry;
import org.apache.sshd.common.digest.BuiltinDigests;
import org.apache.sshd.common.future.CloseFuture;
import org.apache.sshd.common.session.Session;
import org.apache.sshd.common.session.SessionListener;

/** Exchanges keys with an SSH server (RFC 4253, section 7) to see its host key, and leaves before anybody logs in. */
public final class HostKey implements AutoCloseable {

    private static final AttributeRepository.AttributeKey<CompletableFuture<Seen>> SEEN =
            new AttributeRepository.AttributeKey<>();

    private final SshClient client = SshClients.make();

    /**
     * A host key.
     *
     * @param fingerprint such as {@code SHA256:…} (RFC 4716's hash, in the form that people compare)
     * @param line type and key as a line of a file of known hosts has them, without the host
     */
    public record Seen(String fingerprint, String line) {}

    public HostKey() {
        client.setNioWorkers(1);
        client.setServerKeyVerifier((session, peer, key) -> {
            session.getConnectionContext().getAttribute(SEEN).complete(seen(key));
            return false; // it was all that was wanted
        });
        client.addSessionListener(new SessionListener() {
            @Override
            public void sessionException(Session session, Throwable fault) {
                failed(session, fault);
            }

            @Override
            public void sessionClosed(Session session) {
                failed(session, new IOException(WireText.CONNECTION_ENDED.text()));
            }
        });
        client.start();
    }

    private static void failed(Session session, Throwable fault) {
        if (session instanceof ClientSession own && own.getConnectionContext() != null) {
            own.getConnectionContext().getAttribute(SEEN).completeExceptionally(fault);
        }
    }

    static Seen seen(PublicKey key) {
        return new Seen(KeyUtils.getFingerPrint(BuiltinDigests.sha256, key), PublicKeyEntry.toString(key));
    }

    /**
     * Reads it.
     *
     * @param timeout for everything together
     * @throws WireFault of kind SILENT, REFUSED, or GARBAGE where no keys can be exchanged
     */
    public Seen read(InetSocketAddress peer, Duration timeout) throws WireFault {
        TimeLeft left = TimeLeft.of(timeout);
        CompletableFuture<Seen> seen = new CompletableFuture<>();
        ClientSession session = null;
        try {
            session = client.connect("nobody", peer, AttributeRepository.ofKeyValuePair(SEEN, seen))
                    .verify(timeout)
                    .getSession();
            return seen.get(left.millis(), TimeUnit.MILLISECONDS);
        } catch (TimeoutException e) {
            throw new WireFault(Kind.SILENT, WireText.SSH_NO_HOST_KEY.text(timeout.toSeconds()), e);
        } catch (ExecutionException e) {
            throw new WireFault(
                    Kind.GARBAGE, WireText.SSH_NO_KEY_EXCHANGE.text(e.getCause().getMessage()), e);
        } catch (IOException e) {
            throw SshClients.fault(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new WireFault(Kind.SILENT, "interrupted", e);
        } finally {
            if (session != null) {
                CloseFuture ignored = session.close(true);
            }
        }
    }

    @Override
    public void close() {
        client.stop();
    }
}
