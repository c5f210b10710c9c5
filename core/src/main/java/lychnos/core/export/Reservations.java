package lychnos.core.export;

import java.io.IOException;
import java.util.HashSet;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import lychnos.core.record.CanonicalJson;

/**
 * Reservations of a DHCP server, in the form that Kea reads: for each network of IPv4 a subnet with its hosts, so that
 * a machine which is set back to DHCP gets its own address again.
 */
public final class Reservations {

    private Reservations() {}

    public static void write(Appendable out, Iterator<Endpoint> endpoints) throws IOException {
        Map<String, StringBuilder> subnets = new TreeMap<>();
        Set<String> seen = new HashSet<>();
        while (endpoints.hasNext()) {
            Endpoint each = endpoints.next();
            // one MAC address is reserved one address in a subnet
            if (each.address().isV4()
                    && !each.seen().mac().isEmpty()
                    && seen.add(each.network().prefix() + " " + each.seen().mac())) {
                StringBuilder hosts =
                        subnets.computeIfAbsent(each.network().prefix().toString(), none -> new StringBuilder());
                Map<String, Object> host = new LinkedHashMap<>(Map.of(
                        "hw-address",
                        each.seen().mac(),
                        "ip-address",
                        each.address().toString(),
                        "hostname",
                        each.name()));
                hosts.append(hosts.isEmpty() ? "" : ",\n      ").append(CanonicalJson.write(host));
            }
        }
        out.append("{\"Dhcp4\": {\n  \"subnet4\": [");
        int number = 0;
        for (Map.Entry<String, StringBuilder> subnet : subnets.entrySet()) {
            out.append(number++ == 0 ? "\n" : ",\n")
                    .append("    {\"id\": ")
                    .append(String.valueOf(number))
                    .append(", \"subnet\": ")
                    .append(CanonicalJson.write(subnet.getKey()))
                    .append(", \"reservations\": [\n      ")
                    .append(subnet.getValue())
                    .append("]}");
        }
        out.append("\n  ]\n}}\n");
    }
}
