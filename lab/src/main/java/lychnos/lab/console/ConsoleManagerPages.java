package lychnos.lab.console;

import io.vertx.core.json.JsonObject;

/** The pages of a Dunmail manager: what its line was told, and when a session of somebody idle ends. */
final class ConsoleManagerPages implements ServedPages.Pages {

    private static final int SHORTEST_MINUTES = 5;

    private final ConsoleManager manager;
    private final Memory memory;

    ConsoleManagerPages(ConsoleManager manager) {
        this.manager = manager;
        this.memory = manager.memory;
    }

    @Override
    public boolean admits(String user, String phrase) {
        return manager.signsIn(user, phrase);
    }

    @Override
    public JsonObject show(String resource) {
        return switch (resource) {
            case "/this" ->
                new JsonObject()
                        .put("serial", manager.serial() + (manager.spec.has(Habit.OTHER_PAGES) ? "-X" : ""))
                        .put("software", manager.release("12.1"));
            case "/sessions" ->
                new JsonObject()
                        .put("idle", memory.has("idle") ? memory.get("idle") : "0")
                        .put("host", memory.get("host"))
                        .put("address", memory.get("address"))
                        .put("router", memory.get("router"))
                        .put("interfaces", manager.interfaces());
            default -> null;
        };
    }

    @Override
    public String take(String resource, JsonObject written) {
        if (!resource.equals("/sessions")) {
            return "nothing can be set there";
        }
        String idle = written.getString("idle", "");
        if (!idle.matches("[0-9]{1,3}") || Integer.parseInt(idle) < SHORTEST_MINUTES) {
            return "a session ends after " + SHORTEST_MINUTES + " minutes or later";
        }
        memory.put("idle", idle);
        return null;
    }
}
