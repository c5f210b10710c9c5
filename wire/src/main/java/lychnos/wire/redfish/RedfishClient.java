package lychnos.wire.redfish;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.StreamReadConstraints;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import lychnos.core.address.Address;
import lychnos.core.fact.Secret;
import lychnos.wire.fault.WireFault;
import lychnos.wire.fault.WireFault.Kind;
import lychnos.wire.fault.WireText;
import lychnos.wire.http.HttpAnswer;
import lychnos.wire.http.HttpCall;
import lychnos.wire.time.TimeLeft;
import lychnos.wire.vantage.Vantage;

/**
 * One session with a Redfish service (DMTF DSP0266): follows links and never builds ids, keeps entity tags, waits for
 * tasks. Links that lead anywhere but into the service's own tree are refused. Blocks; for one thread.
 */
public final class RedfishClient implements AutoCloseable {

    private static final Duration REQUEST = Duration.ofSeconds(10);
    private static final Duration TASK = Duration.ofSeconds(60);
    private static final long TASK_PAUSE_MILLIS = 200;
    private static final int DEEPEST = 40;
    private static final int MOST_MEMBERS = 64;
    private static final ObjectMapper JSON = JsonMapper.builder(JsonFactory.builder()
                    .streamReadConstraints(StreamReadConstraints.builder()
                            .maxNestingDepth(DEEPEST)
                            .build())
                    .build())
            .build();

    private final Vantage vantage;
    private final Address address;
    private final int port;
    private String pin;
    private String token;
    private String session;
    /** The log-in that goes with each request, where the service has no sessions. */
    private String basic;

    /** @param pin fingerprint of the certificate that must be shown, or null to keep the first one for this session */
    public RedfishClient(Vantage vantage, Address address, int port, String pin) {
        this.vantage = vantage;
        this.address = address;
        this.port = port;
        this.pin = pin;
    }

    public Address address() {
        return address;
    }

    /** The certificate's fingerprint, once there was an exchange. */
    public String fingerprint() {
        return pin;
    }

    /** The service root (DSP0266 section 6.1): needs no session. */
    public Resource root() throws WireFault, RedfishFault {
        Resource root = get("/redfish/v1/");
        if (!root.json().has("RedfishVersion")) {
            throw new WireFault(Kind.GARBAGE, WireText.NO_SERVICE_ROOT.text());
        }
        return root;
    }

    /**
     * Logs in by creating a session; where the service has no sessions, with the log-in in each request (basic
     * authentication, RFC 7617; DSP0266 asks for both).
     *
     * @return the account to change first, where the service says that the password must be changed
     * @throws RedfishFault with status 401 or 403 if the log-in is refused
     */
    public Optional<String> logIn(String user, Secret phrase) throws WireFault, RedfishFault {
        Resource root = root();
        if (root.json()
                .path("Links")
                .path("Sessions")
                .path("@odata.id")
                .asText()
                .isEmpty()) {
            return logInByEachRequest(root, user, phrase);
        }
        String sessions = link(root.json().path("Links").path("Sessions"));
        byte[] body = phrase.use(
                text -> bytes(JSON.createObjectNode().put("UserName", user).put("Password", text)));
        HttpAnswer answer = exchange("POST", sessions, body, Map.of());
        JsonNode json = json(answer);
        refuse(answer, json);
        token = answer.header("x-auth-token")
                .orElseThrow(() -> new WireFault(Kind.GARBAGE, WireText.NO_SESSION_TOKEN.text()));
        session = answer.header("location")
                .map(location -> location.replaceFirst("^https?://[^/]+", ""))
                .orElse(json.path("@odata.id").asText());
        for (JsonNode message : json.path("@Message.ExtendedInfo")) {
            if (message.path("MessageId").asText().endsWith("PasswordChangeRequired")) {
                return Optional.of(inside(message.path("MessageArgs").path(0).asText()));
            }
        }
        return Optional.empty();
    }

