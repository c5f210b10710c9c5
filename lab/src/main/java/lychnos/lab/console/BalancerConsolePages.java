package lychnos.lab.console;

import io.vertx.core.json.JsonObject;

/** The pages of a Crummock console for load balancers: the guide's password, and nothing else yet. */
final class BalancerConsolePages extends KeptPages {

    BalancerConsolePages(ConsoleMachine machine) {
        super(machine, "guide", "rannerdale-web", "/console", "/guide");
    }

    @Override
    JsonObject fresh(String resource) {
        return null;
    }

    @Override
    String write(String resource, JsonObject written) {
        return null;
    }
}
