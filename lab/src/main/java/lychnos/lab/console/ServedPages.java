package lychnos.lab.console;

import io.vertx.core.Vertx;
import io.vertx.core.buffer.Buffer;
import io.vertx.core.http.HttpServerRequest;
import io.vertx.core.json.DecodeException;
import io.vertx.core.json.JsonObject;
import java.nio.charset.StandardCharsets;
import java.util.Base64;

/**
 * The interface that a machine documents for its own pages: each page a JSON object below {@code /open}, read with GET
 * and written with PUT, log-in in each request (RFC 7617). What a machine does not take it answers with problem details
 * (RFC 9457).
 */
final class ServedPages {

    /** Where the resources begin. */
    static final String ROOT = "/open";

    /** What a machine makes of its pages. */
    interface Pages {

        boolean admits(String user, String phrase);

        /** What a resource shows now; null where there is none. */
        JsonObject show(String resource);

        /** Takes what was written; gives why not, or null. May block. */
        String take(String resource, JsonObject written) throws InterruptedException;
    }

    private final Vertx vertx;
    private final Pages pages;

    ServedPages(Vertx vertx, Pages pages) {
        this.vertx = vertx;
        this.pages = pages;
    }

    void handle(HttpServerRequest request) {
        request.body().onSuccess(body -> vertx.<Answer>executeBlocking(() -> answer(request, body), false)
                .onSuccess(answer -> request.response()
                        .setStatusCode(answer.status)
                        .putHeader(
                                "Content-Type", answer.status < 300 ? "application/json" : "application/problem+json")
                        .end(answer.body.toBuffer()))
                .onFailure(fault -> request.response().setStatusCode(500).end()));
    }

    private record Answer(int status, JsonObject body) {}

    private static Answer problem(int status, String detail) {
        return new Answer(status, new JsonObject().put("status", status).put("detail", detail));
    }

    private Answer answer(HttpServerRequest request, Buffer body) throws InterruptedException {
        String resource = request.path().substring(ROOT.length());
        if (!admitted(request.getHeader("Authorization"))) {
            return problem(401, "account and phrase do not belong together");
        }
        JsonObject shown = pages.show(resource);
        if (shown == null) {
            return problem(404, "there is no such page");
        }
        return switch (request.method().name()) {
            case "GET" -> new Answer(200, shown);
            case "PUT" -> put(resource, body);
            default -> problem(405, "pages are read with GET and written with PUT");
        };
    }

    private Answer put(String resource, Buffer body) throws InterruptedException {
        try {
            String refused = pages.take(resource, body.toJsonObject());
            return refused == null ? new Answer(200, pages.show(resource)) : problem(422, refused);
        } catch (DecodeException | ClassCastException e) {
            return problem(400, "that is no page");
        }
    }

    private boolean admitted(String header) {
        if (header == null || !header.startsWith("Basic ")) {
            return false;
        }
        String[] login =
                new String(Base64.getDecoder().decode(header.substring(6)), StandardCharsets.UTF_8).split(":", 2);
        return login.length == 2 && pages.admits(login[0], login[1]);
    }
}
