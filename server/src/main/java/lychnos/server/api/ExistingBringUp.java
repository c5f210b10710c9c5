package lychnos.server.api;

import io.quarkus.narayana.jta.QuarkusTransaction;
import jakarta.ws.rs.container.ContainerRequestContext;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import lychnos.server.api.problem.Refusal;
import lychnos.server.site.BringUp;
import lychnos.server.text.ApiText;
import org.hibernate.Session;
import org.jboss.resteasy.reactive.server.ServerRequestFilter;

/**
 * Refuses every request below {@code /api/bring-ups/{id}} where there is no such bring-up, whatever the route does with
 * the id.
 */
public class ExistingBringUp {

    private static final String BELOW = "/api/bring-ups/";

    private final Session db;
    /** Bring-ups that were found: none is ever deleted. */
    private final Set<Long> known = ConcurrentHashMap.newKeySet();

    ExistingBringUp(Session db) {
        this.db = db;
    }

    /** @throws Refusal 404 where there is none */
    @ServerRequestFilter
    public void check(ContainerRequestContext request) {
        String id = request.getUriInfo().getPathParameters().getFirst("id");
        if (id == null || !request.getUriInfo().getPath().startsWith(BELOW)) {
            return;
        }
        long number = id.matches("\\d{1,18}") ? Long.parseLong(id) : 0;
        if (known.contains(number)) {
            return;
        }
        if (number == 0 || !exists(number)) {
            throw Refusal.notFound(ApiText.NO_SUCH_BRING_UP.said());
        }
        known.add(number);
    }

    private boolean exists(long number) {
        return QuarkusTransaction.requiringNew().call(() -> db.find(BringUp.class, number) != null);
    }
}
