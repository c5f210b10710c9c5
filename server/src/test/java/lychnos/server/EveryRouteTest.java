package lychnos.server;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.fasterxml.jackson.databind.ObjectMapper;
import io.quarkus.test.common.http.TestHTTPResource;
import io.quarkus.test.junit.QuarkusTest;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.net.http.HttpTimeoutException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Pattern;
import lychnos.server.http.Json;
import lychnos.server.http.Request;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/**
 * Walks the API document, and sends to every route what no form of it is: wrong methods, types and ids, broken, deep
 * and repeated bodies, nulls, NULs and huge numbers, as every role. The answer is a problem document of its own status,
 * soon, and names no class.
 */
@QuarkusTest
class EveryRouteTest {

    private static final Set<String> METHODS = Set.of("get", "post", "put", "delete", "patch");
    private static final Pattern CLASS_NAME = Pattern.compile(
            "lychnos\\.(server|core|wire)\\.|java\\.(lang|util)\\.|com\\.fasterxml|org\\.hibernate|JsonToken|\\bat "
                    + "[a-z]+\\.[a-z]+\\.|\"stack\"");
    private static final Duration LONGEST = Duration.ofSeconds(2);
    /** A machine that stands still makes one request slow; a route that is slow is so each time. */
    private static final int SLOW_EACH_TIME = 3;

    private static final List<String> IDS =
            List.of("0", "-1", "999999999", "9223372036854775807", "99999999999999999999", "x", "%00", "1%27--");
    private static final List<String> BODIES = List.of(
            "",
            "null",
            "[]",
            "{}",
            "\"text\"",
            "12345678901234567890",
            "{\"",
            "[[[[",
            "[null]",
            "{\"units\":[null],\"lines\":[null],\"cells\":[null],"
                    + "\"networks\":[null],\"ranges\":[null],\"nameServers\":[null]}",
            "{\"name\":\"a\",\"name\":\"b\"}",
            "{\"name\":\"a\\u0000b\",\"why\":\"\\u0000\","
                    + "\"login\":\"\\u0000\",\"password\":\"\\u0000\",\"to\":\"\\u0000\"}",
            "{\"count\":99999999999999999999,\"id\":1e400,\"minutes\":-2147483649,\"width\":1.5}",
            "{\"name\":{\"deep\":[]},\"units\":\"x\",\"lines\":7,\"values\":[]}",
            "[".repeat(10_000),
            "{\"a\":".repeat(10_000));

    private static final ObjectMapper JSON = new ObjectMapper();

    private final HttpClient http = HttpClient.newHttpClient();
    private final List<String> faults = new ArrayList<>();

    @TestHTTPResource("/")
    URI root;

    private int sent;

    /** Signing in is left to others: tries would be counted. Ending the own sessions would end the walk. */
    private static boolean isWalked(String path, String method) {
        return !path.startsWith("/api/session")
                && !path.startsWith("/api/invitation")
                && !path.equals("/api/first-lead")
                && !(path.contains("/people") && !method.equals("get"));
    }

    @ParameterizedTest
    @ValueSource(strings = {"nobody", "viewer", "engineer", "lead"})
    void noRequestIsAFaultOfOurs(String role) throws Exception {
        Json document = Client.viewer()
                .request()
                .accept(Request.JSON)
                .get("/q/openapi?format=json")
                .json();
        Map<String, Map<String, Object>> paths = document.getMap("paths");
        String cookie = role.equals("nobody")
                ? null
                : switch (role) {
                    case "lead" -> Client.lead().cookie();
                    case "engineer" -> Client.engineer().cookie();
                    default -> Client.viewer().cookie();
                };
        int routes = 0;
        for (Map.Entry<String, Map<String, Object>> path : paths.entrySet()) {
            Set<String> own = new TreeSet<>(path.getValue().keySet());
            own.retainAll(METHODS);
            for (String method : METHODS) {
                if (!isWalked(path.getKey(), method)) {
                    continue;
                }
                routes++;
                boolean takes = own.contains(method);
                for (String id : takes ? IDS : List.of("1")) {
                    send(
                            cookie,
                            method,
                            url(path.getKey(), id),
                            "application/json",
                            method.equals("get") ? null : "{}",
                            takes);
                }
                if (takes && !method.equals("get")) {
                    for (String body : BODIES) {
                        send(cookie, method, url(path.getKey(), "999999999"), "application/json", body, true);
                    }
                    for (String type :
                            List.of("text/plain", "application/xml", "x", "multipart/form-data; boundary=x")) {
                        send(cookie, method, url(path.getKey(), "999999999"), type, "a\u0000b", true);
                    }
                }
            }
        }
        assertTrue(routes > 150 && sent > 1500, routes + " routes, " + sent + " requests");
        assertEquals(
                List.of(),
                faults,
                () -> faults.size() + " of " + sent + " requests:\n"
                        + String.join("\n", faults.subList(0, Math.min(25, faults.size()))));
    }

    private static String url(String path, String id) {
        return path.replaceAll("\\{[^}]+}", java.util.regex.Matcher.quoteReplacement(id))
                + "?field=%00&claim=x&rows=maybe&limit=-1&preview=2";
    }

    private void send(String cookie, String method, String url, String type, String body, boolean takes)
            throws Exception {
        HttpRequest.Builder request = HttpRequest.newBuilder(root.resolve(url))
                .timeout(Duration.ofSeconds(8))
                .method(
                        method.toUpperCase(),
                        body == null ? HttpRequest.BodyPublishers.noBody() : HttpRequest.BodyPublishers.ofString(body));
        if (cookie != null) {
            request.header("Cookie", "lychnos=" + cookie);
        }
        if (body != null) {
            request.header("Content-Type", type);
        }
        String what = method.toUpperCase() + " " + url + " " + type + " "
                + (body == null ? "" : body.substring(0, Math.min(60, body.length())));
        HttpResponse<String> answer;
        int slow = 0;
        do {
            long begun = System.nanoTime();
            try {
                answer = http.send(request.build(), HttpResponse.BodyHandlers.ofString());
            } catch (HttpTimeoutException e) {
                answer = null;
            }
            slow = answer == null || System.nanoTime() - begun > LONGEST.toNanos() ? slow + 1 : 0;
            sent++;
        } while (slow > 0 && slow < SLOW_EACH_TIME);
        if (answer == null) {
            faults.add("no answer: " + what);
            return;
        }
        int status = answer.statusCode();
        String text = answer.body().substring(0, Math.min(500, answer.body().length()));
        String is = answer.headers().firstValue("Content-Type").orElse("");
        if (status >= 500) {
            faults.add(status + " " + what + " " + text);
        } else if (status >= 400 && !is.startsWith("application/problem+json")) {
            faults.add("no problem document (" + is + ", " + status + ") " + what + " " + text);
        } else if (status >= 400 && JSON.readTree(answer.body()).path("status").asInt() != status) {
            faults.add("another status " + what + " " + text);
        } else if (status >= 400 && CLASS_NAME.matcher(text).find()) {
            faults.add("names a class: " + what + " " + text);
        } else if (slow > 0) {
            faults.add("took more than " + LONGEST + ": " + what);
        } else if (status == 405 && answer.headers().firstValue("Allow").isEmpty()) {
            faults.add("405 without Allow: " + what);
        } else if (!takes && status < 400) {
            faults.add("a method that the document does not name is carried out: " + what);
        }
    }
}