    /** Whether the log-in is taken shows at the first thing that needs one. */
    private Optional<String> logInByEachRequest(Resource root, String user, Secret phrase)
            throws WireFault, RedfishFault {
        basic = phrase.use(text ->
                "Basic " + Base64.getEncoder().encodeToString((user + ':' + text).getBytes(StandardCharsets.UTF_8)));
        try {
            follow(root.json().path("Managers"));
            return Optional.empty();
        } catch (RedfishFault e) {
            if (e.is("PasswordChangeRequired") && !e.arguments().isEmpty()) {
                return Optional.of(inside(e.arguments().get(0)));
            }
            basic = null;
            throw e;
        }
    }

    public boolean loggedIn() {
        return token != null || basic != null;
    }

    /** Reads a resource. */
    public Resource get(String path) throws WireFault, RedfishFault {
        HttpAnswer answer = exchange("GET", path, null, Map.of());
        JsonNode json = json(answer);
        refuse(answer, json);
        if (!json.isObject()) {
            throw new WireFault(Kind.GARBAGE, WireText.PATH_NOT_JSON.text(path));
        }
        return new Resource(path, json, answer.header("etag").orElse(null));
    }

    /** Reads the resource that a property links to. */
    public Resource follow(JsonNode property) throws WireFault, RedfishFault {
        return get(link(property));
    }

    /** Reads all members of the collection that a property links to. */
    public List<Resource> members(JsonNode property) throws WireFault, RedfishFault {
        List<Resource> members = new ArrayList<>();
        for (JsonNode member : follow(property).json().path("Members")) {
            if (members.size() >= MOST_MEMBERS) {
                throw new WireFault(Kind.GARBAGE, WireText.COLLECTION_TOO_LARGE.text(MOST_MEMBERS));
            }
            members.add(follow(member));
        }
        return members;
    }

    /**
     * Changes a resource. Sends its entity tag where it has one; reads it again once when it has changed meanwhile
     * (412);
     * waits for the task where the service answers with one (202).
     *
     * @return what the service warns of: properties that it did not take
     */
    public List<String> patch(Resource resource, ObjectNode change) throws WireFault, RedfishFault {
        HttpAnswer answer = send(resource.path(), resource.etag(), change);
        if (answer.status() == 412) {
            answer = send(resource.path(), get(resource.path()).etag(), change);
        } else if (answer.status() == 428) {
            answer = send(resource.path(), "*", change);
        }
        JsonNode json = json(answer);
        refuse(answer, json);
        if (answer.status() == 202) {
            Optional<String> monitor =
                    answer.header("location").map(location -> location.replaceFirst("^https?://[^/]+", ""));
            if (monitor.isPresent()) {
                awaitAccepted(inside(monitor.get()));
            }
        }
        return warnings(json);
    }

    /** Carries out an action (DSP0266, section 7.10) at the place that its resource gives for it. */
    public JsonNode act(JsonNode action, ObjectNode parameters) throws WireFault, RedfishFault {
        String target = action.path("target").asText();
        if (target.isEmpty()) {
            throw new WireFault(Kind.GARBAGE, WireText.ACTION_WITHOUT_TARGET.text());
        }
        HttpAnswer answer = exchange("POST", inside(target), bytes(parameters), Map.of());
        JsonNode json = json(answer);
        refuse(answer, json);
        return json;
    }

    private HttpAnswer send(String path, String etag, ObjectNode change) throws WireFault {
        return exchange("PATCH", path, bytes(change), etag == null ? Map.of() : Map.of("If-Match", etag));
    }

    /** The change was accepted: from here on a lost machine means an unknown outcome, not that nothing was sent. */
    private void awaitAccepted(String monitor) throws WireFault, RedfishFault {
        try {
            await(monitor);
        } catch (WireFault e) {
            throw e.passing() ? new WireFault(Kind.UNKNOWN_OUTCOME, WireText.LOST_IN_TASK.text(), e) : e;
        }
    }

    private void await(String monitor) throws WireFault, RedfishFault {
        TimeLeft left = TimeLeft.of(TASK);
        while (!left.over()) {
            HttpAnswer answer = exchange("GET", monitor, null, Map.of());
            JsonNode json = json(answer);
            refuse(answer, json);
            if (answer.status() != 202) {
                String state = json.path("TaskState").asText("Completed");
                if (!state.equals("Completed")) {
                    throw new RedfishFault(answer.status(), "", List.of(), WireText.TASK_ENDED_AS.text(state));
                }
                return;
            }
            try {
                Thread.sleep(TASK_PAUSE_MILLIS);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                break;
            }
        }
        throw new WireFault(Kind.UNKNOWN_OUTCOME, WireText.TASK_TOO_LONG.text(TASK.toSeconds()));
    }

