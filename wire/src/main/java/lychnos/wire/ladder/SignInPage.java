package lychnos.wire.ladder;

import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import lychnos.wire.fault.WireFault;
import lychnos.wire.http.HttpAnswer;
import lychnos.wire.http.HttpCall;
import lychnos.wire.vantage.Vantage;

/** Opens the page at which a machine is signed in to, and follows it on this machine alone. */
final class SignInPage {

    private static final Duration REQUEST = Duration.ofSeconds(6);
    private static final int MOST_REDIRECTS = 4;
    private static final Pattern TITLE = Pattern.compile("<title[^>]{0,200}>([^<]{0,200})", Pattern.CASE_INSENSITIVE);
    private static final Pattern PASSWORD =
            Pattern.compile("<input[^>]{0,400}type=[\"']?password", Pattern.CASE_INSENSITIVE);

    private SignInPage() {}

    /**
     * What was seen.
     *
     * @param title of the page, or empty
     * @param form whether it takes a password
     * @param away where it leads to, if that is not this machine; it was not followed there
     * @param fault why there is no page, or empty
     */
    record Seen(int status, String title, boolean form, Optional<String> away, String fault) {}

    /** @param pin the certificate that must be shown */
    static Seen open(Vantage vantage, Target target, String pin) throws WireFault {
        String path = "/";
        for (int i = 0; i <= MOST_REDIRECTS; i++) {
            HttpAnswer answer = vantage.http(new HttpCall(
                    target.address(), target.port(), "GET", path, Map.of("Accept", "text/html"), null, pin, REQUEST));
            if (answer.status() < 300 || answer.status() >= 400) {
                return seen(answer);
            }
            String to = answer.header("location").orElse("");
            Optional<String> own = own(to, target);
            if (own.isEmpty()) {
                return new Seen(
                        answer.status(),
                        "",
                        false,
                        Optional.of(to.length() > 120 ? to.substring(0, 120) + "…" : to),
                        "");
            }
            path = own.get();
        }
        return new Seen(0, "", false, Optional.empty(), LadderText.REDIRECT_CIRCLE.text());
    }

    /** The path, where a redirect stays on this machine. */
    static Optional<String> own(String to, Target target) {
        if (to.matches("/[\\x21-\\x7e]{0,400}") && !to.startsWith("//")) {
            return Optional.of(to);
        }
        for (String host : new String[] {
            target.address().toString(),
            "[" + target.address() + "]",
            target.names().fqdn()
        }) {
            for (String port : new String[] {"", ":" + target.port()}) {
                String start = "https://" + host + port + "/";
                if (!host.isEmpty() && to.startsWith(start)) {
                    return Optional.of(to.substring(start.length() - 1))
                            .filter(path -> path.matches("/[\\x21-\\x7e]{0,400}"));
                }
            }
        }
        return Optional.empty();
    }

    private static Seen seen(HttpAnswer answer) {
        String page = new String(answer.body(), StandardCharsets.UTF_8);
        Matcher title = TITLE.matcher(page);
        boolean form = PASSWORD.matcher(page).find();
        String fault = answer.status() != 200
                ? LadderText.HTTP_STATUS.text(answer.status())
                : form ? "" : LadderText.NO_PASSWORD_FIELD.text();
        return new Seen(answer.status(), title.find() ? title.group(1).strip() : "", form, Optional.empty(), fault);
    }
}
