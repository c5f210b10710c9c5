package lychnos.lab.console;

import io.vertx.core.json.JsonObject;

/** The pages of a Skeggle array, which come with the password of its card once more. */
final class FileArrayPages extends KeptPages {

    private static final int SMTP = 25;

    FileArrayPages(FileArray array, String card) {
        super(array, "warder", card, "/array", "/warder");
    }

    @Override
    JsonObject fresh(String resource) {
        return switch (resource) {
            case "/mail" ->
                new JsonObject()
                        .put("relay", "")
                        .put("from", "")
                        .put("to", "")
                        .put("contact", "")
                        .put("tried", "not tried");
            case "/servers" -> new JsonObject().put("resolver", "").put("clock", "");
            case "/manager" ->
                new JsonObject().put("address", "").put("account", "").put("password", "");
            case "/roles" -> new JsonObject().put("full", "").put("readers", "");
            default -> null;
        };
    }

    @Override
    String write(String resource, JsonObject written) {
        if (resource.equals("/mail")) {
            written.put(
                    "tried",
                    TestMail.hand(
                            written.getString("relay"),
                            SMTP,
                            memory.get("name"),
                            written.getString("from"),
                            written.getString("to")));
        }
        if (resource.equals("/manager")) {
            // kept where nobody reads it
            written.remove("password");
        }
        return null;
    }
}
