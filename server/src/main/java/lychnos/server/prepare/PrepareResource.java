package lychnos.server.prepare;

import jakarta.annotation.security.RolesAllowed;
import jakarta.transaction.Transactional;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.core.Context;
import jakarta.ws.rs.core.HttpHeaders;
import jakarta.ws.rs.core.Request;
import jakarta.ws.rs.core.Response;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import lychnos.server.api.problem.Refusal;
import lychnos.server.database.ReadsOnly;
import lychnos.server.identity.caller.Who;
import lychnos.server.live.SharedViews;
import lychnos.server.site.BringUp;
import lychnos.server.units.BringUps;
import org.eclipse.microprofile.openapi.annotations.responses.APIResponseSchema;

/** Bring-ups, and the stage Prepare of each. */
@Path("/api")
@RolesAllowed("viewer")
public class PrepareResource {

    private final BringUps bringUps;
    private final PrepareViews views;
    private final SharedViews shared;
    private final Who who;

    PrepareResource(BringUps bringUps, PrepareViews views, SharedViews shared, Who who) {
        this.bringUps = bringUps;
        this.views = views;
        this.shared = shared;
        this.who = who;
    }

    /** One line of the list of bring-ups. */
    public record Brief(long id, String name, LocalDate due, String site, String siteCode, long units, long signed) {

        static Brief of(BringUp bringUp, BringUps.Size size) {
            return new Brief(
                    bringUp.id,
                    bringUp.name,
                    bringUp.due,
                    bringUp.site.name,
                    bringUp.site.code,
                    size.units(),
                    size.signed());
        }
    }

    @GET
    @Path("bring-ups")
    @Transactional
    public List<Brief> list() {
        Map<Long, BringUps.Size> sizes = bringUps.sizes();
        return bringUps.all().stream()
                .map(each -> Brief.of(each, sizes.getOrDefault(each.id, BringUps.Size.EMPTY)))
                .toList();
    }

    @POST
    @Path("bring-ups")
    @RolesAllowed("engineer")
    public Brief begin(BringUps.Begin request) {
        BringUp begun = bringUps.begin(Refusal.required(request), who.person());
        return Brief.of(begun, bringUps.sizes().getOrDefault(begun.id, BringUps.Size.EMPTY));
    }

    @GET
    @Path("bring-ups/{id}/prepare")
    @Transactional
    @ReadsOnly
    @APIResponseSchema(value = PrepareViews.Sheet.class, responseCode = "200")
    public Response sheet(long id, @Context Request request, @Context HttpHeaders headers) {
        return shared.of("prepare " + id, id, request, headers, () -> views.sheet(id));
    }
}
