package lychnos.e2e;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.net.http.WebSocket;
import java.time.Duration;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionStage;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;

/** The engineer of the demo hall without a browser. */
final class Api {

    static final ObjectMapper JSON = new ObjectMapper();

    private static final Duration PATIENCE = Duration.ofSeconds(40);

    private final HttpClient http = HttpClient.newHttpClient();
    private final String cookie;

    Api(String server) throws IOException, InterruptedException {
        this(server, "rack-one", "engineer-at-rack-one");
    }

    Api(String server, String login, String password) throws IOException, InterruptedException {
        HttpResponse<String> answer = send(
                server,
                "POST",
                "/api/session",
                JSON.createObjectNode().put("login", login).put("password", password),
                "none=1");
        cookie = answer.headers()
                .firstValue("Set-Cookie")
                .orElseThrow(() -> new IOException("not signed in: " + answer.body()))
                .split(";", 2)[0];
    }

    HttpResponse<String> send(String server, String method, String path, JsonNode body)
            throws IOException, InterruptedException {
        return send(server, method, path, body, cookie);
    }

    private HttpResponse<String> send(String server, String method, String path, JsonNode body, String cookie)
            throws IOException, InterruptedException {
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(server + path))
                .timeout(PATIENCE)
                .header("Cookie", cookie)
                .header("Content-Type", "application/json")
                .method(
                        method,
                        body == null
                                ? HttpRequest.BodyPublishers.noBody()
                                : HttpRequest.BodyPublishers.ofString(body.toString()));
        return http.send(request.build(), HttpResponse.BodyHandlers.ofString());
    }

    /** Sends plain text. */
    HttpResponse<String> text(String server, String path, String text) throws IOException, InterruptedException {
        return text(server, "POST", path, text);
    }

    /** Puts plain text in the place of what is there. */
    HttpResponse<String> put(String server, String path, String text) throws IOException, InterruptedException {
        return text(server, "PUT", path, text);
    }

    private HttpResponse<String> text(String server, String method, String path, String text)
            throws IOException, InterruptedException {
        return http.send(
                HttpRequest.newBuilder(URI.create(server + path))
                        .header("Cookie", cookie)
                        .header("Content-Type", "text/plain; charset=UTF-8")
                        .method(method, HttpRequest.BodyPublishers.ofString(text))
                        .build(),
                HttpResponse.BodyHandlers.ofString());
    }

    /** Says something on a socket, and hears it until a word has come; gives everything that was heard. */
    String listen(String server, String path, String said, String until) throws IOException, InterruptedException {
        StringBuilder heard = new StringBuilder();
        CompletableFuture<String> all = new CompletableFuture<>();
        WebSocket socket = http.newWebSocketBuilder()
                .header("Cookie", cookie)
                .buildAsync(URI.create(server.replaceFirst("^http", "ws") + path), new WebSocket.Listener() {
                    @Override
                    public CompletionStage<?> onText(WebSocket from, CharSequence text, boolean last) {
                        heard.append(text);
                        if (heard.indexOf(until) >= 0) {
                            all.complete(heard.toString());
                        }
                        from.request(1);
                        return null;
                    }

                    @Override
                    public void onError(WebSocket from, Throwable fault) {
                        all.completeExceptionally(fault);
                    }
                })
                .join();
        try {
            socket.sendText(said, true).join();
            return all.get(20, TimeUnit.SECONDS);
        } catch (ExecutionException | TimeoutException e) {
            throw new IOException("“" + until + "” never came, but: " + heard, e);
        } finally {
            socket.abort();
        }
    }

    /** What a resource shows now, for looks that are repeated until something is there. */
    JsonNode look(String server, String path) {
        try {
            return ask(server, "GET", path, null);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(e);
        }
    }

    /** The same, where nothing but a good answer will do. */
    JsonNode ask(String server, String method, String path, JsonNode body) throws IOException, InterruptedException {
        HttpResponse<String> answer = send(server, method, path, body);
        if (answer.statusCode() / 100 != 2) {
            throw new IOException(
                    method + " " + path + " was answered by " + answer.statusCode() + ": " + answer.body());
        }
        return answer.body().isEmpty() ? JSON.nullNode() : JSON.readTree(answer.body());
    }
}
