package lychnos.server.prepare;

import jakarta.annotation.security.RolesAllowed;
import jakarta.transaction.Transactional;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.core.Context;
import jakarta.ws.rs.core.HttpHeaders;
import jakarta.ws.rs.core.MediaType;
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
import org.eclipse.microprofile.openapi.annotations.media.Content;
import org.eclipse.microprofile.openapi.annotations.media.Schema;
import org.eclipse.microprofile.openapi.annotations.responses.APIResponse;
import org.jspecify.annotations.Nullable;

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
    public record BringUpView(
            long id, String name, @Nullable LocalDate due, String site, String siteCode, long units, long signed) {

        static BringUpView of(BringUp bringUp, BringUps.BringUpSize size) {
            return new BringUpView(
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
    public List<BringUpView> list() {
        Map<Long, BringUps.BringUpSize> sizes = bringUps.sizes();
        return bringUps.all().stream()
                .map(each -> BringUpView.of(each, sizes.getOrDefault(each.id, BringUps.BringUpSize.EMPTY)))
                .toList();
    }

    @POST
    @Path("bring-ups")
    @RolesAllowed("engineer")
    public BringUpView begin(BringUps.BringUpWanted request) {
        BringUp begun = bringUps.begin(Refusal.required(request), who.person());
        return BringUpView.of(begun, bringUps.sizes().getOrDefault(begun.id, BringUps.BringUpSize.EMPTY));
    }

    @GET
    @Path("bring-ups/{id}/prepare")
    @Transactional
    @ReadsOnly
    @APIResponse(
            responseCode = "200",
            content =
                    @Content(
                            mediaType = MediaType.APPLICATION_JSON,
                            schema = @Schema(implementation = PrepareViews.PrepareView.class)))
    public Response sheet(long id, @Context Request request, @Context HttpHeaders headers) {
        return shared.of("prepare " + id, id, request, headers, () -> views.sheet(id));
    }
}
