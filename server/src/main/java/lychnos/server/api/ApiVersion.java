package lychnos.server.api;

import io.vertx.ext.web.Router;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.enterprise.event.Observes;

/**
 * The interface under its version: {@code /api/v1/…} is what programs build on; the page itself says {@code /api/…}.
 */
@ApplicationScoped
public class ApiVersion {

    private static final String VERSIONED = "/api/v1/";
    /** Runs before authentication. */
    private static final int FIRST = -1000;

    void route(@Observes Router router) {
        router.route(VERSIONED + "*")
                .order(FIRST)
                .handler(context ->
                        context.reroute("/api/" + context.request().uri().substring(VERSIONED.length())));
    }
}
