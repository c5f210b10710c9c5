package lychnos.core.export;

import java.io.IOException;
import java.util.Iterator;

/** The file of hosts that every operating system reads: address, full name, short name. */
public final class HostsFile {

    private HostsFile() {}

    public static void write(Appendable out, Iterator<Endpoint> endpoints) throws IOException {
        while (endpoints.hasNext()) {
            Endpoint each = endpoints.next();
            out.append(each.address().toString())
                    .append('\t')
                    .append(each.name())
                    .append('\t')
                    .append(each.shortName())
                    .append('\n');
        }
    }
}
