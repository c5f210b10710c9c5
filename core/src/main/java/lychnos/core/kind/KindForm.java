package lychnos.core.kind;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import lychnos.core.record.CanonicalJson;

/**
 * The common case of a kind, as a short form asks it: a machine that a person sets up on its own pages from a value
 * sheet. What it writes is an ordinary description, which can be edited as text afterwards.
 *
 * @param id the word for the kind
 * @param title as people read it
 * @param shortName the word in host names
 * @param members labels of the machines that make one unit; none for a single machine
 * @param each how many addresses each member has, 0 to 8
 * @param shared how many addresses the members have in common, 0 to 8; none for a single machine
 * @param label what stands on each machine's label besides its serial, such as an asset number
 * @param user the account that the maker ships, or empty for none
 * @param password of that account
 * @param port the TCP port of its management service
 * @param open other TCP ports that must answer
 * @param closed TCP ports that must be closed
 * @param firstPage where its first setup is opened, or empty
 * @param sheet what is entered where
 */
public record KindForm(
        String id,
        String title,
        String shortName,
        List<String> members,
        int each,
        int shared,
        List<String> label,
        String user,
        String password,
        int port,
        List<Integer> open,
        List<Integer> closed,
        String firstPage,
        List<Page> sheet) {

    /** What a person enters on one page of the machine: by the label of its field, what is entered there. */
    public record Page(String title, Map<String, String> fields) {}

    private static final int MOST = 8;

    /** What a value sheet usually holds; every name is known for any address of a management network. */
    private static final List<Page> USUAL = List.of(new Page("Network", usual()));

    private static Map<String, String> usual() {
        Map<String, String> fields = new LinkedHashMap<>();
        fields.put("Address", "{address}");
        fields.put("Mask", "{mask}");
        fields.put("Gateway", "{gateway}");
        fields.put("Host name", "{name}");
        fields.put("Domain", "{domain}");
        fields.put("First name server", "{name-server-1}");
        fields.put("First time server", "{time-server-1}");
        fields.put("New password", "{password}");
        return fields;
    }

    /**
     * The description in YAML. Whether it can be used is for {@link KindReader} to say.
     *
     * @throws IllegalArgumentException with a sentence, where not even a description can be written
     */
    public String text() {
        if (each < 0 || each > MOST || shared < 0 || shared > MOST || each + shared == 0) {
            throw new IllegalArgumentException(KindFaultText.ADDRESSES_OF_A_UNIT.text(MOST));
        }
        boolean single = members.isEmpty();
        StringBuilder text = new StringBuilder();
        line(text, "kind: " + id);
        line(text, "title: " + quoted(title));
        line(text, "short: " + shortName);
        line(text, "about: " + quoted("Set up by hand from its value sheet."));
        if (!single) {
            line(text, "members: { labels: " + list(members) + " }");
        }
        facts(text);
        Map<String, String> roles = roles(single);
        line(text, "addresses:");
        line(text, "  - { run: " + list(List.copyOf(roles.keySet())) + ", in: management }");
        line(
                text,
                "names: { unit: \"{site}-{kind}-{n:2}\", roles: { "
                        + roles.entrySet().stream()
                                .map(role -> quoted(role.getKey()) + ": " + quoted(role.getValue()))
                                .collect(Collectors.joining(", "))
                        + " } }");
        line(text, "setup: { by: pages }");
        line(text, "dialogue:");
        line(text, "  pages:");
        line(text, "    - { page: \"The right machine\", fields: { \"Serial on the machine\": \"{serial}\" } }");
        for (Page page : sheet.isEmpty() ? USUAL : sheet) {
            line(
                    text,
                    "    - { page: " + quoted(page.title)
                            + (firstPage.isBlank() ? "" : ", open: " + quoted(firstPage.strip())) + ", fields: { "
                            + page.fields.entrySet().stream()
                                    .map(field -> quoted(field.getKey()) + ": " + quoted(field.getValue()))
                                    .collect(Collectors.joining(", "))
                            + " } }");
        }
        line(text, "factory:");
        String account = user.isBlank() ? Kind.NO_LOGIN : user.strip();
        line(
                text,
                "  - { way: web, user: " + quoted(account) + ", phrase: "
                        + quoted(password.isEmpty() ? Kind.NO_LOGIN : password) + " }");
        line(
                text,
                "checks: { port: " + port + (open.isEmpty() ? "" : ", open: " + open)
                        + (closed.isEmpty() ? "" : ", shut: " + closed) + " }");
        line(text, "waits:");
        line(text, "  restart: { about: 3 min, at-most: 15 min }");
        line(text, "flows:");
        line(text, "  - { from: all, to: name service, port: udp 53 }");
        line(text, "  - { from: all, to: time service, port: udp 123 }");
        line(text, "  - { from: engineers, to: all, port: tcp " + port + " }");
        return text.toString();
    }

    private void facts(StringBuilder text) {
        line(text, "facts:");
        line(text, "  serial: { of: member, is: serial, find: on its label }");
        line(text, "  location: { of: member, is: rack-position, find: where it is mounted }");
        line(text, "  password: { of: unit, is: secret, title: own password, made: true }");
        Set<String> names = new LinkedHashSet<>(List.of("serial", "location", "password"));
        for (String each : label) {
            String name = word(each);
            if (names.add(name)) {
                line(text, "  " + name + ": { of: member, is: text, title: " + quoted(each) + ", find: on its label }");
            }
        }
    }

    /** By role, the pattern of its name; in the order in which addresses are given. */
    private Map<String, String> roles(boolean single) {
        Map<String, String> roles = new LinkedHashMap<>();
        if (single) {
            IntStream.rangeClosed(1, each + shared)
                    .forEach(
                            i -> roles.put(i == 1 ? "management" : "address " + i, "{unit}" + (i == 1 ? "" : "-" + i)));
            return roles;
        }
        IntStream.rangeClosed(1, each)
                .forEach(i ->
                        roles.put("{member}" + (i == 1 ? "" : " " + i), "{unit}-{member}" + (i == 1 ? "" : "-" + i)));
        IntStream.rangeClosed(1, shared)
                .forEach(i -> roles.put("shared" + (i == 1 ? "" : " " + i), "{unit}" + (i == 1 ? "" : "-" + i)));
        return roles;
    }

    private static void line(StringBuilder text, String line) {
        text.append(line).append('\n');
    }

    /** A text of JSON is one of YAML. */
    private static String quoted(String text) {
        return CanonicalJson.write(text);
    }

    private static String list(List<String> texts) {
        return new ArrayList<>(texts).stream().map(KindForm::quoted).collect(Collectors.joining(", ", "[ ", " ]"));
    }

    /** A word for a kind or a fact, made from a title. */
    public static String word(String title) {
        String plain = title.strip()
                .toLowerCase(Locale.ROOT)
                .replaceAll("[^a-z0-9]+", "-")
                .replaceAll("^[^a-z]+|-+$", "");
        return plain.length() > 40 ? plain.substring(0, 40).replaceAll("-+$", "") : plain;
    }
}
