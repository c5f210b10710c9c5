package lychnos.server;

import io.vertx.ext.web.Router;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.enterprise.event.Observes;

/** Answers every address of the web application with its one page, so that links can be shared and reloaded. */
@ApplicationScoped
public class DeepLinks {

    private static final int LAST = 100_000;

    void install(@Observes Router router) {
        router.get().pathRegex("/(?!api/|q/|assets/).+").order(LAST).handler(context -> {
            String accept = context.request().getHeader("Accept");
            if (accept != null && accept.contains("text/html")) {
                context.reroute("/");
            } else {
                context.next();
            }
        });
    }
}
