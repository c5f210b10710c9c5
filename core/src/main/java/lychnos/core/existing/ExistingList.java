package lychnos.core.existing;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import lychnos.core.address.Address;
import lychnos.core.fact.CsvText;
import lychnos.core.fact.LabelFault;
import lychnos.core.fact.Mac;
import org.apache.commons.csv.CSVRecord;

/**
 * Reads what is in use from a table, a hosts file, or the lease file of a DHCP server. Which of them it is can be seen
 * by the text. A wrong line is told and never hides a right one; one address told twice counts as told last, as in a
 * lease file.
 *
 * @param uses one for each address, in the order of the first telling
 */
public record ExistingList(List<InUse> uses, List<LabelFault> faults) {

    private static final Pattern LEASE =
            Pattern.compile("^\\s*lease\\s+(\\S+)\\s*\\{(.*?)}", Pattern.DOTALL | Pattern.MULTILINE);
    private static final Pattern HARDWARE = Pattern.compile("hardware\\s+ethernet\\s+([0-9A-Fa-f:]+)\\s*;");
    private static final Pattern STATE = Pattern.compile("(?m)^\\s*binding\\s+state\\s+(\\w+)\\s*;");
    private static final Pattern CLIENT = Pattern.compile("client-hostname\\s+\"([^\"]{0,255})\"\\s*;");

    /** Reads a whole text; never throws for what people hand in. */
    public static ExistingList parse(String text) {
        if (text.length() > CsvText.MAX_LENGTH) {
            return refused(ExistingText.TOO_LONG.text(text.length(), CsvText.MAX_LENGTH));
        }
        if (LEASE.matcher(text).find()) {
            return leases(text);
        }
        String first = text.lines()
                .map(String::strip)
                .filter(line -> !line.isEmpty() && !line.startsWith("#"))
                .findFirst()
                .orElse("");
        if (first.isEmpty()) {
            return refused(ExistingText.EMPTY.text());
        }
        boolean hosts = Address.tryParse(first.split("\\s+")[0]).isPresent()
                && first.indexOf(',') < 0
                && first.indexOf(';') < 0;
        return hosts ? hosts(text) : table(text);
    }

    private static ExistingList refused(String reason) {
        return new ExistingList(List.of(), List.of(new LabelFault(1, "", "", reason)));
    }

    /** What is told last of an address counts. */
    private static final class Collector {
        private final Map<Address, InUse> uses = new LinkedHashMap<>();
        private final List<LabelFault> faults = new ArrayList<>();

        void add(int line, String address, String name, String mac, String source) {
            try {
                Optional<Mac> hardware = mac.isBlank() ? Optional.empty() : Optional.of(Mac.parse(mac));
                Address read = Address.parse(address.strip());
                uses.put(read, new InUse(read, name.strip().toLowerCase(Locale.ROOT), hardware, source));
            } catch (IllegalArgumentException e) {
                faults.add(new LabelFault(line, "", address, e.getMessage()));
            }
        }

        ExistingList done() {
            return new ExistingList(List.copyOf(uses.values()), List.copyOf(faults));
        }
    }

    private static ExistingList hosts(String text) {
        Collector found = new Collector();
        int number = 0;
        for (String line : text.split("\\R")) {
            number++;
            String[] words = line.replaceFirst("#.*", "").strip().split("\\s+");
            if (!words[0].isEmpty()) {
                found.add(number, words[0], words.length > 1 ? words[1] : "", "", ExistingText.HOSTS_FILE.text());
            }
        }
        return found.done();
    }

    /**
     * A lease file of the form {@code lease 10.40.8.10 { … }}: a block may follow for the same address, and only active
     * ones count.
     */
    private static ExistingList leases(String text) {
        Collector found = new Collector();
        Matcher lease = LEASE.matcher(text);
        while (lease.find()) {
            int line = (int) text.substring(0, lease.start(1)).lines().count();
            String body = lease.group(2);
            Matcher state = STATE.matcher(body);
            if (state.find() && !state.group(1).equals("active")) {
                Address.tryParse(lease.group(1)).ifPresent(found.uses::remove);
                continue;
            }
            Matcher mac = HARDWARE.matcher(body);
            Matcher client = CLIENT.matcher(body);
            found.add(
                    line,
                    lease.group(1),
                    client.find() ? client.group(1) : "",
                    mac.find() ? mac.group(1) : "",
                    ExistingText.DHCP_LEASE.text());
        }
        return found.done();
    }

    private static ExistingList table(String text) {
        Collector found = new Collector();
        Map<String, Integer> columns = new LinkedHashMap<>();
        List<LabelFault> faults = CsvText.read(text, (row, line) -> {
            if (columns.isEmpty()) {
                for (int i = 0; i < row.size(); i++) {
                    columns.putIfAbsent(heading(row.get(i)), i);
                }
                if (!columns.containsKey("address")) {
                    found.faults.add(new LabelFault(line, "", "", ExistingText.NO_ADDRESS_COLUMN.text()));
                }
            } else if (columns.containsKey("address")) {
                // the state column of a lease table: 0 is in use
                String state = cell(row, columns.get("state"));
                if (state.isEmpty() || state.equals("0")) {
                    found.add(
                            line,
                            cell(row, columns.get("address")),
                            cell(row, columns.get("name")),
                            cell(row, columns.get("mac")),
                            columns.containsKey("state") ? ExistingText.DHCP_LEASE.text() : "table");
                } else {
                    Address.tryParse(cell(row, columns.get("address"))).ifPresent(found.uses::remove);
                }
            }
        });
        found.faults.addAll(faults);
        return found.done();
    }

    private static String heading(String text) {
        return switch (text.strip().toLowerCase(Locale.ROOT).replace('_', ' ')) {
            case "address", "ip", "ip address", "ipv4 address", "ipv6 address" -> "address";
            case "name", "host", "hostname", "host name" -> "name";
            case "mac", "hwaddr", "MAC address", "mac address" -> "mac";
            case "state" -> "state";
            default -> text;
        };
    }

    private static String cell(CSVRecord row, Integer column) {
        return column == null || column >= row.size() ? "" : row.get(column).strip();
    }
}
