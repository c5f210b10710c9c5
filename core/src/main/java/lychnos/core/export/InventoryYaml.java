package lychnos.core.export;

import java.io.IOException;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.Map;
import lychnos.core.record.CanonicalJson;

/**
 * Everything by its unit, as plain YAML 1.2; every text stands in double quotes, so that no name turns into a number or
 * a yes.
 */
public final class InventoryYaml {

    private InventoryYaml() {}

    /** @param endpoints those of a unit one after the other */
    public static void write(Appendable out, Iterator<Endpoint> endpoints) throws IOException {
        out.append("units:\n");
        String unit = null;
        while (endpoints.hasNext()) {
            Endpoint each = endpoints.next();
            if (!each.machine().unit().equals(unit)) {
                unit = each.machine().unit();
                out.append("  - unit: ")
                        .append(CanonicalJson.write(unit))
                        .append("\n    kind: ")
                        .append(CanonicalJson.write(each.machine().kind()))
                        .append("\n    place: ")
                        .append(CanonicalJson.write(each.machine().place()))
                        .append("\n    endpoints:\n");
            }
            Map<String, String> values = new LinkedHashMap<>();
            values.put("name", each.name());
            values.put("role", each.role());
            values.put("address", each.addressWithLength());
            values.put("gateway", each.network().gatewayText());
            values.put("serial", each.machine().serial());
            values.put("mac", each.seen().mac());
            values.put("firmware", each.seen().firmware());
            values.put("certificate_sha256", each.seen().certificate());
            values.put("ssh_host_key", each.seen().hostKey());
            values.values().removeIf(String::isEmpty);
            boolean first = true;
            for (Map.Entry<String, String> value : values.entrySet()) {
                out.append(first ? "      - " : "        ")
                        .append(value.getKey())
                        .append(": ")
                        .append(CanonicalJson.write(value.getValue()))
                        .append('\n');
                first = false;
            }
        }
        if (unit == null) {
            out.append("  []\n");
        }
    }
}
