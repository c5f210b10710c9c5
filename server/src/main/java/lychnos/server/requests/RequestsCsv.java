package lychnos.server.requests;

import java.io.IOException;
import java.util.List;
import lychnos.core.export.Csv;

/** Requests as CSV, one row for each, its machines separated by spaces. */
final class RequestsCsv {

    private RequestsCsv() {}

    static void write(Appendable out, List<Requests.KnownRequest> requests) throws IOException {
        try (Csv csv =
                new Csv(out, "request", "for", "fallback", "machines", "state", "person", "due", "note", "measured")) {
            for (Requests.KnownRequest each : requests) {
                NotedRequest noted = each.noted();
                csv.line(
                        each.title(),
                        each.why(),
                        each.fallback(),
                        String.join(" ", each.machines()),
                        each.state().word(),
                        noted == null ? "" : noted.person,
                        noted == null || noted.due == null ? "" : noted.due,
                        noted == null ? "" : noted.note,
                        each.tested().seen());
            }
        }
    }
}
