package lychnos.core.export;

import java.io.IOException;
import java.util.List;

/** A zone as a master file (RFC 1035, section 5): its servers, and the records of what is handed over. */
public final class ZoneFile {

    /** A record; its data a name or an address as the type wants it. */
    public record Entry(String owner, String type, String data) {}

    private ZoneFile() {}

    /**
     * Writes it.
     *
     * @param zone without its last dot
     * @param domain the zone that its servers' names lie in
     * @param servers their addresses, the first one that is written to; they are called ns1, ns2 and so on below the
     * domain
     * @param serial of the SOA, 1 to 2^32 - 1
     */
    public static void write(
            Appendable out, String zone, String domain, List<String> servers, long serial, Iterable<Entry> entries)
            throws IOException {
        out.append("$ORIGIN ").append(name(zone)).append("\n$TTL 3600\n");
        out.append("@ IN SOA ")
                .append(name("ns1." + domain))
                .append(' ')
                .append(name("hostmaster." + domain))
                .append(" ( ")
                .append(String.valueOf(serial))
                .append(" 3600 900 1209600 300 )\n");
        for (int i = 1; i <= Math.max(1, servers.size()); i++) {
            out.append("@ IN NS ").append(name("ns" + i + "." + domain)).append('\n');
        }
        for (int i = 1; zone.equals(domain) && i <= servers.size(); i++) {
            String address = servers.get(i - 1);
            out.append("ns")
                    .append(String.valueOf(i))
                    .append(" IN ")
                    .append(address.indexOf(':') < 0 ? "A " : "AAAA ")
                    .append(address)
                    .append('\n');
        }
        for (Entry each : entries) {
            boolean named = each.type().equals("PTR") || each.type().equals("CNAME");
            out.append(name(each.owner()))
                    .append(" IN ")
                    .append(each.type())
                    .append(' ')
                    .append(named ? name(each.data()) : each.data())
                    .append('\n');
        }
    }

    /** With its last dot, and a stroke before whatever means something in a master file. */
    private static String name(String text) {
        StringBuilder escaped = new StringBuilder();
        for (char letter : text.toCharArray()) {
            if ("\"();@$\\ ".indexOf(letter) >= 0) {
                escaped.append('\\');
            }
            escaped.append(letter);
        }
        return escaped.append('.').toString();
    }
}
