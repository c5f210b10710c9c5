package lychnos.lab.console;

import io.vertx.core.Vertx;
import io.vertx.core.http.HttpMethod;
import io.vertx.core.http.HttpServer;
import io.vertx.core.http.HttpServerRequest;
import java.nio.charset.StandardCharsets;
import java.util.Base64;

/** A proxy that wants a log-in and knows one place outside, behind which nothing is: the hall has no way out. */
public final class WebProxy implements AutoCloseable {

    private final HttpServer server;
    private final String login;
    private final String outside;

    /** @param outside the one place that it lets anybody out to, host and port */
    public WebProxy(Vertx vertx, String address, int port, String user, String phrase, String outside) {
        this.login =
                "Basic " + Base64.getEncoder().encodeToString((user + ":" + phrase).getBytes(StandardCharsets.UTF_8));
        this.outside = outside;
        server = vertx.createHttpServer().requestHandler(this::answer);
        server.listen(port, address).toCompletionStage().toCompletableFuture().join();
    }

    private void answer(HttpServerRequest request) {
        if (!login.equals(request.getHeader("Proxy-Authorization"))) {
            request.response()
                    .setStatusCode(407)
                    .putHeader("Proxy-Authenticate", "Basic realm=\"hall\"")
                    .end();
        } else if (request.method() != HttpMethod.CONNECT
                || !outside.equals(
                        request.authority() == null
                                ? request.uri()
                                : request.authority().toString())) {
            request.response().setStatusCode(403).end();
        } else {
            // nothing is behind it: allowed connections end at once
            request.toNetSocket().onSuccess(socket -> socket.close());
        }
    }

    @Override
    public void close() {
        server.close().toCompletionStage().toCompletableFuture().join();
    }
}
