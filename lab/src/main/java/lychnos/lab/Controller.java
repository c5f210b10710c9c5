package lychnos.lab;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import io.vertx.core.http.HttpMethod;
import io.vertx.core.http.HttpServerRequest;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.function.Consumer;

/**
 * The Redfish service of a stand-in (DMTF DSP0266): a small tree of resources, sessions, accounts and network settings,
 * with the quirks of its {@link MachineSpec}. Ids are unusual on purpose, so that only a client that follows links
 * finds its way.
 */
public final class Controller {

    public static final String FACTORY_USER = "keeper";
    public static final String FACTORY_PHRASE = "fellside";
    static final String ROOT = "/redfish/v1/";
    static final String SESSIONS = ROOT + "SessionService/Sessions";
    static final String ACCOUNTS = ROOT + "AccountService/Accounts";
    static final String ACCOUNT = ACCOUNTS + "/7";
    static final String MANAGER = ROOT + "Managers/lc";
    static final String PORTS = MANAGER + "/EthernetInterfaces";
    static final String OOB = PORTS + "/oob";
    static final String PROTOCOL = MANAGER + "/NetworkProtocol";
    static final String CERTIFICATES = ROOT + "CertificateService";
    static final String REQUEST_CERTIFICATE = CERTIFICATES + "/Actions/CertificateService.GenerateCSR";
    static final String REPLACE_CERTIFICATE = CERTIFICATES + "/Actions/CertificateService.ReplaceCertificate";
    static final String WEB_CERTIFICATES = PROTOCOL + "/HTTPS/Certificates";
    static final String WEB_CERTIFICATE = WEB_CERTIFICATES + "/web";
    static final String TASK = ROOT + "TaskService/Tasks/";
    private static final ObjectMapper JSON = new ObjectMapper();
    private static final int LARGEST_BODY = 64_000;
    /** Fewer than a client tries before it calls a person. */
    private static final int MOST_HUNG_UP = 2;

    private static final Duration UPDATE_AFTER = Duration.ofMinutes(1);

    private final MachineSpec spec;
    private final Consumer<String> move;
    private final Runnable changed;
    private final WebKey key;
    private final Resources resources;
    private final Map<String, String> sessions = new HashMap<>();
    private final Map<String, Instant> tasks = new HashMap<>();
    private String phrase;
    private int passwordChanges;
    private int refusedLogins;
    private int writes;
    private int hungUp;
    private int version = 1;
    private long ahead;
    private String firmware = "4.18.2";
    private boolean factoryToo;
    private Instant phraseAt;
    boolean dhcp = true;
    String address;
    String mask = "255.255.255.0";
    String gateway = "";
    String hostName = "lc-unset";
    String fqdn = "lc-unset";
    List<String> nameServers = List.of();
    List<String> timeServers = List.of();
    boolean ntp;
    /** The VLAN that its port is tagged with, 0 for untagged. */
    int vlan;
    /** Its fixed IPv6 address, or an empty text. */
    String address6 = "";

    int length6 = 64;
    String gateway6 = "";

    Controller(MachineSpec spec, WebKey key, Consumer<String> move, Runnable changed) {
        this.spec = spec;
        this.key = key;
        this.phrase = spec.phrase();
        this.move = move;
        this.changed = changed;
        this.address = spec.firstAddress();
        this.resources = new Resources(spec, this);
    }

    /** How often its password was changed. */
    public synchronized int passwordChanges() {
        return passwordChanges;
    }

    /** How many log-ins it refused. */
    public synchronized int refusedLogins() {
        return refusedLogins;
    }

    /** How many requests changed something on it, passwords included. */
    public synchronized int writes() {
        return writes;
    }

    /** The VLAN that its port is tagged with, 0 for untagged. */
    public synchronized int vlan() {
        return vlan;
    }

    /** Its fixed IPv6 address, or an empty text. */
    public synchronized String address6() {
        return address6;
    }

    /** Lets its clock run ahead of the true time by so many seconds. */
    public synchronized void setAhead(long seconds) {
        ahead = seconds;
    }

    synchronized long ahead() {
        return ahead;
    }

    /** Has another version from now on. */
    public synchronized void setFirmware(String version) {
        firmware = version;
    }

