package lychnos.wire.ssh;

import java.io.IOException;
import java.net.ConnectException;
import java.net.InetSocketAddress;
import java.net.SocketTimeoutException;
import java.security.PublicKey;
import java.time.Duration;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import lychnos.wire.WireFault;
import lychnos.wire.WireFault.Kind;
import org.apache.sshd.client.SshClient;
import org.apache.sshd.client.config.hosts.HostConfigEntryResolver;
import org.apache.sshd.client.session.ClientSession;
import org.apache.sshd.common.AttributeRepository;
import org.apache.sshd.common.config.keys.KeyUtils;
import org.apache.sshd.common.config.keys.PublicKeyEntry;
import org.apache.sshd.common.digest.BuiltinDigests;
import org.apache.sshd.common.future.CloseFuture;
import org.apache.sshd.common.keyprovider.KeyIdentityProvider;
import org.apache.sshd.common.session.Session;
import org.apache.sshd.common.session.SessionListener;

/** Exchanges keys with an SSH server (RFC 4253, section 7) to see its host key, and leaves before anybody logs in. */
public final class HostKey implements AutoCloseable {

    private static final AttributeRepository.AttributeKey<CompletableFuture<Seen>> SEEN = new AttributeRepository.AttributeKey<>();

    private final SshClient client = SshClient.setUpDefaultClient();

    /**
     * A host key.
     *
     * @param fingerprint such as {@code SHA256:…} (RFC 4716's hash, in the form that people compare)
     * @param line type and key as a line of a file of known hosts has them, without the host
     */
    public record Seen(String fingerprint, String line) {}

    public HostKey() {
        client.setHostConfigEntryResolver(HostConfigEntryResolver.EMPTY);
        client.setKeyIdentityProvider(KeyIdentityProvider.EMPTY_KEYS_PROVIDER);
        client.setNioWorkers(1);
        client.setServerKeyVerifier((session, peer, key) -> {
            session.getConnectionContext().getAttribute(SEEN).complete(seen(key));
            return false; // it was all that was wanted
        });
        client.setKeyExchangeFactories(client.getKeyExchangeFactories().stream()
                .sorted(java.util.Comparator.comparing(factory -> !factory.getName().startsWith("curve25519") && !factory.getName().startsWith("ecdh")))
                .toList());
        client.addSessionListener(new SessionListener() {
            @Override
            public void sessionException(Session session, Throwable fault) {
                failed(session, fault);
            }

            @Override
            public void sessionClosed(Session session) {
                failed(session, new IOException("the connection ended"));
            }
        });
        client.start();
    }

    private static void failed(Session session, Throwable fault) {
        if (session instanceof ClientSession own && own.getConnectionContext() != null) {
            own.getConnectionContext().getAttribute(SEEN).completeExceptionally(fault);
        }
    }

    private static Seen seen(PublicKey key) {
        return new Seen(KeyUtils.getFingerPrint(BuiltinDigests.sha256, key), PublicKeyEntry.toString(key));
    }

    /**
     * Reads it.
     *
     * @param timeout for everything together
     * @throws WireFault of kind SILENT, REFUSED, or GARBAGE where no keys can be exchanged
     */
    public Seen read(InetSocketAddress peer, Duration timeout) throws WireFault {
        long end = System.nanoTime() + timeout.toNanos();
        CompletableFuture<Seen> seen = new CompletableFuture<>();
        ClientSession session = null;
        try {
            session = client.connect("nobody", peer, AttributeRepository.ofKeyValuePair(SEEN, seen)).verify(timeout).getSession();
            return seen.get(Math.max(1, end - System.nanoTime()), TimeUnit.NANOSECONDS);
        } catch (TimeoutException e) {
            throw new WireFault(Kind.SILENT, "no host key in " + timeout.toSeconds() + " s", e);
        } catch (ExecutionException e) {
            throw new WireFault(Kind.GARBAGE, "it exchanges no keys: " + e.getCause().getMessage(), e);
        } catch (IOException e) {
            boolean refused = hasCause(e, ConnectException.class);
            boolean silent = hasCause(e, SocketTimeoutException.class);
            throw new WireFault(refused ? Kind.REFUSED : silent ? Kind.SILENT : Kind.GARBAGE, refused ? "the connection was refused" : silent ? "no connection" : String.valueOf(e.getMessage()), e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new WireFault(Kind.SILENT, "interrupted", e);
        } finally {
            if (session != null) {
                CloseFuture ignored = session.close(true);
            }
        }
    }

    private static boolean hasCause(Throwable fault, Class<? extends Throwable> type) {
        for (Throwable each = fault; each != null; each = each.getCause()) {
            if (type.isInstance(each)) {
                return true;
            }
        }
        return false;
    }

    @Override
    public void close() {
        client.stop();
    }
}
