package lychnos.core.export;

import java.io.IOException;
import java.time.temporal.ChronoUnit;
import java.util.Iterator;

/** Addresses and names, one endpoint a line; times in UTC (RFC 3339). */
public final class EndpointsCsv {

    private EndpointsCsv() {}

    public static void write(Appendable out, Iterator<Endpoint> endpoints) throws IOException {
        try (Csv csv = new Csv(
                out,
                "name",
                "address",
                "role",
                "unit",
                "kind",
                "place",
                "network",
                "vlan",
                "gateway",
                "serial",
                "mac",
                "firmware",
                "certificate_sha256",
                "proven_at",
                "proven_from")) {
            while (endpoints.hasNext()) {
                Endpoint each = endpoints.next();
                csv.line(
                        each.name(),
                        each.addressWithLength(),
                        each.role(),
                        each.machine().unit(),
                        each.machine().kind(),
                        each.machine().place(),
                        each.network().name(),
                        each.network().vlan() == null ? "" : each.network().vlan(),
                        each.network().gatewayText(),
                        each.machine().serial(),
                        each.seen().mac(),
                        each.seen().firmware(),
                        each.seen().certificate(),
                        each.provenAt() == null ? "" : each.provenAt().truncatedTo(ChronoUnit.SECONDS),
                        each.provenFrom());
            }
        }
    }
}
