package lychnos.core.export;

import java.io.IOException;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import lychnos.core.record.CanonicalJson;

/** What Prometheus reads as file-based service discovery: one target with its labels for each management service. */
public final class TargetsFile {

    private TargetsFile() {}

    public static void write(Appendable out, Iterator<Endpoint> endpoints) throws IOException {
        out.append('[');
        boolean first = true;
        while (endpoints.hasNext()) {
            Endpoint each = endpoints.next();
            if (each.port() > 0) {
                String target =
                        (each.address().isV4() ? each.address() : "[" + each.address() + "]") + ":" + each.port();
                Map<String, Object> labels = new TreeMap<>(Map.of(
                        "name",
                        each.name(),
                        "unit",
                        each.machine().unit(),
                        "kind",
                        each.machine().kind(),
                        "role",
                        each.role(),
                        "place",
                        each.machine().place(),
                        "serial",
                        each.machine().serial()));
                out.append(first ? "\n" : ",\n")
                        .append(CanonicalJson.write(Map.of("targets", List.of(target), "labels", labels)));
                first = false;
            }
        }
        out.append("\n]\n");
    }
}
