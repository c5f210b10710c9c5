package lychnos.core.kind;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import lychnos.core.address.Address;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.LineSettings;
import lychnos.core.fact.DataSize;
import lychnos.core.fact.FactSpec;
import lychnos.core.fact.Secret;
import lychnos.core.fact.Version;
import lychnos.core.image.ImageFormat;
import lychnos.core.name.Hostname;
import org.snakeyaml.engine.v2.api.LoadSettings;
import org.snakeyaml.engine.v2.composer.Composer;
import org.snakeyaml.engine.v2.exceptions.MarkedYamlEngineException;
import org.snakeyaml.engine.v2.exceptions.YamlEngineException;
import org.snakeyaml.engine.v2.nodes.Node;

/**
 * Reads the YAML description of a kind. The text is only composed into nodes, never constructed into objects, so that
 * no tag can build anything. Its form is published as {@code kind.schema.json} beside the kinds.
 */
public final class KindReader {

    /** The purposes of networks that a need may name. */
    public static final List<String> PURPOSES =
            List.of("management", "storage-data", "tunnel", "in-band", "service-port");

    private static final Pattern DURATION = Pattern.compile("([1-9][0-9]{0,4}) (s|min)");
    private static final Pattern WORD = Pattern.compile("[a-z][a-z0-9-]{0,39}");

    /** A description is one page; more is a mistake or an attack. */
    private static final int MAX_LENGTH = 100_000;

    private static final int MAX_DEPTH = 12;

    private KindReader() {}

    /** Reads a kind that is shipped with the program. */
    public static Kind shipped(String id) {
        return read(resource("/kinds/" + id + ".yaml"));
    }

    /** The description of a shipped kind as it is written, to tell whether two programs have the same. */
    public static String asWritten(String id) {
        return resource("/kinds/" + id + ".yaml");
    }

    /** The ids of the kinds that are shipped, in the order in which they are offered. */
    public static List<String> shippedIds() {
        return resource("/kinds/index.txt")
                .lines()
                .filter(line -> !line.isBlank())
                .toList();
    }

    /** Every kind that is shipped, in the order in which they are offered. */
    public static List<Kind> allShipped() {
        return shippedIds().stream().map(KindReader::shipped).toList();
    }

    /** The published form of a description, a JSON Schema (draft 2020-12). */
    public static String schema() {
        return resource("/kinds/kind.schema.json");
    }

    private static String resource(String path) {
        return shippedText(path).orElseThrow(() -> new IllegalArgumentException(KindFaultText.NOT_SHIPPED.text(path)));
    }

    /** A text that is shipped with the program, if there is one. */
    static Optional<String> shippedText(String path) {
        try (InputStream stream = KindReader.class.getResourceAsStream(path)) {
            return stream == null
                    ? Optional.empty()
                    : Optional.of(new String(stream.readAllBytes(), StandardCharsets.UTF_8));
        } catch (IOException e) {
            throw new IllegalStateException(path + " cannot be read", e);
        }
    }

    /**
     * Reads a description.
     *
     * @throws KindFaults with every fault, each with its line and column
     */
    public static Kind read(String yaml) {
        if (yaml.length() > MAX_LENGTH) {
            throw new KindFaults(List.of(new KindFault(1, 1, "", KindFaultText.DESCRIPTION_TOO_LONG.text(MAX_LENGTH))));
        }
        List<KindFault> faults = new ArrayList<>();
        YamlPlace root = YamlPlace.root(compose(yaml), faults);
        Kind kind = new KindReader().kind(root);
        if (!faults.isEmpty()) {
            throw new KindFaults(faults);
        }
        return kind;
    }

    private static Node compose(String yaml) {
        try {
            LoadSettings settings = LoadSettings.builder()
                    .setMaxAliasesForCollections(5)
                    .setAllowDuplicateKeys(false)
                    .build();
            return new Composer(settings, new ShallowParser(settings, yaml, MAX_DEPTH))
                    .getSingleNode()
                    .orElseThrow(() ->
                            new KindFaults(List.of(new KindFault(1, 1, "", KindFaultText.DESCRIPTION_EMPTY.text()))));
        } catch (MarkedYamlEngineException e) {
            int line = e.getProblemMark().map(mark -> mark.getLine() + 1).orElse(1);
            int column = e.getProblemMark().map(mark -> mark.getColumn() + 1).orElse(1);
            throw new KindFaults(List.of(new KindFault(line, column, "", KindFaultText.NOT_YAML.text(e.getProblem()))));
        } catch (YamlEngineException e) {
            throw new KindFaults(
                    List.of(new KindFault(1, 1, "", KindFaultText.NOT_READABLE_YAML.text(e.getMessage()))));
        }
    }

