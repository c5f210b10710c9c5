package lychnos.lab.console;

import io.vertx.core.json.JsonArray;
import io.vertx.core.json.JsonObject;
import java.util.List;
import java.util.regex.Pattern;

/** The pages of a Bannisdale array, some of which come filled in wrongly. */
final class BlockArrayPages implements ServedPages.Pages {

    private static final Pattern LICENCE = Pattern.compile("K[0-9]-[A-Z]{3}-[0-9-]{3,8}");
    private static final String FACTORY_WEB = "sleddale-web";
    private static final String ACTIVATION = "activate.ardal.example:443";
    private static final int SMTP = 25;

    private final BlockArray array;
    private final ConsoleSpec spec;
    private final Memory memory;

    BlockArrayPages(BlockArray array) {
        this.array = array;
        this.spec = array.spec;
        this.memory = array.memory;
    }

    @Override
    public boolean admits(String user, String phrase) {
        boolean admitted = user.equals("curator")
                && phrase.equals(memory.has("web.phrase") ? memory.get("web.phrase") : FACTORY_WEB);
        memory.add(admitted ? "seen.webLogins" : "seen.refusedWebLogins");
        return admitted;
    }

    @Override
    public JsonObject show(String resource) {
        return switch (resource) {
            case "/about" ->
                new JsonObject()
                        .put("model", "Bannisdale")
                        .put("serial", spec.has(Habit.OTHER_PAGES) ? array.serial() + "-X" : array.serial());
            case "/account" -> new JsonObject().put("account", "curator").put("phrase", "");
            case "/subnets/management" -> subnet(resource, "management", 1500);
            // it takes the second network for the one to its twin, which is wrong more often than not
            case "/subnets/data" -> subnet(resource, "to the twin array", 1500);
            case "/portal" ->
                page(
                        resource,
                        new JsonObject()
                                .put("portal", "")
                                .put("length", 0)
                                .put("upper", new JsonArray())
                                .put("lower", new JsonArray()));
            case "/interfaces" ->
                page(
                        resource,
                        new JsonObject()
                                .put("copper", "management")
                                .put(
                                        "fibre",
                                        new JsonArray()
                                                .add("host data")
                                                .add("host data")
                                                .add("host data")));
            case "/replication" ->
                page(resource, new JsonObject().put("subnet", "").put("tag", 0));
            case "/licence" -> page(resource, new JsonObject().put("key", "").put("state", "none"));
            case "/pool" -> page(resource, new JsonObject().put("layout", ""));
            case "/mail" ->
                page(
                        resource,
                        new JsonObject()
                                .put("relay", "")
                                .put("from", "")
                                .put("to", "")
                                .put("tried", "never"));
            case "/support" ->
                page(
                                resource,
                                new JsonObject()
                                        .put("telemetry", true)
                                        .put("remote", true)
                                        .put("proxy", "")
                                        .put("proxyPort", 0)
                                        .put("proxyUser", "")
                                        .put("way", "not tried"))
                        .copy()
                        .put("proxyPhrase", "");
            case "/service" ->
                new JsonObject()
                        .put("wanted", memory.has("service") ? "in service" : "")
                        .put("state", memory.has("service") ? memory.get("service") : "being set up");
            default -> null;
        };
    }

    private JsonObject subnet(String resource, String purpose, int mtu) {
        return page(
                resource,
                new JsonObject().put("purpose", purpose).put("mtu", mtu).put("tag", 0));
    }

    private JsonObject page(String resource, JsonObject prefilled) {
        return memory.has("page" + resource) ? new JsonObject(memory.get("page" + resource)) : prefilled;
    }

    @Override
    public String take(String resource, JsonObject written) throws InterruptedException {
        if (!array.active()) {
            return "this controller stands by";
        }
        if (!memory.has("web.phrase") && !resource.equals("/account")) {
            return "the phrase that it came with must be changed first";
        }
        if (refusedPage(resource)) {
            return "try that again later";
        }
        String refused =
                switch (resource) {
                    case "/account" -> account(written.getString("phrase", ""));
                    case "/portal" -> ports(written);
                    case "/licence" -> licence(written);
                    case "/pool" ->
                        memory.has("page/pool") && !written.equals(show("/pool"))
                                ? "the layout of the pool can never be changed"
                                : null;
                    case "/mail" -> mail(written);
                    case "/support" -> support(written);
                    case "/service" -> service(written.getString("wanted", ""));
                    default -> null;
                };
        if (refused == null && !resource.equals("/account") && !resource.equals("/service")) {
            if (spec.has(Habit.PAGE_NOT_KEPT) && resource.equals("/subnets/data")) {
                written.put("purpose", "to the twin array");
            }
            memory.put("page" + resource, written.encode());
            memory.add("seen.pagesWritten");
        }
        return refused;
    }

    private boolean refusedPage(String resource) {
        return spec.has(Habit.PAGE_REFUSED) && resource.equals("/portal");
    }

    private String account(String phrase) {
        if (phrase.length() < BlockArray.SHORTEST_PHRASE) {
            return "ten letters or more";
        }
        if (!phrase.equals(memory.get("web.phrase"))) {
            memory.put("web.phrase", phrase);
            memory.add("seen.webPhraseChanges");
        }
        return null;
    }

    /** Both paths have the same number of ports, at least two. */
    private String ports(JsonObject written) {
        JsonArray upper = written.getJsonArray("upper");
        JsonArray lower = written.getJsonArray("lower");
        if (upper.size() < 2 || upper.size() != lower.size()) {
            return "each purpose wants two interfaces or more, the same number on each path";
        }
        memory.put("portal", written.getString("portal"));
        for (int i = 0; i < upper.size(); i++) {
            memory.put("port" + 2 * i, upper.getString(i));
            memory.put("port" + (2 * i + 1), lower.getString(i));
        }
        return null;
    }

    private static String licence(JsonObject written) {
        written.put("state", LICENCE.matcher(written.getString("key", "")).matches() ? "valid" : "not known");
        return null;
    }

    private String mail(JsonObject written) {
        written.put(
                "tried",
                TestMail.hand(
                        written.getString("relay"),
                        SMTP,
                        memory.get("array"),
                        written.getString("from"),
                        written.getString("to")));
        return null;
    }

    private String support(JsonObject written) {
        String phrase = written.getString("proxyPhrase", "");
        written.remove("proxyPhrase");
        written.put(
                "way",
                written.getString("proxy", "").isEmpty()
                        ? "not tried"
                        : WayOut.through(
                                written.getString("proxy"),
                                written.getInteger("proxyPort"),
                                written.getString("proxyUser"),
                                phrase,
                                ACTIVATION));
        return null;
    }

    private String service(String wanted) throws InterruptedException {
        if (!wanted.equals("in service")) {
            return "it can be taken into service, and nothing else";
        }
        if (!List.of("/subnets/data", "/portal", "/licence", "/pool").stream()
                .allMatch(page -> memory.has("page" + page))) {
            return "subnets, portal, licence and pool come first";
        }
        if (!memory.has("service")) {
            memory.put("service", "spreading to both controllers");
            Thread spreading = new Thread(this::spread, spec.serial() + " spreads");
            spreading.setDaemon(true);
            spreading.start();
        }
        return null;
    }

    private void spread() {
        try {
            Thread.sleep(spec.has(Habit.NEVER_SERVES) ? Long.MAX_VALUE : array.restartMillis());
            array.serveData();
            memory.put("service", "in service");
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
