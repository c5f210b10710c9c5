package lychnos.wire.ssh;

import java.io.IOException;
import java.net.ConnectException;
import java.net.SocketTimeoutException;
import java.util.Comparator;
import lychnos.wire.fault.WireFault;
import lychnos.wire.fault.WireFault.Kind;
import lychnos.wire.fault.WireText;
import org.apache.sshd.client.SshClient;
import org.apache.sshd.client.config.hosts.HostConfigEntryResolver;
import org.apache.sshd.common.keyprovider.KeyIdentityProvider;
import org.apache.sshd.core.CoreModuleProperties;

/** Makes clients that read nothing of the user's own settings and offer no keys. */
public final class SshClients {

    private SshClients() {}

    /** One that is not started yet and trusts nobody until it is told whom. */
    public static SshClient make() {
        SshClient client = SshClient.setUpDefaultClient();
        client.setHostConfigEntryResolver(HostConfigEntryResolver.EMPTY);
        client.setKeyIdentityProvider(KeyIdentityProvider.EMPTY_KEYS_PROVIDER);
        client.setServerKeyVerifier((session, peer, key) -> false);
        // keys are typed one by one: none waits for the one before it to be acknowledged
        CoreModuleProperties.TCP_NODELAY.set(client, true);
        // the newest exchange, first by default, costs five times as much; these are as well kept
        client.setKeyExchangeFactories(client.getKeyExchangeFactories().stream()
                .sorted(Comparator.comparing(factory -> !factory.getName().startsWith("curve25519")
                        && !factory.getName().startsWith("ecdh")))
                .toList());
        return client;
    }

    /** What a connection that did not come about says of the machine. */
    static WireFault fault(IOException fault) {
        boolean refused = hasCause(fault, ConnectException.class);
        boolean silent = hasCause(fault, SocketTimeoutException.class);
        return new WireFault(
                refused ? Kind.REFUSED : silent ? Kind.SILENT : Kind.GARBAGE,
                refused
                        ? WireText.CONNECTION_REFUSED.text()
                        : silent ? WireText.NO_CONNECTION.text() : String.valueOf(fault.getMessage()),
                fault);
    }

    private static boolean hasCause(Throwable fault, Class<? extends Throwable> type) {
        for (Throwable each = fault; each != null; each = each.getCause()) {
            if (type.isInstance(each)) {
                return true;
            }
        }
        return false;
    }
}