    private static List<String> warnings(JsonNode json) {
        List<String> warnings = new ArrayList<>();
        json.fields().forEachRemaining(field -> {
            if (field.getKey().endsWith("@Message.ExtendedInfo")) {
                field.getValue().forEach(message -> {
                    if (!message.path("MessageId").asText().endsWith("Success")) {
                        warnings.add(field.getKey().replace("@Message.ExtendedInfo", "") + ": "
                                + message.path("Message").asText());
                    }
                });
            }
        });
        return warnings;
    }

    /** Ends the session. A service that is gone has ended it itself. */
    @Override
    public void close() {
        if (token == null || session == null || session.isEmpty()) {
            return;
        }
        try {
            exchange("DELETE", inside(session), null, Map.of());
        } catch (WireFault e) {
            // nothing is lost: sessions end by themselves, and the caller has what it came for
        }
        token = null;
    }

    private HttpAnswer exchange(String method, String path, byte[] body, Map<String, String> more) throws WireFault {
        Map<String, String> headers = new HashMap<>(more);
        headers.put("Accept", "application/json");
        headers.put("OData-Version", "4.0");
        if (body != null) {
            headers.put("Content-Type", "application/json");
        }
        if (token != null) {
            headers.put("X-Auth-Token", token);
        } else if (basic != null) {
            headers.put("Authorization", basic);
        }
        HttpAnswer answer = vantage.http(new HttpCall(address, port, method, path, headers, body, pin, REQUEST));
        pin = answer.fingerprint();
        return answer;
    }

    private static byte[] bytes(ObjectNode json) {
        try {
            return JSON.writeValueAsBytes(json);
        } catch (JsonProcessingException e) {
            throw new IllegalStateException("a tree can be written", e);
        }
    }

    private static JsonNode json(HttpAnswer answer) throws WireFault {
        if (answer.body().length == 0) {
            return JSON.createObjectNode();
        }
        try {
            return JSON.readTree(answer.body());
        } catch (IOException e) {
            throw new WireFault(Kind.GARBAGE, WireText.ANSWER_NOT_JSON.text(answer.status()));
        }
    }

    private static void refuse(HttpAnswer answer, JsonNode json) throws RedfishFault {
        if (answer.status() < 300) {
            return;
        }
        JsonNode message = json.path("error").path("@Message.ExtendedInfo").path(0);
        List<String> arguments = new ArrayList<>();
        message.path("MessageArgs").forEach(argument -> arguments.add(argument.asText()));
        String text = message.path("Message")
                .asText(json.path("error").path("message").asText(""));
        throw new RedfishFault(
                answer.status(),
                message.path("MessageId").asText(""),
                arguments,
                properties(json.path("error").path("@Message.ExtendedInfo")),
                ("HTTP " + answer.status() + " " + text).strip());
    }

    /**
     * A related property is given as a JSON pointer, with or without a number sign before it: {@code #/NTP/NTPServers}.
     */
    private static Set<String> properties(JsonNode messages) {
        Set<String> names = new LinkedHashSet<>();
        for (JsonNode message : messages) {
            message.path("MessageArgs").forEach(argument -> names.add(argument.asText()));
            message.path("RelatedProperties")
                    .forEach(pointer -> names.add(pointer.asText().replaceFirst("^#?/?([^/]*).*$", "$1")));
        }
        return names;
    }

    private static String link(JsonNode property) throws WireFault {
        String path = property.path("@odata.id").asText();
        if (path.isEmpty()) {
            throw new WireFault(Kind.GARBAGE, WireText.LINK_MISSING.text());
        }
        return inside(path);
    }

    /** A link must stay on this machine and inside its service. */
    private static String inside(String path) throws WireFault {
        if (!path.matches("/redfish/[\\x21-\\x7e]{1,400}") || path.contains("..")) {
            throw new WireFault(Kind.GARBAGE, WireText.LINK_LEADS_OUT.text());
        }
        return path;
    }
}