    synchronized String firmware() {
        boolean updated = spec.quirks().contains(Quirk.UPDATES_ITSELF)
                && phraseAt != null
                && Instant.now().isAfter(phraseAt.plus(UPDATE_AFTER));
        return updated ? "4.19.0" : firmware;
    }

    /** Takes the factory's password beside its own from now on, as after a reset of its accounts. */
    public synchronized void letFactoryIn() {
        factoryToo = true;
    }

    /** Sets its mask by hand, as somebody at the machine would. */
    public synchronized void setMask(String text) {
        mask = text;
    }

    /** Sets the password by hand, as somebody at the machine would. */
    public synchronized void setPhrase(String text) {
        phrase = text;
        sessions.clear();
    }

    /**
     * Whether a phrase would let its account in; for those who check the stand-in, not for those who test against it.
     */
    public synchronized boolean admits(String text) {
        return phrase.equals(text);
    }

    /** Sets it up at once as if somebody had done so: for halls in which everything is proven already. */
    public synchronized void preset(
            String newPhrase,
            String gatewayAddress,
            String host,
            String domain,
            List<String> names,
            List<String> times) {
        phrase = newPhrase;
        dhcp = false;
        gateway = gatewayAddress;
        hostName = host;
        fqdn = host + "." + domain;
        nameServers = names;
        timeServers = times;
        ntp = true;
    }

    /** What it does not forget while it has no power: everything but sessions and tasks. */
    synchronized ObjectNode kept() {
        ObjectNode kept = JSON.createObjectNode()
                .put("phrase", phrase)
                .put("phraseAt", phraseAt == null ? "" : phraseAt.toString())
                .put("passwordChanges", passwordChanges)
                .put("refusedLogins", refusedLogins)
                .put("writes", writes)
                .put("version", version)
                .put("dhcp", dhcp)
                .put("address", address)
                .put("mask", mask)
                .put("gateway", gateway)
                .put("hostName", hostName)
                .put("fqdn", fqdn)
                .put("ntp", ntp)
                .put("vlan", vlan)
                .put("address6", address6)
                .put("length6", length6)
                .put("gateway6", gateway6);
        nameServers.forEach(kept.putArray("nameServers")::add);
        timeServers.forEach(kept.putArray("timeServers")::add);
        return kept;
    }

    synchronized void recall(JsonNode kept) {
        phrase = kept.path("phrase").asText();
        phraseAt = kept.path("phraseAt").asText().isEmpty()
                ? null
                : Instant.parse(kept.path("phraseAt").asText());
        passwordChanges = kept.path("passwordChanges").asInt();
        refusedLogins = kept.path("refusedLogins").asInt();
        writes = kept.path("writes").asInt();
        version = kept.path("version").asInt();
        dhcp = kept.path("dhcp").asBoolean();
        address = kept.path("address").asText();
        mask = kept.path("mask").asText();
        gateway = kept.path("gateway").asText();
        hostName = kept.path("hostName").asText();
        fqdn = kept.path("fqdn").asText();
        ntp = kept.path("ntp").asBoolean();
        vlan = kept.path("vlan").asInt();
        address6 = kept.path("address6").asText();
        length6 = kept.path("length6").asInt(64);
        gateway6 = kept.path("gateway6").asText();
        nameServers = texts(kept.path("nameServers"));
        timeServers = texts(kept.path("timeServers"));
    }

    /** Whether the switch port it is plugged into carries its frames. */
    synchronized boolean carried() {
        return vlan == 0 || !spec.quirks().contains(Quirk.UNTAGGED_SWITCH_PORT);
    }

    void handle(HttpServerRequest request) {
        request.body().onSuccess(body -> {
            if (body.length() > LARGEST_BODY) {
                respond(request, Reply.error(413, "Base.1.18.RequestTooLarge", "Too large."));
                return;
            }
            Reply reply;
            try {
                JsonNode json = body.length() == 0 ? JSON.createObjectNode() : JSON.readTree(body.getBytes());
                reply = answer(request, json);
            } catch (java.io.IOException e) {
                reply = Reply.error(400, "Base.1.18.MalformedJSON", "The body is no JSON.");
            }
            respond(request, reply);
        });
    }

