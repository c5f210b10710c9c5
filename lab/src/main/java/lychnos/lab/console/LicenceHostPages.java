package lychnos.lab.console;

import io.vertx.core.json.JsonObject;
import java.util.regex.Pattern;

/**
 * The pages of a Buttermere licence host: it is registered with a text and its answer, takes authority over an account
 * with a restart, and counts its licences each day.
 */
final class LicenceHostPages extends KeptPages {

    private static final Pattern TIME = Pattern.compile("([01]\\d|2[0-3]):[0-5]\\d");

    private final LicenceOffice office = new LicenceOffice("Buttermere");

    LicenceHostPages(ConsoleMachine machine) {
        super(machine, "bookkeeper", "warnscale-web", "/host", "/bookkeeper");
    }

    @Override
    JsonObject fresh(String resource) {
        return switch (resource) {
            case "/request" ->
                new JsonObject()
                        .put("account", "")
                        .put("share", "")
                        .put("earlier", earlier())
                        .put("text", "");
            case "/registration" ->
                new JsonObject().put("text", "").put("licences", 0).put("state", "not registered");
            case "/authority" -> new JsonObject().put("account", "").put("state", "none");
            case "/count" -> new JsonObject().put("daily", "").put("last", "never");
            default -> null;
        };
    }

    @Override
    String write(String resource, JsonObject written) {
        return switch (resource) {
            case "/request" -> request(written);
            case "/registration" -> registration(written);
            case "/authority" -> authority(written);
            default -> count(written);
        };
    }

    private String request(JsonObject written) {
        String account = written.getString("account", "");
        if (account.isEmpty() || written.getString("share", "").isEmpty()) {
            return "an account and a share are wanted";
        }
        boolean registered = show("/registration").getString("state").equals("registered");
        if (registered && !account.equals(show("/request").getString("account"))) {
            return "it is registered for " + show("/request").getString("account");
        }
        written.put("earlier", earlier())
                .put("text", office.request(machine.serial(), account + "/" + written.getString("share")));
        return null;
    }

    private String registration(JsonObject written) {
        int licences = office.limit(show("/request").getString("text", ""), written.getString("text", ""));
        if (licences == 0) {
            return "that answers another request";
        }
        written.put("licences", licences).put("state", "registered");
        return null;
    }

    private String authority(JsonObject written) {
        if (!show("/registration").getString("state").equals("registered")) {
            return "it is not registered";
        }
        if (!written.getString("account", "").equals(show("/request").getString("account"))) {
            return "it is registered for another account";
        }
        written.put("state", "in charge of " + written.getString("account"));
        return null;
    }

    private String count(JsonObject written) {
        if (!TIME.matcher(written.getString("daily", "")).matches()) {
            return "a time of day is wanted, such as 03:30";
        }
        boolean inCharge = show("/authority").getString("state").startsWith("in charge");
        written.put(
                "last", inCharge ? "counted " + show("/registration").getInteger("licences") : "nothing to count yet");
        return null;
    }
}
