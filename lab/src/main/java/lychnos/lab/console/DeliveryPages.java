package lychnos.lab.console;

import io.vertx.core.json.JsonObject;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** The pages of an Ennerdale delivery node: a key says which features it has, and for how much traffic. */
final class DeliveryPages extends KeptPages {

    /** A key names the features by their first letters, and the limit in Mbit/s. */
    private static final Pattern KEY = Pattern.compile("EN-([a-z]{1,6})-(\\d{3,6})-[0-9A-F]{4}");

    DeliveryPages(ConsoleMachine machine) {
        super(machine, "drover", "gillerthwaite-web", "/node", "/drover");
    }

    @Override
    JsonObject fresh(String resource) {
        return resource.equals("/key")
                ? new JsonObject()
                        .put("key", "")
                        .put("features", "")
                        .put("limit", 0)
                        .put("state", "unlicensed")
                : null;
    }

    @Override
    String write(String resource, JsonObject written) {
        Matcher key = KEY.matcher(written.getString("key", ""));
        if (machine.spec.has(Habit.PAGE_REFUSED)) {
            return "the key server is busy";
        }
        if (!key.matches()) {
            return "that is no key";
        }
        written.put("features", key.group(1))
                .put("limit", Integer.parseInt(key.group(2)))
                .put("state", "licensed");
        return null;
    }
}
