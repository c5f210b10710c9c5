package lychnos.lab.console;

import io.vertx.core.json.JsonObject;

/**
 * The pages of a Rosthwaite fleet manager: its password, who of the maker may come in, and the word with which others
 * register. Who registers must follow the same clock.
 */
final class FleetPages extends KeptPages {

    /** The account of those that register. */
    static final String JOINER = "joiner";

    FleetPages(ConsoleMachine machine) {
        super(machine, "overseer", "rosthwaite", "/machine", "/overseer");
    }

    private String word() {
        return "beck-" + Integer.toHexString(machine.spec.serial().hashCode() & 0xffff);
    }

    @Override
    boolean alsoAdmits(String user, String phrase) {
        return user.equals(JOINER) && phrase.equals(word()) && memory.has("page/joining");
    }

    @Override
    JsonObject fresh(String resource) {
        return switch (resource) {
            case "/maker" -> new JsonObject().put("support", true).put("telemetry", true);
            case "/joining" -> new JsonObject().put("open", false).put("word", "");
            case "/members" -> new JsonObject().put("name", "").put("time", "");
            default -> null;
        };
    }

    @Override
    String write(String resource, JsonObject written) {
        if (resource.equals("/joining")) {
            written.put("word", word());
        } else if (resource.equals("/members") && !written.getString("time", "").equals(memory.get("time source"))) {
            return "its clock is another one";
        }
        return null;
    }
}
