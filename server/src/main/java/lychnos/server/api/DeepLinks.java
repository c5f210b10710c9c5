package lychnos.server.api;

import io.vertx.ext.web.Router;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.enterprise.event.Observes;

/** Answers every address of the web application with its one page, so that links can be shared and reloaded. */
@ApplicationScoped
public class DeepLinks {

    /** Before the REST interface, which would answer what it does not know with a problem document. */
    private static final int EARLY = 10;

    void install(@Observes Router router) {
        router.get().pathRegex("/(?!api/|q/|assets/).+").order(EARLY).handler(context -> {
            String accept = context.request().getHeader("Accept");
            if (accept != null && accept.contains("text/html")) {
                context.reroute("/");
            } else {
                context.next();
            }
        });
    }
}
