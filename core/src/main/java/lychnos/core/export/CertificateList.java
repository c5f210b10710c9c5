package lychnos.core.export;

import java.io.IOException;
import java.util.Iterator;

/** Each endpoint's own certificate in PEM (RFC 7468), for tools that are to trust these and no authority. */
public final class CertificateList {

    private CertificateList() {}

    public static void write(Appendable out, Iterator<Endpoint> endpoints) throws IOException {
        while (endpoints.hasNext()) {
            Endpoint each = endpoints.next();
            if (!each.seen().chain().isEmpty()) {
                // text before a certificate is explanatory and is read over (RFC 7468, section 5.2)
                out.append("# ")
                        .append(each.name())
                        .append(' ')
                        .append(each.address().toString())
                        .append(" sha256 ")
                        .append(each.seen().certificate())
                        .append('\n');
                out.append(each.seen().chain().get(0).strip()).append('\n');
            }
        }
    }
}
