package lychnos.lab;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import io.vertx.core.http.HttpServerRequest;
import java.io.IOException;
import java.util.function.Function;

/** The HTTP side of a stand-in's Redfish service. */
final class JsonDoor {

    private static final ObjectMapper JSON = new ObjectMapper();
    private static final int LARGEST_BODY = 64_000;

    private JsonDoor() {}

    /** Reads the body of a request, and sends what is answered to it. */
    static void serve(HttpServerRequest request, Function<JsonNode, Reply> service) {
        request.body().onSuccess(body -> {
            if (body.length() > LARGEST_BODY) {
                respond(request, Reply.error(413, "Base.1.18.RequestTooLarge", "Too large."));
                return;
            }
            Reply reply;
            try {
                JsonNode json = body.length() == 0 ? JSON.createObjectNode() : JSON.readTree(body.getBytes());
                reply = service.apply(json);
            } catch (IOException e) {
                reply = Reply.error(400, "Base.1.18.MalformedJSON", "The body is no JSON.");
            }
            respond(request, reply);
        });
    }

    private static void respond(HttpServerRequest request, Reply reply) {
        if (reply.status() == Reply.HANG_UP) {
            request.connection().close();
            return;
        }
        var response = request.response().setStatusCode(reply.status()).putHeader("OData-Version", "4.0");
        reply.headers().forEach(response::putHeader);
        if (reply.body() == null) {
            response.end();
        } else {
            response.putHeader("Content-Type", "application/json")
                    .end(reply.body().toString());
        }
    }
}