    private void respond(HttpServerRequest request, Reply reply) {
        if (reply.status() == Reply.HANG_UP) {
            request.connection().close();
            return;
        }
        var response = request.response().setStatusCode(reply.status()).putHeader("OData-Version", "4.0");
        reply.headers().forEach(response::putHeader);
        if (reply.body() == null) {
            response.end();
        } else {
            response.putHeader("Content-Type", "application/json")
                    .end(reply.body().toString());
        }
    }

    private synchronized Reply answer(HttpServerRequest request, JsonNode body) {
        String path = request.path().replaceFirst("(?<=.)/$", "");
        HttpMethod method = request.method();
        if (path.equals("/redfish") || path.equals("/redfish/v1")) {
            return method == HttpMethod.GET
                    ? Reply.ok(path.equals("/redfish") ? resources.versions() : resources.root())
                    : Reply.notAllowed();
        }
        boolean noSessions = spec.quirks().contains(Quirk.NO_SESSIONS);
        if (path.equals(SESSIONS) && method == HttpMethod.POST) {
            return noSessions ? Reply.notAllowed() : logIn(body);
        }
        String user = noSessions
                ? byRequest(request.getHeader("Authorization"))
                : sessions.get(request.getHeader("X-Auth-Token"));
        if (user == null) {
            return Reply.error(401, "Base.1.18.NoValidSession", "There is no valid session.");
        }
        if (method == HttpMethod.DELETE && path.startsWith(SESSIONS + "/")) {
            sessions.remove(request.getHeader("X-Auth-Token"));
            return Reply.empty(204);
        }
        if (spec.quirks().contains(Quirk.PASSWORD_CHANGE_REQUIRED)
                && phrase.equals(spec.phrase())
                && !path.equals(ACCOUNT)) {
            return Reply.error(403, "Base.1.18.PasswordChangeRequired", "The password must be changed first.", ACCOUNT);
        }
        if (path.equals(MANAGER) && spec.quirks().contains(Quirk.BUSY_AT_FIRST) && hungUp < MOST_HUNG_UP) {
            hungUp++;
            return new Reply(Reply.HANG_UP, Map.of(), null);
        }
        if (method == HttpMethod.GET) {
            return get(path);
        }
        if (method == HttpMethod.POST) {
            return act(path, body);
        }
        return method == HttpMethod.PATCH ? patch(path, body, request.getHeader("If-Match")) : Reply.notAllowed();
    }

    private Reply act(String path, JsonNode body) {
        if (spec.quirks().contains(Quirk.NO_CERTIFICATE_SERVICE)) {
            return Reply.notAllowed();
        }
        try {
            if (path.equals(REQUEST_CERTIFICATE)) {
                String name = body.path("CommonName").asText();
                if (name.isEmpty()
                        || !body.path("CertificateCollection")
                                .path("@odata.id")
                                .asText()
                                .equals(WEB_CERTIFICATES)) {
                    return Reply.error(
                            400,
                            "Base.1.18.ActionParameterMissing",
                            "A name and a collection are wanted.",
                            "CommonName",
                            "CertificateCollection");
                }
                ObjectNode made = JSON.createObjectNode()
                        .put("CSRString", key.request(name, texts(body.path("AlternativeNames"))));
                made.putObject("CertificateCollection").put("@odata.id", WEB_CERTIFICATES);
                return Reply.ok(made);
            }
            if (path.equals(REPLACE_CERTIFICATE)) {
                boolean known =
                        body.path("CertificateUri").path("@odata.id").asText().equals(WEB_CERTIFICATE)
                                && body.path("CertificateType").asText().equals("PEMchain");
                if (!known || !key.take(body.path("CertificateString").asText())) {
                    return Reply.error(
                            400,
                            "Base.1.18.PropertyValueError",
                            "That is no certificate for a request of mine.",
                            "CertificateString");
                }
                writes++;
                return Reply.empty(204);
            }
        } catch (Exception e) {
            return Reply.error(
                    400,
                    "Base.1.18.ActionParameterValueError",
                    "That cannot be read: " + e.getMessage(),
                    "CertificateString");
        }
        return Reply.notAllowed();
    }

    private boolean admits(String user, String given) {
        boolean second = (factoryToo || spec.quirks().contains(Quirk.KEEPS_FACTORY)) && given.equals(spec.phrase());
        boolean taken = user.equals(spec.user()) && (given.equals(phrase) || second);
        refusedLogins += taken ? 0 : 1;
        return taken;
    }

