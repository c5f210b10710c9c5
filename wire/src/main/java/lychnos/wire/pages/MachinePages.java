package lychnos.wire.pages;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonPointer;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.StreamReadConstraints;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Base64;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import lychnos.core.address.Address;
import lychnos.core.dialogue.PageFill;
import lychnos.core.fact.Secret;
import lychnos.wire.fault.WireFault;
import lychnos.wire.fault.WireFault.Kind;
import lychnos.wire.fault.WireText;
import lychnos.wire.http.HttpAnswer;
import lychnos.wire.http.HttpCall;
import lychnos.wire.vantage.Vantage;

/**
 * The documented interface of a machine's own pages: JSON (RFC 8259) over HTTPS, each page a resource that is read with
 * GET and written with PUT (RFC 9110), log-in in each request (RFC 7617), refusals as problem details (RFC 9457).
 * Blocks; for one thread.
 */
public final class MachinePages {

    private static final Duration REQUEST = Duration.ofSeconds(15);
    private static final Pattern PLACE =
            Pattern.compile("https://(\\[[0-9a-fA-F:]+]|[0-9.]+)(?::([0-9]{1,5}))?(/[\\x21-\\x7e]*)?");
    private static final int HTTPS = 443;
    private static final int DEEPEST = 12;
    /** The most characters of a text that are taken. */
    public static final int LONGEST_TEXT = 200_000;

    private static final int MOST_TEXTS = 500;
    private static final ObjectMapper JSON = JsonMapper.builder(JsonFactory.builder()
                    .streamReadConstraints(StreamReadConstraints.builder()
                            .maxNestingDepth(DEEPEST)
                            .build())
                    .build())
            .build();

    private final Vantage vantage;
    private final Address address;
    private final int port;
    private final String root;
    private String pin;

    /**
     * @param place where the resources begin, such as {@code https://10.40.8.20/open}; always an address, never a name
     * @param usualPort the port where the place names none, if that is another than 443
     * @throws IllegalArgumentException for a place that is none
     */
    public MachinePages(Vantage vantage, String place, int usualPort) {
        Matcher matcher = PLACE.matcher(place);
        if (!matcher.matches()) {
            throw new IllegalArgumentException(WireText.NOT_A_PLACE.text(place));
        }
        this.vantage = vantage;
        this.address = Address.parse(matcher.group(1).replaceAll("[\\[\\]]", ""));
        this.port = matcher.group(2) == null ? usualPort == 0 ? HTTPS : usualPort : Integer.parseInt(matcher.group(2));
        this.root = matcher.group(3) == null ? "" : matcher.group(3).replaceFirst("/$", "");
    }

    /** What a request logs in with. */
    public record Login(String user, Secret phrase) {}

    /** Where it is, for remembering its certificate. */
    public String peer() {
        return "https://" + address + ":" + port;
    }

    /**
     * The same for a place that is not asked anything now.
     *
     * @throws IllegalArgumentException for a place that is none
     */
    public static String peer(String place, int usualPort) {
        return new MachinePages(null, place, usualPort).peer();
    }

    /**
     * Looks at the certificate, and sends nothing. Every exchange after that goes to this certificate or not at all, so
     * that its caller compares it with the remembered one first.
     *
     * @return its fingerprint
     */
    public String see() throws WireFault {
        pin = vantage.tls(address, port, REQUEST).fingerprint();
        return pin;
    }

    /**
     * What a resource shows: its texts, numbers and switches by their places (RFC 6901).
     *
     * @throws PageFault with status 401 where the log-in is refused
     */
    public Map<String, String> read(String resource, Login login) throws WireFault, PageFault {
        return flat(json(exchange("GET", resource, login, null)));
    }

    /**
     * What a resource shows, as it is sent; at most {@value #LONGEST_TEXT} characters of it.
     *
     * @throws PageFault with status 401 where the log-in is refused
     */
    public String text(String resource, Login login) throws WireFault, PageFault {
        String text = new String(exchange("GET", resource, login, null).body(), StandardCharsets.UTF_8);
        return text.length() > LONGEST_TEXT ? text.substring(0, LONGEST_TEXT) : text;
    }

