package lychnos.server;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.regex.MatchResult;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/**
 * Which package owns which table. A package writes its own tables only, and reads those of packages that come before
 * it. What comes later is read through views that its owner publishes.
 */
class TablesTest {

    private static final Path SOURCES = Path.of("src/main/java/lychnos/server");
    private static final Path MIGRATIONS = Path.of("src/main/resources/db/migration");

    /** The tables of each package. */
    private static final Map<String, List<String>> OWNED = Map.ofEntries(
            Map.entry("api", List.of("answered")),
            Map.entry("identity", List.of("account", "api_token", "first_lead", "invitation", "sign_in")),
            Map.entry("journal", List.of("journal")),
            Map.entry("secrets", List.of("sealed_secret")),
            Map.entry(
                    "site",
                    List.of(
                            "address_range",
                            "bring_up",
                            "bring_up_network",
                            "measured",
                            "network",
                            "realm",
                            "site",
                            "site_resource")),
            Map.entry("image", List.of("image")),
            Map.entry(
                    "kinds",
                    List.of(
                            "kind",
                            "kind_adjustment",
                            "kind_draft",
                            "kind_recording",
                            "kind_revision",
                            "kind_version")),
            Map.entry(
                    "units",
                    List.of(
                            "fact",
                            "label_import",
                            "label_import_unit",
                            "label_mapping",
                            "rack_tick",
                            "sheet_change",
                            "unit")),
            Map.entry("allocate", List.of("claim", "name_record", "unknown_device")),
            Map.entry("jobs", List.of("round", "run", "run_step")),
            Map.entry("vantage", List.of("vantage")),
            Map.entry(
                    "configure.model",
                    List.of(
                            "credential_try",
                            "dialogue",
                            "dialogue_step",
                            "dialogue_stretch",
                            "dialogue_value",
                            "line_key",
                            "line_piece",
                            "machine_log",
                            "setup_piece")),
            Map.entry(
                    "prove",
                    List.of(
                            "accepted_trait",
                            "certificate_request",
                            "check_pace",
                            "known_certificate",
                            "proof",
                            "proof_change",
                            "trait_change")),
            Map.entry("prove.notices", List.of("notice_target", "told_day")),
            Map.entry("handover.chain", List.of("chain_link")),
            Map.entry("handover", List.of("open_item", "pack", "record", "replacement", "retirement")),
            Map.entry("requests", List.of("team_request")));

    /** Commands of their own, which replace the key of every sealed value, wherever it is kept. */
    private static final Set<String> EVERYWHERE = Set.of("RotateMain");

    private static final Pattern LITERAL =
            Pattern.compile("\"\"\"(.*?)\"\"\"|\"((?:[^\"\\\\\\n]|\\\\.)*)\"", Pattern.DOTALL);
    private static final Pattern USED = Pattern.compile(
            "\\b(insert\\s+into|update|delete\\s+from|delete|merge\\s+into|from|join)\\s+([A-Za-z_]+)\\b",
            Pattern.CASE_INSENSITIVE);

    @Test
    void everyTableHasAnOwner() throws IOException {
        Set<String> owned = new TreeSet<>();
        OWNED.values().forEach(owned::addAll);
        assertEquals(relations("table"), owned);
    }

    @Test
    void tablesAreWrittenByTheirOwnersAndReadByThoseAfterThem() throws IOException {
        Map<String, String> owners = new HashMap<>();
        OWNED.forEach((owner, tables) -> tables.forEach(table -> owners.put(table, owner)));
        Map<String, String> entities = entities();
        assertEquals("claim", entities.get("Claim"));
        Set<String> views = relations("view");
        assertTrue(views.contains("unit_label"), views::toString);
        List<String> wrong = new ArrayList<>();
        int seen = 0;
        for (Path source : sources()) {
            String name = source.getFileName().toString().replace(".java", "");
            String at = SOURCES.relativize(source.getParent()).toString().replace('/', '.');
            if (EVERYWHERE.contains(name)) {
                continue;
            }
            for (MatchResult used : uses(Files.readString(source))) {
                String table = entities.getOrDefault(used.group(2), used.group(2));
                String owner = owners.get(table);
                boolean writes = !used.group(1).toLowerCase(Locale.ROOT).matches("from|join");
                if (views.contains(table) && writes) {
                    wrong.add(name + " writes the view " + table);
                } else if (owner != null) {
                    seen++;
                    boolean own = owner.equals(at);
                    boolean before = ArchitectureTest.ORDER.indexOf(owner) < ArchitectureTest.ORDER.indexOf(at);
                    if (!own && (writes || !before)) {
                        wrong.add(at + "." + name + (writes ? " writes " : " reads ") + table + " of " + owner);
                    }
                }
            }
        }
        assertTrue(seen > 200, "statements are found: " + seen);
        assertEquals(List.of(), wrong.stream().distinct().sorted().toList());
    }

    @Test
    void aStatementIsFoundWhereverItIsBroken() {
        List<MatchResult> found =
                uses("a(\"delete \"\n + \"from Claim c\", \"select 1 \" + \"from unit u join run r\")");
        assertEquals(
                List.of("delete from Claim", "from unit", "join run"),
                found.stream().map(MatchResult::group).toList());
    }

    private static List<MatchResult> uses(String source) {
        List<MatchResult> uses = new ArrayList<>();
        Matcher literal = LITERAL.matcher(source.replaceAll("(?<!\\\\)\"\\s*\\+\\s*\"", ""));
        while (literal.find()) {
            String text = literal.group(1) == null ? literal.group(2) : literal.group(1);
            USED.matcher(text).results().forEach(uses::add);
        }
        return uses;
    }

    private static List<Path> sources() throws IOException {
        try (Stream<Path> all = Files.walk(SOURCES)) {
            return all.filter(path -> path.toString().endsWith(".java")).toList();
        }
    }

    /** By the name of its class, the table of each entity. */
    private static Map<String, String> entities() throws IOException {
        Map<String, String> entities = new HashMap<>();
        for (Path source : sources()) {
            String text = Files.readString(source);
            if (text.contains("@Entity\n")) {
                String name = source.getFileName().toString().replace(".java", "");
                Matcher table = Pattern.compile("@Table\\(name = \"(\\w+)\"").matcher(text);
                entities.put(name, table.find() ? table.group(1) : snake(name));
            }
        }
        return entities;
    }

    private static String snake(String name) {
        return name.replaceAll("(?<!^)([A-Z])", "_$1").toLowerCase(Locale.ROOT);
    }

    /** The tables or views that are there after all migrations. */
    private static Set<String> relations(String sort) throws IOException {
        Map<Integer, String> texts = new TreeMap<>();
        try (Stream<Path> files = Files.list(MIGRATIONS)) {
            for (Path file : files.toList()) {
                texts.put(
                        Integer.parseInt(file.getFileName().toString().replaceFirst("V(\\d+)__.*", "$1")),
                        Files.readString(file).toLowerCase(Locale.ROOT));
            }
        }
        Set<String> relations = new TreeSet<>();
        Pattern change = Pattern.compile("(create|drop) (?:or replace )?" + sort
                + " (?:if (?:not )?exists )?(\\w+)|alter " + sort + " (\\w+) rename to (\\w+)");
        for (String text : texts.values()) {
            Matcher each = change.matcher(text);
            while (each.find()) {
                if (each.group(3) != null) {
                    relations.remove(each.group(3));
                    relations.add(each.group(4));
                } else if (each.group(1).equals("create")) {
                    relations.add(each.group(2));
                } else {
                    relations.remove(each.group(2));
                }
            }
        }
        return relations;
    }
}
