package lychnos.server.http;

import com.fasterxml.jackson.core.JsonProcessingException;
import java.io.IOException;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublisher;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.eclipse.microprofile.config.ConfigProvider;

/**
 * A request to the server under test. Plain Java and Jackson: a client that reads JSON with a script language took half
 * of the processor time of the whole suite.
 */
public final class Request {

    public static final String JSON = "application/json";
    public static final String TEXT = "text/plain";

    private static final Duration PATIENCE = Duration.ofSeconds(60);
    private static final HttpClient HTTP = HttpClient.newBuilder()
            .version(HttpClient.Version.HTTP_1_1)
            .followRedirects(HttpClient.Redirect.NORMAL)
            .build();

    private final Map<String, String> headers = new LinkedHashMap<>();
    private final List<String> query = new ArrayList<>();
    private BodyPublisher body = BodyPublishers.noBody();

    private Request() {}

    /** A request of nobody, without a body. */
    public static Request given() {
        return new Request();
    }

    public Request header(String name, String value) {
        headers.put(name, value);
        return this;
    }

    public Request headers(Map<String, String> more) {
        headers.putAll(more);
        return this;
    }

    public Request contentType(String type) {
        return header("Content-Type", type);
    }

    public Request accept(String type) {
        return header("Accept", type);
    }

    public Request cookie(String name, String value) {
        return header("Cookie", name + "=" + value);
    }

    public Request bearer(String token) {
        return header("Authorization", "Bearer " + token);
    }

    public Request queryParam(String name, Object value) {
        query.add(name + "=" + encoded(value.toString()));
        return this;
    }

    /** @param content bytes or text as they are, everything else as JSON */
    public Request body(Object content) {
        try {
            body = content instanceof byte[]
                    ? BodyPublishers.ofByteArray((byte[]) content)
                    : BodyPublishers.ofString(
                            content instanceof String ? (String) content : Json.MAPPER.writeValueAsString(content));
        } catch (JsonProcessingException e) {
            throw new AssertionError(e);
        }
        return this;
    }

    public Response get(String path) {
        return send("GET", path);
    }

    public Response post(String path) {
        return send("POST", path);
    }

    public Response put(String path) {
        return send("PUT", path);
    }

    public Response patch(String path) {
        return send("PATCH", path);
    }

    public Response delete(String path) {
        return send("DELETE", path);
    }

    public Response send(String method, String path) {
        String separator = path.contains("?") ? "&" : "?";
        String target = query.isEmpty() ? path : path + separator + String.join("&", query);
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(server() + allowed(target)))
                .timeout(PATIENCE)
                .method(method, body);
        headers.forEach(request::header);
        try {
            return new Response(HTTP.send(request.build(), BodyHandlers.ofByteArray()));
        } catch (IOException e) {
            throw new AssertionError(method + " " + path + " was not answered", e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new AssertionError(e);
        }
    }

    private static String server() {
        return ConfigProvider.getConfig().getValue("test.url", String.class);
    }

    private static String encoded(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8).replace("+", "%20");
    }

    /** With what a URI must not contain percent-encoded, and the rest as it is. */
    private static String allowed(String target) {
        StringBuilder out = new StringBuilder();
        target.codePoints().forEach(c -> {
            String one = Character.toString(c);
            out.append(c > 126 || " \"<>\\^`{|}[]".contains(one) ? encoded(one) : one);
        });
        return out.toString();
    }
}