    private Kind kind(YamlPlace root) {
        root.only(KindSchema.ROOT);
        Members members = members(root.at("members"));
        List<FactSpec> facts = FactSpecReader.facts(root.at("facts"));
        List<AddressPlan> addresses = AddressPlanReader.addresses(root.at("addresses"), members, facts);
        DialogueReader dialogues = new DialogueReader(facts, members, addresses);
        SetupWay way = setup(root.at("setup"));
        return new Kind(
                root.at("kind").read(KindReader::word, "none"),
                root.at("title").text(),
                root.at("short").read(KindReader::shortWord, "x"),
                root.at("about").text(),
                members,
                facts,
                new Kind.AtRack(root.at("bring").texts(), root.at("plug").text(""), rackChecks(root.at("rack"))),
                addresses,
                AddressPlanReader.names(root.at("names"), addresses),
                way,
                dialogue(root.at("dialogue"), dialogues, way, facts),
                machine(root.at("machine")),
                logins(root.at("factory")),
                KindChecksReader.read(root.at("checks"), dialogues, addresses),
                waits(root.at("waits").at("restart")),
                flows(root.at("flows")));
    }

    /** On a console without a description a person does the setup. */
    private static Optional<Dialogue> dialogue(
            YamlPlace place, DialogueReader dialogues, SetupWay way, List<FactSpec> facts) {
        if (place.there()) {
            return Optional.of(dialogues.read(place));
        }
        boolean console =
                way.by().equals("console") && facts.stream().anyMatch(fact -> Kind.LINES.contains(fact.name()));
        return console ? Optional.of(Dialogue.byHand(LineSettings.USUAL)) : Optional.empty();
    }

    private static List<Kind.RackCheck> rackChecks(YamlPlace place) {
        List<Kind.RackCheck> checks = new ArrayList<>();
        place.list().forEach(item -> {
            item.only("rack-check");
            Kind.RackCheck check = new Kind.RackCheck(
                    item.at("check").text(),
                    item.at("of").there() ? FactSpecReader.scope(item.at("of")) : FactSpec.Scope.UNIT,
                    item.at("late").yes(false));
            if (checks.stream().anyMatch(other -> other.text().equals(check.text()))) {
                item.at("check").fault(KindFaultText.CHECK_TWICE.text(check.text()));
            }
            checks.add(check);
        });
        return checks;
    }

    private static String word(String text) {
        if (!WORD.matcher(text).matches()) {
            throw new IllegalArgumentException(KindFaultText.NOT_A_WORD.text(text));
        }
        return text;
    }

    private static String shortWord(String text) {
        if (!text.matches("[a-z][a-z0-9]{0,7}")) {
            throw new IllegalArgumentException(KindFaultText.SHORT_WORD.text());
        }
        return text;
    }

    private static Members members(YamlPlace place) {
        if (!place.there()) {
            return Members.ONE;
        }
        place.only(place.at("labels").there() ? "labels" : "numbered");
        if (place.at("labels").there()) {
            List<String> labels = place.at("labels").texts();
            return new Members(labels, List.of(Math.max(1, labels.size())));
        }
        List<Integer> counts = place.at("counts").list().stream()
                .map(item -> item.number(1, 16, 1))
                .toList();
        if (counts.isEmpty()) {
            place.fault(KindFaultText.MEMBERS.text());
            return Members.ONE;
        }
        return Members.numbered(place.at("each").text(), counts);
    }

    static String purpose(String text) {
        if (!PURPOSES.contains(text)) {
            throw new IllegalArgumentException(KindFaultText.NOT_A_PURPOSE.text(text, String.join(", ", PURPOSES)));
        }
        return text;
    }

    private static SetupWay setup(YamlPlace place) {
        place.only("setup");
        String by = place.at("by")
                .read(
                        text -> {
                            if (!List.of("redfish", "console", "pages", "screen")
                                    .contains(text)) {
                                throw new IllegalArgumentException(KindFaultText.SETUP_WAY.text());
                            }
                            return text;
                        },
                        "console");
        String address = place.at("factory-address").there()
                ? place.at("factory-address").read(text -> Address.parse(text).toString(), null)
                : null;
        return new SetupWay(
                by,
                place.at("proxy").yes(true),
                place.at("way-round").text(""),
                place.at("internet").yes(false),
                address,
                place.at("dhcp-first").yes(false),
                place.at("laptop").there() && address != null
                        ? place.at("laptop").read(text -> laptop(text, Address.parse(address)), null)
                        : null,
                place.at("recover").text(""));
    }

