package lychnos.core.kind;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import lychnos.core.fact.Secret;
import lychnos.core.name.NamePattern;
import org.snakeyaml.engine.v2.api.Load;
import org.snakeyaml.engine.v2.api.LoadSettings;
import org.snakeyaml.engine.v2.exceptions.YamlEngineException;

/** Reads the YAML description of a kind. Only plain maps, lists and scalars are read; tags that would build objects are not. */
public final class KindReader {

    private static final Pattern DURATION = Pattern.compile("([1-9][0-9]{0,4}) (s|min)");

    /** A description is one page; more is a mistake or an attack. */
    private static final int MAX_LENGTH = 100_000;

    private KindReader() {}

    /** Reads a kind that is shipped with the program. */
    public static Kind shipped(String id) {
        try (InputStream stream = KindReader.class.getResourceAsStream("/kinds/" + id + ".yaml")) {
            if (stream == null) {
                throw new IllegalArgumentException("No kind “" + id + "” is shipped.");
            }
            return read(new String(stream.readAllBytes(), StandardCharsets.UTF_8));
        } catch (IOException e) {
            throw new IllegalStateException("kind " + id + " cannot be read", e);
        }
    }

    /**
     * Reads a description.
     *
     * @throws IllegalArgumentException naming the key that is missing or wrong, or the line and column of a YAML fault
     */
    public static Kind read(String yaml) {
        if (yaml.length() > MAX_LENGTH) {
            throw new IllegalArgumentException("The description has more than " + MAX_LENGTH + " characters.");
        }
        Object document;
        try {
            document = new Load(LoadSettings.builder().setMaxAliasesForCollections(5).build()).loadFromString(yaml);
        } catch (YamlEngineException e) {
            throw new IllegalArgumentException("The description is no YAML: " + e.getMessage(), e);
        }
        Node root = new Node("", document);
        Node factory = root.node("factory");
        Node checks = root.node("checks");
        Node restart = root.node("waits").node("restart");
        return new Kind(
                root.text("kind"),
                root.text("title"),
                root.text("short"),
                root.text("about"),
                NamePattern.parse(root.node("names").text("unit")),
                new Kind.Login(factory.text("user"), Secret.of(factory.text("phrase"))),
                checks.port("port"),
                checks.ports("shut"),
                restart.duration("about"),
                restart.duration("at-most"));
    }

    /** A place in the document, with the path that leads to it for messages. */
    private record Node(String path, Object value) {

        private Object get(String key) {
            if (!(value instanceof Map<?, ?> map)) {
                throw new IllegalArgumentException((path.isEmpty() ? "The description" : path) + " must be a map.");
            }
            Object found = map.get(key);
            if (found == null) {
                throw new IllegalArgumentException(at(key) + " is missing.");
            }
            return found;
        }

        private String at(String key) {
            return path.isEmpty() ? key : path + "." + key;
        }

        Node node(String key) {
            return new Node(at(key), get(key));
        }

        String text(String key) {
            Object found = get(key);
            if (found instanceof String text && !text.isBlank()) {
                return text;
            }
            throw new IllegalArgumentException(at(key) + " must be a text.");
        }

        int port(String key) {
            return port(at(key), get(key));
        }

        private static int port(String where, Object found) {
            if (found instanceof Integer number && number >= 1 && number <= 65535) {
                return number;
            }
            throw new IllegalArgumentException(where + " must be a port, 1 to 65535.");
        }

        List<Integer> ports(String key) {
            if (!(get(key) instanceof List<?> list)) {
                throw new IllegalArgumentException(at(key) + " must be a list of ports.");
            }
            List<Integer> ports = new ArrayList<>();
            list.forEach(item -> ports.add(port(at(key), item)));
            return List.copyOf(ports);
        }

        Duration duration(String key) {
            Matcher matcher = DURATION.matcher(text(key));
            if (!matcher.matches()) {
                throw new IllegalArgumentException(at(key) + " must be a time such as 90 s or 3 min.");
            }
            long amount = Long.parseLong(matcher.group(1));
            return matcher.group(2).equals("s") ? Duration.ofSeconds(amount) : Duration.ofMinutes(amount);
        }
    }
}
