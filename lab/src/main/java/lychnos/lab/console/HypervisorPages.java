package lychnos.lab.console;

import io.vertx.core.json.JsonObject;
import java.util.Set;

/** The page of a Greenup host that says who may reach it, beside what its screen was told. */
final class HypervisorPages implements ServedPages.Pages {

    private static final Set<String> STATES = Set.of("on", "off");

    private final HypervisorHost host;
    private final Memory memory;

    HypervisorPages(HypervisorHost host) {
        this.host = host;
        this.memory = host.memory;
    }

    @Override
    public boolean admits(String user, String phrase) {
        boolean admitted =
                user.equals("root") && memory.has("saved") && memory.has("root") && phrase.equals(memory.get("root"));
        memory.add(admitted ? "seen.webLogins" : "seen.refusedWebLogins");
        return admitted;
    }

    @Override
    public JsonObject show(String resource) {
        return switch (resource) {
            case "/host" ->
                new JsonObject()
                        .put("serial", host.serial() + (host.spec.has(Habit.OTHER_PAGES) ? "-X" : ""))
                        .put("release", host.release("7.4"))
                        .put("time", host.clock());
            case "/access" ->
                new JsonObject()
                        .put("shell", kept("shell", "on"))
                        .put("ssh", kept("ssh", "on"))
                        .put("idle", kept("idle", "0"))
                        .put("lockDown", kept("lock-down", "off"))
                        .put("name", memory.get("Full name"))
                        .put("address", memory.get("IPv4 address"))
                        .put("router", memory.get("IPv4 router"))
                        .put("search", memory.get("Search list"))
                        .put("agents", "running");
            default -> null;
        };
    }

    private String kept(String name, String otherwise) {
        return memory.has(name) ? memory.get(name) : otherwise;
    }

    @Override
    public String take(String resource, JsonObject written) {
        if (!resource.equals("/access")) {
            return "nothing can be set there";
        }
        for (String switched : new String[] {"shell", "ssh", "lockDown"}) {
            if (!STATES.contains(written.getString(switched, ""))) {
                return switched + " is on or off";
            }
        }
        if (!written.getString("idle", "").matches("[0-9]{1,3}")) {
            return "idle is a number of minutes";
        }
        memory.put("shell", written.getString("shell"));
        memory.put("ssh", host.spec.has(Habit.PAGE_NOT_KEPT) ? "on" : written.getString("ssh"));
        memory.put("idle", written.getString("idle"));
        memory.put("lock-down", written.getString("lockDown"));
        host.sshAsSet();
        return null;
    }
}
