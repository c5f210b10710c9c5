package lychnos.wire.ladder;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import lychnos.core.kind.Kind;
import lychnos.core.kind.KindChecks;
import lychnos.core.proof.Outcome;
import lychnos.core.proof.Part;
import lychnos.core.proof.Rung;
import lychnos.core.proof.Trouble;
import lychnos.wire.fault.WireFault;
import lychnos.wire.http.HttpAnswer;
import lychnos.wire.http.HttpCall;
import lychnos.wire.vantage.Vantage;

/** Whether the form of a machine's web page lets a factory's login in. */
final class FormRead {

    private static final Duration REQUEST = Duration.ofSeconds(6);
    private static final int MOST_REDIRECTS = 4;
    private static final int UNAUTHORIZED = 401;
    private static final int FORBIDDEN = 403;

    private final Vantage vantage;
    private final Target target;
    private final Target.FormWay way;
    private final String pin;

    /** @param pin the certificate that must be shown before a password is sent */
    FormRead(Vantage vantage, Target target, Target.FormWay way, String pin) {
        this.vantage = vantage;
        this.target = target;
        this.way = way;
        this.pin = pin;
    }

    /** Tries each factory login once, since a second attempt might lock the account; gives what breaks the rung. */
    Optional<Outcome> factory(List<Part> parts) throws WireFault {
        for (Kind.Login login : way.factory()) {
            String name = LadderText.FACTORY_PASSWORD_ON_PAGE.text(login.user());
            try {
                HttpAnswer answer = sent(login);
                String page = new String(answer.body(), StandardCharsets.UTF_8);
                KindChecks.WebForm form = way.form();
                if (answer.status() == UNAUTHORIZED
                        || answer.status() == FORBIDDEN
                        || form.refused().in(page)) {
                    parts.add(Part.holds(name, "refused"));
                } else if (form.admitted().in(page)) {
                    parts.add(Part.broken(name, "taken"));
                    return Optional.of(Outcome.broken(Rung.SAFE, Trouble.FACTORY_ACCEPTED, name));
                } else {
                    parts.add(Part.broken(name, LadderText.NEITHER_IN_NOR_OUT.text()));
                    return Optional.of(
                            Outcome.broken(Rung.SAFE, Trouble.FACTORY_UNCLEAR, LadderText.NEITHER_IN_NOR_OUT.text()));
                }
            } catch (WireFault e) {
                parts.add(Part.broken(name, e.getMessage()));
                return Optional.of(RedfishWay.brokenUnlessUndeclared(e, Rung.SAFE, Trouble.FACTORY_UNCLEAR));
            }
        }
        return Optional.empty();
    }

    /** Sends the form, and follows the answer on this machine alone, with the cookie that it gave. */
    private HttpAnswer sent(Kind.Login login) throws WireFault {
        KindChecks.WebForm form = way.form();
        String body = field(form.user(), login.user()) + "&" + login.phrase().use(word -> field(form.phrase(), word));
        Map<String, String> headers =
                new HashMap<>(Map.of("Accept", "text/html", "Content-Type", "application/x-www-form-urlencoded"));
        HttpAnswer answer = call("POST", form.path(), headers, body.getBytes(StandardCharsets.US_ASCII));
        headers.remove("Content-Type");
        for (int i = 0; i < MOST_REDIRECTS && answer.status() >= 300 && answer.status() < 400; i++) {
            answer.header("set-cookie").ifPresent(cookie -> headers.put("Cookie", cookie.replaceFirst(";.*", "")));
            Optional<String> path = answer.header("location").flatMap(to -> SignInPage.own(to, target));
            if (path.isEmpty()) {
                return answer;
            }
            answer = call("GET", path.get(), headers, null);
        }
        return answer;
    }

    private HttpAnswer call(String method, String path, Map<String, String> headers, byte[] body) throws WireFault {
        return vantage.http(
                new HttpCall(target.address(), target.port(), method, path, Map.copyOf(headers), body, pin, REQUEST));
    }

    private static String field(String name, String value) {
        return URLEncoder.encode(name, StandardCharsets.UTF_8) + "=" + URLEncoder.encode(value, StandardCharsets.UTF_8);
    }
}
