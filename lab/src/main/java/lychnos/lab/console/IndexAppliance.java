package lychnos.lab.console;

import io.vertx.core.http.HttpMethod;
import io.vertx.core.http.HttpServer;
import io.vertx.core.http.HttpServerRequest;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CountDownLatch;
import java.util.regex.Pattern;

/**
 * A Harrop appliance. It has no console: its first setup is a row of pages on its service port, at an address that is
 * the same on every one of them and that it gives up afterwards. A page leads to the next one only once it is taken.
 */
final class IndexAppliance extends ConsoleMachine {

    private static final Pattern ADDRESS = Pattern.compile("\\d+\\.\\d+\\.\\d+\\.\\d+");
    private static final Pattern ANY = Pattern.compile(".+");
    private static final Pattern MAIL = Pattern.compile(".+@.+");

    /** A page: its heading, and what its fields take, by their labels. */
    private record Sheet(String heading, Map<String, Pattern> fields) {}

    private static final List<Sheet> SHEETS = List.of(
            sheet(
                    "Administrator",
                    "Account",
                    ANY,
                    "Password",
                    Pattern.compile(".{10,}"),
                    "Mail of the account",
                    Pattern.compile("|.+@.+"),
                    "Accounts from",
                    Pattern.compile("this appliance|a directory")),
            sheet("Names and time", "Resolvers", ANY, "Time source", ADDRESS, "Time zone", ANY),
            sheet("Mail", "Alarms to", MAIL, "Alarms from", MAIL, "Relay", ADDRESS),
            sheet("Production port", "Link", Pattern.compile("auto|1000 full|100 full")),
            sheet(
                    "Production address",
                    "Full name",
                    ANY,
                    "Address/length",
                    Pattern.compile("\\d+\\.\\d+\\.\\d+\\.\\d+/\\d+"),
                    "Router",
                    ADDRESS,
                    "Address to try once cabled",
                    ADDRESS));

    private final Face face;
    private final CountDownLatch set = new CountDownLatch(1);

    IndexAppliance(ConsoleSpec spec, Memory memory, long restartMillis, Face face) {
        super(spec, memory, restartMillis);
        this.face = face;
        face.serve(new IndexPages(this));
    }

    private static Sheet sheet(String heading, Object... fields) {
        Map<String, Pattern> taken = new LinkedHashMap<>();
        for (int i = 0; i < fields.length; i += 2) {
            taken.put((String) fields[i], (Pattern) fields[i + 1]);
        }
        return new Sheet(heading, taken);
    }

    @Override
    public String settings() {
        return "9600-8N1";
    }

    @Override
    void pretendUsed() {
        memory.put("Address/length", "127.40.9.250/24");
        memory.put("set", "yes");
    }

    @Override
    void networkDown() {
        face.hide();
    }

    @Override
    void live() throws InterruptedException, Restart {
        if (memory.has("set")) {
            face.show(address());
            new CountDownLatch(1).await();
        }
        HttpServer pages = face.plain(spec.first(), face.plainPort(), request -> request.setExpectMultipart(
                        request.getHeader("Content-Type") != null)
                .body()
                .onSuccess(body -> answer(request)));
        try {
            set.await();
        } finally {
            face.endPlain(spec.first(), pages);
        }
        throw new Restart();
    }

    private String address() {
        return memory.get("Address/length").replaceFirst("/.*", "");
    }

    private int at() {
        return memory.count("sheets");
    }

    private void answer(HttpServerRequest request) {
        String fault = "";
        if (request.method() == HttpMethod.POST && at() < SHEETS.size()) {
            fault = take(SHEETS.get(at()), request);
        }
        boolean over = at() == SHEETS.size();
        request.response()
                .putHeader("Content-Type", "text/html; charset=utf-8")
                .end(
                        over
                                ? page("All set", "<p>Restarting. It then answers at " + address() + ".")
                                : form(SHEETS.get(at()), fault));
        if (over) {
            memory.put("set", "yes");
            set.countDown();
        }
    }

    /** Takes a page whole or not at all; gives why not. */
    private String take(Sheet sheet, HttpServerRequest request) {
        for (Map.Entry<String, Pattern> field : sheet.fields.entrySet()) {
            if (!field.getValue().matcher(given(request, field.getKey())).matches()) {
                return field.getKey() + " has the wrong form";
            }
        }
        sheet.fields.keySet().forEach(label -> memory.put(label, given(request, label)));
        memory.add("sheets");
        return "";
    }

    /** A field that was left out is an empty one. */
    private static String given(HttpServerRequest request, String label) {
        String given = request.getFormAttribute(label);
        return given == null ? "" : given.strip();
    }

    private String form(Sheet sheet, String fault) {
        StringBuilder rows = new StringBuilder(fault.isEmpty() ? "" : "<p role=alert>" + fault + "</p>");
        sheet.fields.keySet().forEach(label -> rows.append("<p><label>")
                .append(label)
                .append(" <input name=\"")
                .append(label)
                .append("\"></label></p>"));
        return page(sheet.heading, "<form method=post>" + rows + "<button>Next</button></form>");
    }

    private String page(String heading, String body) {
        return "<!doctype html><html lang=en><title>Harrop</title><p>Harrop " + serial() + ", page "
                + Math.min(at() + 1, SHEETS.size()) + " of " + SHEETS.size() + "<h1>" + heading + "</h1>" + body;
    }
}