    /**
     * Writes a resource. Numbers and switches are written in the type of the current value; everything else as text.
     */
    public void write(String resource, Login login, PageFill.Entry entry) throws WireFault, PageFault {
        JsonNode now = json(exchange("GET", resource, login, null));
        JsonNode body = now.isObject() ? now.deepCopy() : JSON.createObjectNode();
        entry.texts().forEach((at, text) -> put(body, JsonPointer.compile(at), value(now.at(at), text)));
        for (Map.Entry<String, Secret> secret : entry.secrets().entrySet()) {
            secret.getValue().use(text -> {
                put(body, JsonPointer.compile(secret.getKey()), JsonNodeFactory.instance.textNode(text));
                return null;
            });
        }
        try {
            exchange("PUT", resource, login, JSON.writeValueAsBytes(body));
        } catch (JsonProcessingException e) {
            throw new IllegalStateException("a tree can be written", e);
        }
    }

    private static JsonNode value(JsonNode now, String text) {
        JsonNodeFactory make = JsonNodeFactory.instance;
        if (now.isBoolean()) {
            return make.booleanNode(text.equals("yes") || text.equals("true"));
        }
        return now.isNumber() && text.matches("-?[0-9]{1,18}")
                ? make.numberNode(Long.parseLong(text))
                : make.textNode(text);
    }

    /** Puts a value at a place, making what leads there. */
    private static void put(JsonNode tree, JsonPointer at, JsonNode value) {
        JsonNode parent = tree;
        JsonPointer rest = at;
        while (!rest.tail().matches()) {
            JsonNode next = parent.path(rest.getMatchingProperty());
            if (parent instanceof ArrayNode array && rest.mayMatchElement()) {
                next = array.path(rest.getMatchingIndex());
            }
            if (!next.isContainerNode()) {
                next = rest.tail().mayMatchElement() ? JSON.createArrayNode() : JSON.createObjectNode();
                set(parent, rest, next);
            }
            parent = next;
            rest = rest.tail();
        }
        set(parent, rest, value);
    }

    private static void set(JsonNode parent, JsonPointer last, JsonNode value) {
        if (parent instanceof ArrayNode array) {
            while (array.size() <= last.getMatchingIndex() && array.size() < MOST_TEXTS) {
                array.addNull();
            }
            array.set(last.getMatchingIndex(), value);
        } else {
            ((ObjectNode) parent).set(last.getMatchingProperty(), value);
        }
    }

    private static Map<String, String> flat(JsonNode json) throws WireFault {
        Map<String, String> texts = new LinkedHashMap<>();
        flatten("", json, texts);
        if (texts.size() > MOST_TEXTS) {
            throw new WireFault(Kind.GARBAGE, WireText.RESOURCE_TOO_LARGE.text(MOST_TEXTS));
        }
        return texts;
    }

    private static void flatten(String at, JsonNode json, Map<String, String> texts) {
        if (json.isObject()) {
            json.fields()
                    .forEachRemaining(field -> flatten(
                            at + "/" + field.getKey().replace("~", "~0").replace("/", "~1"), field.getValue(), texts));
        } else if (json.isArray()) {
            for (int i = 0; i < json.size() && texts.size() <= MOST_TEXTS; i++) {
                flatten(at + "/" + i, json.get(i), texts);
            }
        } else if (!json.isNull()) {
            texts.put(at, json.asText());
        }
    }

    private HttpAnswer exchange(String method, String resource, Login login, byte[] body) throws WireFault, PageFault {
        Map<String, String> headers = new HashMap<>(Map.of("Accept", "application/json"));
        if (body != null) {
            headers.put("Content-Type", "application/json");
        }
        headers.put(
                "Authorization",
                login.phrase.use(phrase -> "Basic "
                        + Base64.getEncoder()
                                .encodeToString((login.user + ":" + phrase).getBytes(StandardCharsets.UTF_8))));
        if (pin == null) {
            throw new IllegalStateException("nothing is sent before the certificate is checked");
        }
        HttpAnswer answer =
                vantage.http(new HttpCall(address, port, method, root + resource, headers, body, pin, REQUEST));
        if (answer.status() >= 300) {
            JsonNode problem = parse(answer);
            String says = problem.path("detail").asText(problem.path("title").asText(""));
            throw new PageFault(answer.status(), says.isBlank() ? WireText.HTTP_STATUS.text(answer.status()) : says);
        }
        return answer;
    }

    private static JsonNode json(HttpAnswer answer) throws WireFault {
        JsonNode json = parse(answer);
        if (!json.isObject()) {
            throw new WireFault(Kind.GARBAGE, WireText.NOT_A_JSON_OBJECT.text(answer.status()));
        }
        return json;
    }

    /** What was answered; nothing where that is no JSON. */
    private static JsonNode parse(HttpAnswer answer) {
        try {
            JsonNode json = JSON.readTree(answer.body());
            return json == null ? JsonNodeFactory.instance.missingNode() : json;
        } catch (IOException e) {
            return JsonNodeFactory.instance.missingNode();
        }
    }
}