    /** Who asks, by a header of basic authentication (RFC 7617); null where nobody is told or the password is wrong. */
    private String byRequest(String header) {
        if (header == null || !header.startsWith("Basic ")) {
            return null;
        }
        String[] login = new String(
                        Base64.getDecoder().decode(header.substring("Basic ".length())), StandardCharsets.UTF_8)
                .split(":", 2);
        return login.length == 2 && admits(login[0], login[1]) ? login[0] : null;
    }

    private Reply logIn(JsonNode body) {
        String user = body.path("UserName").asText();
        if (!admits(user, body.path("Password").asText())) {
            return Reply.error(401, "Base.1.18.ResourceAtUriUnauthorized", "User or password is wrong.");
        }
        String token = UUID.randomUUID().toString();
        sessions.put(token, user);
        ObjectNode session =
                resources.node(SESSIONS + "/" + token.substring(0, 8), "#Session.v1_7_0.Session", "Session");
        if (spec.quirks().contains(Quirk.PASSWORD_CHANGE_REQUIRED) && phrase.equals(spec.phrase())) {
            session.set(
                    "@Message.ExtendedInfo",
                    Reply.message("Base.1.18.PasswordChangeRequired", "The password must be changed first.", ACCOUNT));
        }
        return Reply.created(session, token);
    }

    private Reply get(String path) {
        if (path.startsWith(TASK)) {
            return task(path.substring(TASK.length()));
        }
        ObjectNode found = resources.find(path);
        if (found == null) {
            return Reply.error(404, "Base.1.18.ResourceMissingAtURI", "Nothing is at " + path + ".");
        }
        return spec.quirks().contains(Quirk.NO_ETAG)
                ? Reply.ok(found)
                : Reply.ok(found).with("ETag", tag());
    }

    private Reply task(String id) {
        Instant end = tasks.get(id);
        if (end == null) {
            return Reply.error(404, "Base.1.18.ResourceMissingAtURI", "No such task.");
        }
        boolean done = Instant.now().isAfter(end);
        ObjectNode task = resources.node(TASK + id, "#Task.v1_7_3.Task", "Task " + id);
        task.put("TaskState", done ? "Completed" : "Running").put("TaskStatus", "OK");
        return done ? Reply.ok(task) : new Reply(202, Map.of("Location", TASK + id), task);
    }

    private String tag() {
        return (spec.quirks().contains(Quirk.WEAK_ETAG) ? "W/" : "") + "\"" + version + "\"";
    }

    private Reply patch(String path, JsonNode body, String ifMatch) {
        boolean writable = path.equals(ACCOUNT) || path.equals(OOB) || path.equals(PROTOCOL);
        if (!writable) {
            return resources.find(path) == null
                    ? Reply.error(404, "Base.1.18.ResourceMissingAtURI", "Nothing is there.")
                    : Reply.notAllowed();
        }
        if (spec.quirks().contains(Quirk.ETAG_REQUIRED) && ifMatch == null) {
            return Reply.error(428, "Base.1.18.PreconditionRequired", "If-Match is wanted.");
        }
        if (ifMatch != null
                && !ifMatch.equals("*")
                && !ifMatch.equals(tag())
                && !spec.quirks().contains(Quirk.NO_ETAG)) {
            return Reply.error(412, "Base.1.18.PreconditionFailed", "The resource has changed since.");
        }
        Reply reply = path.equals(ACCOUNT)
                ? patchAccount(body)
                : path.equals(PROTOCOL) ? patchProtocol(body) : patchPort(body);
        if (reply.status() < 300) {
            version++;
            writes++;
            changed.run();
        }
        return reply;
    }

    private Reply patchAccount(JsonNode body) {
        String next = body.path("Password").asText();
        if (next.length() < 12 || next.length() > 40) {
            return Reply.error(
                    400, "Base.1.18.PropertyValueFormatError", "A password has 12 to 40 characters.", "Password");
        }
        phrase = next;
        passwordChanges++;
        phraseAt = Instant.now();
        sessions.clear();
        return Reply.empty(204);
    }

