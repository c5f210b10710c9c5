package lychnos.core.proof;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;

/**
 * Judges what each name server, asked directly, says of a name and of the address behind it (RFC 1035). A name is right
 * where every server says what was planned and nothing else.
 */
public final class NameMarks {

    private NameMarks() {}

    /**
     * What one server said.
     *
     * @param data of all records, in lowercase letters; empty where it knows none
     * @param fault why it said nothing, or empty
     */
    public record Said(List<String> data, String fault) {

        public static Said of(List<String> data) {
            return new Said(List.copyOf(data), "");
        }

        public static Said nothing(String fault) {
            return new Said(List.of(), fault);
        }

        boolean silent() {
            return !fault.isEmpty();
        }
    }

    /**
     * The name as it leads to the address.
     *
     * @param said by server, in the order in which they are stated
     */
    public static Beside forward(String fqdn, String address, Map<String, Said> said) {
        return judge(SideMark.NAME, fqdn, address, said, Trouble.NAME_MISSING, Trouble.NAME_ELSEWHERE);
    }

    /** The name of the PTR record of an address (RFC 1035, section 3.5). */
    public static Beside reverse(String address, String fqdn, Map<String, Said> said) {
        return judge(SideMark.REVERSE, address, fqdn, said, Trouble.REVERSE_MISSING, Trouble.REVERSE_ELSEWHERE);
    }

    /**
     * What the servers lead to, all of them together; nothing where one of them said nothing, since that tells nothing
     * of the name.
     */
    public static Optional<String> trait(Map<String, Said> said) {
        return said.isEmpty() || said.values().stream().anyMatch(Said::silent)
                ? Optional.empty()
                : Optional.of(said.values().stream()
                        .map(each -> each.data.isEmpty() ? "nothing" : String.join(" and ", each.data))
                        .distinct()
                        .sorted()
                        .collect(Collectors.joining(" or ")));
    }

    private static Beside judge(
            SideMark mark, String asked, String wanted, Map<String, Said> said, Trouble missing, Trouble elsewhere) {
        if (said.isEmpty()) {
            return Beside.notMeasured(mark, ProofText.NO_ZONE.text());
        }
        List<Part> parts = new ArrayList<>();
        List<String> right = new ArrayList<>();
        List<String> silent = new ArrayList<>();
        List<String> without = new ArrayList<>();
        List<String> wrong = new ArrayList<>();
        said.forEach((server, answer) -> {
            if (answer.silent()) {
                silent.add(server);
                parts.add(Part.broken(server, answer.fault()));
            } else if (answer.data().isEmpty()) {
                without.add(server);
                parts.add(Part.broken(server, ProofText.NO_RECORD.text(asked)));
            } else if (answer.data().equals(List.of(wanted))) {
                right.add(server);
                parts.add(Part.holds(server, ProofText.AS_PLANNED.text()));
            } else {
                wrong.add(ProofText.SERVER_ANSWERS.text(server, String.join(" and ", answer.data())));
                parts.add(Part.broken(server, String.join(", ", answer.data())));
            }
        });
        if (!wrong.isEmpty()) {
            return Beside.broken(
                    mark, elsewhere, ProofText.NAME_DIFFERS.text(asked, String.join(", ", wrong), wanted), parts);
        }
        if (!without.isEmpty() && right.isEmpty()) {
            return Beside.broken(mark, missing, asked, parts);
        }
        if (!without.isEmpty()) {
            return Beside.broken(
                    mark,
                    Trouble.NAME_LAGS,
                    ProofText.LAGS_BEHIND.text(together(without), without.size(), asked, together(right), right.size()),
                    parts);
        }
        if (!silent.isEmpty()) {
            return Beside.broken(
                    mark,
                    Trouble.NAME_SERVER_SILENT,
                    ProofText.SERVERS_SILENT.text(together(silent), silent.size()),
                    parts);
        }
        return Beside.holds(mark, ProofText.NAME_AT_SERVERS.text(wanted, together(right)), parts);
    }

    private static String together(List<String> servers) {
        return String.join(" and ", servers);
    }
}
