package lychnos.core.export;

import java.io.IOException;
import java.util.Iterator;

/** Host keys as SSH clients read them (sshd(8), known hosts): names, then type and key as the machine showed them. */
public final class KnownHosts {

    private KnownHosts() {}

    public static void write(Appendable out, Iterator<Endpoint> endpoints) throws IOException {
        while (endpoints.hasNext()) {
            Endpoint each = endpoints.next();
            if (!each.seen().hostKey().isEmpty()) {
                out.append(each.name())
                        .append(',')
                        .append(each.address().toString())
                        .append(' ')
                        .append(each.seen().hostKey())
                        .append('\n');
            }
        }
    }
}