    private Reply patchProtocol(JsonNode body) {
        if (spec.quirks().contains(Quirk.NO_TIME_SERVICE)) {
            return unknown("NTP");
        }
        JsonNode ntpNode = body.path("NTP");
        if (spec.quirks().contains(Quirk.FORGETS_TIME)) {
            ObjectNode shown = resources.protocol();
            shown.set(
                    "NTP@Message.ExtendedInfo",
                    Reply.message("Base.1.18.PropertyNotUpdated", "Not updated.", "NTPServers"));
            return Reply.ok(shown);
        }
        if (ntpNode.has("NTPServers")) {
            timeServers = texts(ntpNode.get("NTPServers"));
        }
        if (ntpNode.has("ProtocolEnabled")) {
            ntp = ntpNode.get("ProtocolEnabled").asBoolean();
        }
        return Reply.ok(resources.protocol());
    }

    private static Reply unknown(String property) {
        return Reply.error(
                400, "Base.1.18.PropertyUnknown", "The property " + property + " is not known here.", property);
    }

    private Reply patchPort(JsonNode body) {
        if (spec.quirks().contains(Quirk.NO_FULL_NAME) && body.has("FQDN")) {
            return unknown("FQDN");
        }
        JsonNode fixed = body.path("IPv4StaticAddresses").path(0);
        boolean staysDhcp = body.path("DHCPv4").path("DHCPEnabled").asBoolean(dhcp);
        if (fixed.isObject() && (staysDhcp || dhcp && spec.quirks().contains(Quirk.DHCP_FIRST))) {
            return Reply.error(
                    400,
                    "Base.1.18.PropertyValueConflict",
                    "A fixed address wants DHCP to be off.",
                    "IPv4StaticAddresses",
                    "DHCPv4");
        }
        if (fixed.isObject() && !fixed.path("Address").asText().matches("[0-9.]{7,15}")) {
            return Reply.error(400, "Base.1.18.PropertyValueFormatError", "That is no address.", "Address");
        }
        dhcp = staysDhcp;
        hostName = body.path("HostName").asText(hostName);
        fqdn = body.path("FQDN").asText(fqdn);
        if (body.has("StaticNameServers")) {
            nameServers = texts(body.get("StaticNameServers"));
        }
        JsonNode tag = body.path("VLAN");
        int before = vlan;
        if (tag.isObject() && !spec.quirks().contains(Quirk.NO_VLAN)) {
            vlan = tag.path("VLANEnable").asBoolean(vlan != 0)
                    ? tag.path("VLANId").asInt(vlan)
                    : 0;
        }
        String before6 = address6;
        patchIpv6(body);
        if (!fixed.isObject()) {
            return Reply.ok(resources.oob());
        }
        String old = address;
        address = fixed.path("Address").asText();
        mask = fixed.path("SubnetMask").asText(mask);
        gateway = fixed.path("Gateway").asText(gateway);
        if (!address.equals(old) || vlan != before || !address6.equals(before6)) {
            move.accept(address);
            if (spec.quirks().contains(Quirk.BACK_AT_OLD)) {
                address = old;
            }
            // frames that are tagged from now on never belong to the connection that asked for it
            if (spec.quirks().contains(Quirk.DIES_ON_MOVE) || vlan != before) {
                return new Reply(Reply.HANG_UP, Map.of(), null);
            }
        }
        if (spec.quirks().contains(Quirk.TASKS)) {
            String id = String.valueOf(tasks.size() + 1);
            tasks.put(id, Instant.now().plusMillis(80));
            return new Reply(202, Map.of("Location", TASK + id), null);
        }
        return Reply.ok(resources.oob());
    }

    private void patchIpv6(JsonNode body) {
        JsonNode fixed = body.path("IPv6StaticAddresses").path(0);
        if (fixed.isObject()) {
            address6 = fixed.path("Address").asText();
            length6 = fixed.path("PrefixLength").asInt(64);
        }
        JsonNode way = body.path("IPv6StaticDefaultGateways").path(0);
        if (way.isObject()) {
            gateway6 = way.path("Address").asText();
        }
    }

    private static List<String> texts(JsonNode array) {
        List<String> texts = new ArrayList<>();
        array.forEach(item -> {
            if (item.isTextual() && !item.asText().isEmpty()) {
                texts.add(item.asText());
            }
        });
        return List.copyOf(texts);
    }

    ArrayNode list(List<String> texts) {
        ArrayNode array = JSON.createArrayNode();
        texts.forEach(array::add);
        while (spec.quirks().contains(Quirk.PADDED_LISTS) && array.size() < 4) {
            array.add("");
        }
        return array;
    }
}
