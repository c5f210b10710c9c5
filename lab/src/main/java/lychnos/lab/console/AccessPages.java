package lychnos.lab.console;

import io.vertx.core.json.JsonArray;
import io.vertx.core.json.JsonObject;
import java.util.List;
import java.util.regex.Pattern;
import lychnos.lab.WebKey;

/**
 * The pages of a Rossett access appliance. A temporary key makes it work until its day; the permanent one is activated
 * at the maker's, by a proxy where one is set. A signed certificate replaces its own.
 */
final class AccessPages implements ServedPages.Pages {

    private static final String FACTORY = "wythburn";
    private static final String ACTIVATION = "activate.ardal.example:443";
    private static final Pattern TEMPORARY = Pattern.compile("T[0-9]-[A-Z0-9-]{4,20}");
    private static final Pattern PERMANENT = Pattern.compile("K[0-9]-[A-Z0-9-]{4,20}");
    private static final int SHORTEST_PASSWORD = 10;

    private final ConsoleSpec spec;
    private final Memory memory;
    private final ConsoleMachine machine;
    private final WebKey key;

    AccessPages(ConsoleMachine machine, WebKey key) {
        this.machine = machine;
        this.key = key;
        this.spec = machine.spec;
        this.memory = machine.memory;
    }

    @Override
    public boolean admits(String user, String phrase) {
        boolean admitted = user.equals("porter")
                && phrase.equals(memory.has("web password") ? memory.get("web password") : FACTORY);
        memory.add(admitted ? "seen.webLogins" : "seen.refusedWebLogins");
        return admitted;
    }

    @Override
    public JsonObject show(String resource) {
        return switch (resource) {
            case "/identity" ->
                new JsonObject()
                        .put("serial", spec.has(Habit.OTHER_PAGES) ? machine.serial() + "-X" : machine.serial())
                        .put("build", machine.release("7.2.1"))
                        .put("now", machine.clock());
            case "/secret" -> new JsonObject().put("who", "porter").put("secret", "");
            case "/bridge" ->
                kept(resource, new JsonObject().put("key", "").put("until", "").put("state", "none"));
            case "/proxy" ->
                kept(
                                resource,
                                new JsonObject()
                                        .put("host", "")
                                        .put("port", 0)
                                        .put("user", "")
                                        .put("way", "no way out"))
                        .copy()
                        .put("secret", "");
            case "/key" ->
                kept(
                        resource,
                        new JsonObject()
                                .put("subject", "")
                                .put("names", new JsonArray())
                                .put("request", ""));
            case "/certificate" -> new JsonObject().put("chain", "");
            case "/licence" -> kept(resource, new JsonObject().put("key", "").put("state", "none"));
            default -> null;
        };
    }

    private JsonObject kept(String resource, JsonObject empty) {
        return memory.has("page" + resource) ? new JsonObject(memory.get("page" + resource)) : empty;
    }

    @Override
    public String take(String resource, JsonObject written) {
        if (!memory.has("web password") && !resource.equals("/secret")) {
            return "the secret that it came with must be changed first";
        }
        if (spec.has(Habit.PAGE_REFUSED) && resource.equals("/licence")) {
            return "try that again later";
        }
        return switch (resource) {
            case "/secret" -> secret(written.getString("secret", ""));
            case "/bridge" -> bridge(written);
            case "/proxy" -> proxy(written);
            case "/licence" -> licence(written);
            case "/key" -> newKey(written);
            case "/certificate" -> certificate(written.getString("chain", ""));
            default -> "nothing can be set there";
        };
    }

    private String secret(String secret) {
        if (secret.length() < SHORTEST_PASSWORD) {
            return SHORTEST_PASSWORD + " characters at least";
        }
        if (!secret.equals(memory.get("web password"))) {
            memory.put("web password", secret);
            memory.add("seen.webPhraseChanges");
        }
        return null;
    }

    /** Makes a new key whenever a name is written there. */
    private String newKey(JsonObject written) {
        if (written.getString("subject", "").isEmpty()) {
            return "a request wants a name";
        }
        try {
            List<String> names = written.getJsonArray("names", new JsonArray()).stream()
                    .map(String::valueOf)
                    .toList();
            written.put("request", key.request(written.getString("subject"), names));
            memory.put("page/key", written.encode());
            return null;
        } catch (Exception e) {
            return "no request for that: " + e.getMessage();
        }
    }

    private String certificate(String chain) {
        try {
            return key.take(chain) ? null : "that answers no request of this machine";
        } catch (Exception e) {
            return "that is no certificate: " + e.getMessage();
        }
    }

    private String bridge(JsonObject written) {
        String key = written.getString("key", "");
        if (!key.isEmpty() && !TEMPORARY.matcher(key).matches()) {
            return "that is no temporary key";
        }
        written.put("state", key.isEmpty() ? "none" : "works until " + written.getString("until", ""));
        memory.put("page/bridge", written.encode());
        return null;
    }

    private String proxy(JsonObject written) {
        memory.put("proxy secret", written.getString("secret", ""));
        written.remove("secret");
        written.put("way", way(written));
        memory.put("page/proxy", written.encode());
        return null;
    }

    /** Whether the proxy lets it out to where keys are activated. */
    private String way(JsonObject proxy) {
        String host = proxy.getString("host", "");
        return host.isEmpty()
                ? "no way out"
                : WayOut.through(
                        host,
                        proxy.getInteger("port", 0),
                        proxy.getString("user", ""),
                        memory.get("proxy secret"),
                        ACTIVATION);
    }

    /** The temporary key stays to be seen, and counts no more. */
    private void replaceBridge() {
        JsonObject bridge = show("/bridge");
        if (!bridge.getString("key", "").isEmpty()) {
            memory.put("page/bridge", bridge.copy().put("state", "replaced").encode());
        }
    }

    /** Activates it on the spot; a temporary key that bridged the time is replaced then. */
    private String licence(JsonObject written) {
        if (!PERMANENT.matcher(written.getString("key", "")).matches()) {
            return "that is no permanent key";
        }
        String way = way(show("/proxy"));
        written.put("state", way.equals("let out") ? "activated" : "not activated: " + way);
        memory.put("page/licence", written.encode());
        if (way.equals("let out")) {
            replaceBridge();
        }
        return null;
    }
}
