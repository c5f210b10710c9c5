package lychnos.lab.console;

import io.vertx.core.json.JsonObject;
import java.util.regex.Pattern;

/** The pages of a Mungris controller: what is often left for later, its directory and its licence. */
final class WirelessPages implements ServedPages.Pages {

    private static final Pattern KEY = Pattern.compile("K[0-9]-[A-Z0-9-]{4,20}");

    private final WirelessController controller;
    private final Memory memory;

    WirelessPages(WirelessController controller) {
        this.controller = controller;
        this.memory = controller.memory;
    }

    @Override
    public boolean admits(String user, String phrase) {
        return controller.signsIn(user, phrase);
    }

    @Override
    public JsonObject show(String resource) {
        return switch (resource) {
            case "/identity" ->
                new JsonObject()
                        .put("serial", controller.serial() + (controller.spec.has(Habit.OTHER_PAGES) ? "-X" : ""));
            case "/directory" ->
                new JsonObject()
                        .put("server", memory.get("directory"))
                        .put("state", memory.has("directory") ? memory.get("directory state") : "none");
            case "/licence" ->
                new JsonObject()
                        .put("key", memory.get("key"))
                        .put("state", memory.has("key") ? "valid" : "none, runs without radios");
            default -> null;
        };
    }

    @Override
    public String take(String resource, JsonObject written) {
        return switch (resource) {
            case "/directory" -> directory(written.getString("server", ""));
            case "/licence" -> licence(written.getString("key", ""));
            default -> "nothing can be set there";
        };
    }

    /** Tries the directory with an account that no directory has: any answer will do. */
    private String directory(String server) {
        String own = memory.get("address").replaceFirst("/.*", "");
        LdapBind.Answer answer = LdapBind.ask(own, server, "-", "-");
        memory.put("directory", server);
        memory.put("directory state", answer == LdapBind.Answer.SILENT ? "silent" : "answers");
        return null;
    }

    private String licence(String key) {
        if (!KEY.matcher(key).matches()) {
            return "that is not a key";
        }
        memory.put("key", key);
        return null;
    }
}
