package lychnos.lab;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import io.vertx.core.http.HttpMethod;
import io.vertx.core.http.HttpServerRequest;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
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
    private static final ObjectMapper JSON = new ObjectMapper();
    /** Fewer than a client tries before it calls a person. */
    private static final int MOST_HUNG_UP = 2;

    private static final Duration UPDATE_AFTER = Duration.ofMinutes(1);

    private final MachineSpec spec;
    private final Consumer<String> move;
    private final Runnable changed;
    private final CertificateActions certificates;
    private final Resources resources;
    private final Map<String, String> sessions = new HashMap<>();
    private final Tasks tasks = new Tasks();
    private String phrase;
    /** The one before it, unless that was the one of the factory; null for none. */
    private String former;

    private int passwordChanges;
    private int refusedLogins;
    private int writes;
    private int hungUp;
    private int version = 1;
    private long ahead;
    private String firmware = "4.18.2";
    private boolean factoryToo;
    private Instant phraseAt;
    private final PortSettings port;

    Controller(MachineSpec spec, WebKey key, Consumer<String> move, Runnable changed) {
        this.spec = spec;
        this.phrase = spec.phrase();
        this.move = move;
        this.changed = changed;
        this.port = new PortSettings(spec.firstAddress());
        this.certificates = new CertificateActions(key);
        this.resources = new Resources(spec, this, port);
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
        return port.vlan;
    }

    /** Its fixed IPv6 address, or an empty text. */
    public synchronized String address6() {
        return port.address6;
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
        port.mask = text;
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
        port.dhcp = false;
        port.gateway = gatewayAddress;
        port.hostName = host;
        port.fqdn = host + "." + domain;
        port.nameServers = names;
        port.timeServers = times;
        port.ntp = true;
    }

    /** What it does not forget while it has no power: everything but sessions and tasks. */
    synchronized ObjectNode kept() {
        ObjectNode kept = JSON.createObjectNode()
                .put("phrase", phrase)
                .put("phraseAt", phraseAt == null ? "" : phraseAt.toString())
                .put("passwordChanges", passwordChanges)
                .put("refusedLogins", refusedLogins)
                .put("writes", writes)
                .put("version", version);
        port.keep(kept);
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
        port.recall(kept);
    }

    /** Whether the switch port it is plugged into carries its frames. */
    synchronized boolean carried() {
        return port.vlan == 0 || !spec.quirks().contains(Quirk.UNTAGGED_SWITCH_PORT);
    }

    void handle(HttpServerRequest request) {
        JsonDoor.serve(request, body -> answer(request, body));
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
        if (path.equals(Paths.SESSIONS) && method == HttpMethod.POST) {
            return noSessions ? Reply.notAllowed() : logIn(body);
        }
        String user = noSessions
                ? byRequest(request.getHeader("Authorization"))
                : sessions.get(request.getHeader("X-Auth-Token"));
        if (user == null) {
            return Reply.error(401, "Base.1.18.NoValidSession", "There is no valid session.");
        }
        if (method == HttpMethod.DELETE && path.startsWith(Paths.SESSIONS + "/")) {
            sessions.remove(request.getHeader("X-Auth-Token"));
            return Reply.empty(204);
        }
        if (spec.quirks().contains(Quirk.PASSWORD_CHANGE_REQUIRED)
                && phrase.equals(spec.phrase())
                && !path.equals(Paths.ACCOUNT)) {
            return Reply.error(
                    403, "Base.1.18.PasswordChangeRequired", "The password must be changed first.", Paths.ACCOUNT);
        }
        if (path.equals(Paths.MANAGER) && spec.quirks().contains(Quirk.BUSY_AT_FIRST) && hungUp < MOST_HUNG_UP) {
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
        Reply reply = certificates.act(path, body);
        if (path.equals(Paths.REPLACE_CERTIFICATE) && reply.status() < 300) {
            writes++;
        }
        return reply;
    }

    private boolean admits(String user, String given) {
        boolean second = (factoryToo || spec.quirks().contains(Quirk.KEEPS_FACTORY)) && given.equals(spec.phrase());
        boolean before = spec.quirks().contains(Quirk.KEEPS_OLD) && given.equals(former);
        boolean taken = user.equals(spec.user()) && (given.equals(phrase) || second || before);
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
                resources.node(Paths.SESSIONS + "/" + token.substring(0, 8), "#Session.v1_7_0.Session", "Session");
        if (spec.quirks().contains(Quirk.PASSWORD_CHANGE_REQUIRED) && phrase.equals(spec.phrase())) {
            session.set(
                    "@Message.ExtendedInfo",
                    Reply.message(
                            "Base.1.18.PasswordChangeRequired", "The password must be changed first.", Paths.ACCOUNT));
        }
        return Reply.created(session, token);
    }

    private Reply get(String path) {
        if (path.startsWith(Paths.TASK)) {
            return tasks.shown(resources, path.substring(Paths.TASK.length()));
        }
        ObjectNode found = resources.find(path);
        if (found == null) {
            return Reply.error(404, "Base.1.18.ResourceMissingAtURI", "Nothing is at " + path + ".");
        }
        return spec.quirks().contains(Quirk.NO_ETAG)
                ? Reply.ok(found)
                : Reply.ok(found).with("ETag", tag());
    }

    private String tag() {
        return (spec.quirks().contains(Quirk.WEAK_ETAG) ? "W/" : "") + "\"" + version + "\"";
    }

    private Reply patch(String path, JsonNode body, String ifMatch) {
        boolean writable = path.equals(Paths.ACCOUNT) || path.equals(Paths.OOB) || path.equals(Paths.PROTOCOL);
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
        Reply reply = path.equals(Paths.ACCOUNT)
                ? patchAccount(body)
                : path.equals(Paths.PROTOCOL) ? patchProtocol(body) : patchPort(body);
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
        former = phrase.equals(spec.phrase()) ? null : phrase;
        phrase = next;
        passwordChanges++;
        phraseAt = Instant.now();
        sessions.clear();
        return former != null && spec.quirks().contains(Quirk.HANGS_UP_ON_NEW_PASSWORD)
                ? new Reply(Reply.HANG_UP, Map.of(), null)
                : Reply.empty(204);
    }

    private Reply patchProtocol(JsonNode body) {
        if (spec.quirks().contains(Quirk.NO_TIME_SERVICE)) {
            return Reply.unknownProperty("NTP");
        }
        if (spec.quirks().contains(Quirk.FORGETS_TIME)) {
            ObjectNode shown = resources.protocol();
            shown.set(
                    "NTP@Message.ExtendedInfo",
                    Reply.message("Base.1.18.PropertyNotUpdated", "Not updated.", "NTPServers"));
            return Reply.ok(shown);
        }
        port.patchTime(body.path("NTP"));
        return Reply.ok(resources.protocol());
    }

    /** Sets its network as a person does with a screen and a keyboard at the machine. */
    public synchronized void setAtScreen(String address, String mask, String gateway) {
        port.fix(address, mask, gateway);
        move.accept(address);
    }

    private Reply patchPort(JsonNode body) {
        if (spec.quirks().contains(Quirk.NO_FULL_NAME) && body.has("FQDN")) {
            return Reply.unknownProperty("FQDN");
        }
        JsonNode fixed = body.path("IPv4StaticAddresses").path(0);
        boolean staysDhcp = body.path("DHCPv4").path("DHCPEnabled").asBoolean(port.dhcp);
        if (fixed.isObject() && (staysDhcp || port.dhcp && spec.quirks().contains(Quirk.DHCP_FIRST))) {
            return Reply.error(
                    400,
                    "Base.1.18.PropertyValueConflict",
                    "A fixed port.address wants DHCP to be off.",
                    "IPv4StaticAddresses",
                    "DHCPv4");
        }
        if (fixed.isObject() && !fixed.path("Address").asText().matches("[0-9.]{7,15}")) {
            return Reply.error(400, "Base.1.18.PropertyValueFormatError", "That is no port.address.", "Address");
        }
        port.dhcp = staysDhcp;
        port.patchNames(body);
        int before = port.vlan;
        if (body.path("VLAN").isObject() && !spec.quirks().contains(Quirk.NO_VLAN)) {
            port.patchVlan(body.path("VLAN"));
        }
        String before6 = port.address6;
        port.patchIpv6(body);
        if (!fixed.isObject()) {
            return Reply.ok(resources.oob());
        }
        String old = port.address;
        port.patchFixed(fixed);
        if (!port.address.equals(old) || port.vlan != before || !port.address6.equals(before6)) {
            move.accept(port.address);
            if (spec.quirks().contains(Quirk.BACK_AT_OLD)) {
                port.address = old;
            }
            // frames that are tagged from now on never belong to the connection that asked for it
            if (spec.quirks().contains(Quirk.DIES_ON_MOVE) || port.vlan != before) {
                return new Reply(Reply.HANG_UP, Map.of(), null);
            }
        }
        if (spec.quirks().contains(Quirk.TASKS)) {
            return new Reply(202, Map.of("Location", Paths.TASK + tasks.begin()), null);
        }
        return Reply.ok(resources.oob());
    }
}