    private static Laptop laptop(String text, Address machine) {
        int slash = text.indexOf('/');
        if (slash > 0 && text.substring(slash + 1).matches("[0-9]{1,3}")) {
            Laptop laptop =
                    new Laptop(Address.parse(text.substring(0, slash)), Integer.parseInt(text.substring(slash + 1)));
            if (laptop.reaches(machine) && !laptop.address().equals(machine)) {
                return laptop;
            }
        }
        throw new IllegalArgumentException(KindFaultText.LAPTOP.text(text, machine));
    }

    private static Optional<Kind.Machine> machine(YamlPlace place) {
        if (!place.there()) {
            return Optional.empty();
        }
        place.only("machine");
        DataSize one = new DataSize(1);
        return Optional.of(new Kind.Machine(
                place.at("cores").number(1, 512, 1),
                place.at("memory").read(DataSize::parse, one),
                place.at("disk").read(DataSize::parse, one),
                place.at("networks").list().stream()
                        .map(item -> item.read(KindReader::purpose, "management"))
                        .toList(),
                place.at("line").yes(false),
                image(place.at("image"))));
    }

    private static Kind.ImageNeeds image(YamlPlace place) {
        if (!place.there()) {
            return Kind.ImageNeeds.NONE;
        }
        place.only("image");
        return new Kind.ImageNeeds(
                place.at("formats").list().stream()
                        .map(item -> item.read(KindReader::imageFormat, ImageFormat.UNKNOWN))
                        .toList(),
                version(place.at("from")),
                version(place.at("host-from")));
    }

    private static ImageFormat imageFormat(String word) {
        return ImageFormat.named(word)
                .orElseThrow(() -> new IllegalArgumentException(KindFaultText.NOT_AN_IMAGE_FORMAT.text(
                        word,
                        ImageFormat.known().stream().map(ImageFormat::word).collect(Collectors.joining(", ")))));
    }

    private static String version(YamlPlace place) {
        return place.there() ? place.read(text -> Version.parse(text).text(), "") : "";
    }

    private static List<Kind.FactoryLogin> logins(YamlPlace place) {
        List<Kind.FactoryLogin> logins = new ArrayList<>();
        for (YamlPlace entry : place.isMap() ? List.of(place) : place.list()) {
            entry.only("login");
            String user = entry.at("user").text();
            String phrase = entry.at("phrase").text();
            logins.add(new Kind.FactoryLogin(
                    entry.at("way").text(), new Kind.Login(user, Secret.of(phrase.isEmpty() ? "?" : phrase))));
        }
        if (logins.isEmpty()) {
            place.fault(KindFaultText.NO_FACTORY_LOGIN.text());
        }
        return logins;
    }

    private static Kind.Waits waits(YamlPlace place) {
        Duration about = about(place);
        return new Kind.Waits(about, atMost(place, about));
    }

    /** How long something usually takes. */
    static Duration about(YamlPlace place) {
        return place.at("about").read(KindReader::duration, Duration.ofMinutes(1));
    }

    /** How long it takes at most. */
    static Duration atMost(YamlPlace place, Duration about) {
        Duration atMost = place.at("at-most").read(KindReader::duration, Duration.ofMinutes(10));
        if (atMost.compareTo(about) < 0) {
            place.at("at-most").fault(KindFaultText.TIMES_REVERSED.text());
        }
        return atMost;
    }

    static Duration duration(String text) {
        Matcher matcher = DURATION.matcher(text);
        if (!matcher.matches()) {
            throw new IllegalArgumentException(KindFaultText.NOT_A_TIME.text());
        }
        long amount = Long.parseLong(matcher.group(1));
        return matcher.group(2).equals("s") ? Duration.ofSeconds(amount) : Duration.ofMinutes(amount);
    }

    /** A time as it is written in a description. */
    static String text(Duration time) {
        return time.toSeconds() % 60 == 0 ? time.toMinutes() + " min" : time.toSeconds() + " s";
    }

    private static List<Kind.Flow> flows(YamlPlace place) {
        List<Kind.Flow> flows = new ArrayList<>();
        for (YamlPlace entry : place.list()) {
            entry.only("flow");
            flows.add(new Kind.Flow(
                    entry.at("from").text(),
                    entry.at("to").text(),
                    entry.at("port").read(KindReader::flowPort, ""),
                    entry.at("fallback").there() ? entry.at("fallback").read(KindReader::flowPort, "") : "",
                    entry.at("hosts").list().stream()
                            .map(host -> host.read(Hostname::requireDomain, ""))
                            .toList()));
        }
        return flows;
    }

    private static String flowPort(String text) {
        if (!text.matches("(tcp|udp) [1-9][0-9]{0,4}")) {
            throw new IllegalArgumentException(KindFaultText.FLOW_PORT.text());
        }
        return text;
    }
}
