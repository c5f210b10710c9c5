package lychnos.lab.console;

import io.vertx.core.json.JsonObject;

/**
 * The pages of an Ullscarf manager of clusters: it registers with a fleet manager, which must agree with it on the
 * time, and shows what that one lists.
 */
final class ClusterPages extends KeptPages {

    ClusterPages(ConsoleMachine machine) {
        super(machine, "reeve", "greenup-edge-web", "/node", "/reeve");
    }

    @Override
    JsonObject fresh(String resource) {
        return resource.equals("/fleet")
                ? new JsonObject()
                        .put("manager", "")
                        .put("word", "")
                        .put("earlier", earlier())
                        .put("link", "none")
                : null;
    }

    @Override
    String write(String resource, JsonObject written) throws InterruptedException {
        JsonObject before = show("/fleet");
        String wanted = written.getString("manager", "");
        boolean linked = before.getString("link").startsWith("linked");
        if (linked && !before.getString("manager").equals(wanted)) {
            return "it is registered with " + before.getString("manager");
        }
        JsonObject self = new JsonObject().put("name", memory.get("name")).put("time", memory.get("time"));
        String listed = FleetCall.register(wanted, written.getString("word", ""), self);
        written.put("earlier", earlier()).put("link", listed);
        return null;
    }
}
