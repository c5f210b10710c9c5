package lychnos.core.export;

import java.io.IOException;
import java.util.Iterator;

/**
 * What OpenSSH's client reads as a file of settings (ssh_config): each endpoint with a host key under its short and its
 * full name, at its address, and never trusted at first sight, since {@link KnownHosts} has the keys.
 */
public final class SshConfig {

    private SshConfig() {}

    public static void write(Appendable out, Iterator<Endpoint> endpoints) throws IOException {
        while (endpoints.hasNext()) {
            Endpoint each = endpoints.next();
            if (!each.seen().hostKey().isEmpty()) {
                out.append("Host ")
                        .append(each.shortName())
                        .append(' ')
                        .append(each.name())
                        .append('\n');
                out.append("    HostName ").append(each.address().toString()).append('\n');
                out.append("    HostKeyAlias ").append(each.name()).append('\n');
                out.append("    StrictHostKeyChecking yes\n");
            }
        }
    }
}
