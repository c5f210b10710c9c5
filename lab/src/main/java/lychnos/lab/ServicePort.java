package lychnos.lab;

import java.io.IOException;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * A laptop on an appliance's service port: one page after another is filled in by its labels, as the value sheet says.
 */
final class ServicePort {

    private static final Duration PATIENCE = Duration.ofSeconds(10);

    private final HttpClient http =
            HttpClient.newBuilder().connectTimeout(PATIENCE).build();
    private final URI page;

    ServicePort(String address) {
        page = URI.create("http://" + address + "/");
    }

    /** Whether the page that is shown has this heading. */
    boolean shows(String heading) throws IOException, InterruptedException {
        return exchange(HttpRequest.newBuilder(page)).contains("<h1>" + heading + "</h1>");
    }

    /** What follows a word on the page that is shown, up to the next comma: such as the serial at its top. */
    String reads(String word) throws IOException, InterruptedException {
        Matcher found =
                Pattern.compile(Pattern.quote(word) + " ([^,<]+),").matcher(exchange(HttpRequest.newBuilder(page)));
        if (!found.find()) {
            throw new IOException("the page shows nothing behind “" + word + "”");
        }
        return found.group(1);
    }

    /** Hands a page in; fails with what it complains of. */
    void fill(Map<String, String> fields) throws IOException, InterruptedException {
        String form = fields.entrySet().stream()
                .map(field -> coded(field.getKey()) + "=" + coded(field.getValue()))
                .collect(Collectors.joining("&"));
        String shown = exchange(HttpRequest.newBuilder(page)
                .header("Content-Type", "application/x-www-form-urlencoded")
                .POST(HttpRequest.BodyPublishers.ofString(form)));
        if (shown.contains("role=alert")) {
            throw new IOException("the page is not taken: " + shown.replaceAll(".*<p role=alert>([^<]*).*", "$1"));
        }
    }

    private String exchange(HttpRequest.Builder request) throws IOException, InterruptedException {
        return http.send(request.timeout(PATIENCE).build(), HttpResponse.BodyHandlers.ofString())
                .body();
    }

    private static String coded(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8);
    }
}
