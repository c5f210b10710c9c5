package lychnos.lab.console;

import io.vertx.core.json.JsonObject;
import java.util.Map;

/** What a Harrop appliance tells at its production address of what was entered at its service port. */
final class IndexPages implements ServedPages.Pages {

    /** By pointer without its slash, the label on the page of the service port. */
    private static final Map<String, String> LABELS = Map.of(
            "name", "Full name",
            "address", "Address/length",
            "router", "Router",
            "resolvers", "Resolvers",
            "clock", "Time source",
            "zone", "Time zone",
            "link", "Link");

    private static final Map<String, String> ALARMS =
            Map.of("to", "Alarms to", "from", "Alarms from", "relay", "Relay");

    private final IndexAppliance appliance;
    private final Memory memory;

    IndexPages(IndexAppliance appliance) {
        this.appliance = appliance;
        this.memory = appliance.memory;
    }

    @Override
    public boolean admits(String user, String phrase) {
        boolean admitted =
                memory.has("set") && user.equals(memory.get("Account")) && phrase.equals(memory.get("Password"));
        memory.add(admitted ? "seen.webLogins" : "seen.refusedWebLogins");
        return admitted;
    }

    @Override
    public JsonObject show(String resource) {
        return switch (resource) {
            case "/appliance" ->
                new JsonObject()
                        .put("serial", appliance.serial() + (appliance.spec.has(Habit.OTHER_PAGES) ? "-X" : ""))
                        .put("release", appliance.release("6.2.0"))
                        .put("time", appliance.clock());
            case "/settings" -> kept(LABELS).put("alarms", kept(ALARMS)).put("diagnostics", "pass");
            default -> null;
        };
    }

    private JsonObject kept(Map<String, String> labels) {
        JsonObject kept = new JsonObject();
        labels.forEach((name, label) -> kept.put(name, memory.get(label)));
        return kept;
    }

    @Override
    public String take(String resource, JsonObject written) {
        if (!resource.equals("/settings")) {
            return "nothing can be set there";
        }
        if (!written.getString("address", "").equals(memory.get("Address/length"))) {
            return "the address is set at the service port";
        }
        LABELS.forEach((name, label) -> memory.put(label, written.getString(name)));
        JsonObject alarms = written.getJsonObject("alarms");
        ALARMS.forEach((name, label) -> memory.put(label, alarms.getString(name)));
        return null;
    }
}
