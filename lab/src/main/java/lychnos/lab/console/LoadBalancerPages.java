package lychnos.lab.console;

import io.vertx.core.json.JsonObject;

/**
 * The pages of a Loweswater load balancer: its licence is asked for with a text of the machine's own, and comes back
 * from the maker's licence office as another text.
 */
final class LoadBalancerPages extends KeptPages {

    private final LicenceOffice office = new LicenceOffice("Loweswater");

    LoadBalancerPages(ConsoleMachine machine) {
        super(machine, "lakewarden", "holme-wood-7", "/unit", "/entry");
    }

    @Override
    JsonObject fresh(String resource) {
        return switch (resource) {
            case "/ask" -> new JsonObject().put("for", "").put("text", "");
            case "/licence" -> new JsonObject().put("text", "").put("limit", 0).put("state", "none");
            default -> null;
        };
    }

    @Override
    String write(String resource, JsonObject written) {
        return resource.equals("/ask") ? ask(written) : licence(written);
    }

    private String ask(JsonObject written) {
        if (written.getString("for", "").isEmpty()) {
            return "the licence office wants a name";
        }
        written.put("text", office.request(machine.serial(), written.getString("for")));
        return null;
    }

    private String licence(JsonObject written) {
        if (machine.spec.has(Habit.PAGE_REFUSED)) {
            return "try that again later";
        }
        String asked = show("/ask").getString("text", "");
        int limit = office.limit(asked, written.getString("text", ""));
        if (limit == 0) {
            return "that answers another request";
        }
        written.put("limit", limit).put("state", "licensed");
        return null;
    }
}
