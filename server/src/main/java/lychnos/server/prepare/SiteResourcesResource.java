package lychnos.server.prepare;

import jakarta.annotation.security.RolesAllowed;
import jakarta.transaction.Transactional;
import jakarta.ws.rs.DELETE;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.PUT;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.core.Context;
import jakarta.ws.rs.core.Request;
import jakarta.ws.rs.core.Response;
import java.util.List;
import java.util.stream.Stream;
import lychnos.core.site.SiteResourceSort;
import lychnos.server.api.problem.IfMatch;
import lychnos.server.api.problem.Refusal;
import lychnos.server.api.problem.Tagged;
import lychnos.server.identity.caller.Who;
import lychnos.server.site.Measures;
import lychnos.server.site.SiteResources;
import org.jboss.resteasy.reactive.RestHeader;

/** Services, hosts, policies and other resources of a site, and their measurement. */
@Path("/api")
@RolesAllowed("viewer")
public class SiteResourcesResource {

    private final SiteResources resources;
    private final Measures measures;
    private final Who who;

    SiteResourcesResource(SiteResources resources, Measures measures, Who who) {
        this.resources = resources;
        this.measures = measures;
        this.who = who;
    }

    @GET
    @Path("site-resources/sorts")
    public List<PrepareViews.SiteResourceSortView> sorts() {
        return Stream.of(SiteResourceSort.values())
                .map(PrepareViews.SiteResourceSortView::of)
                .toList();
    }

    /** One site resource; its tag goes into the If-Match of a change. */
    @GET
    @Path("bring-ups/{id}/site-resources/{resource}")
    @Transactional
    public Response oneResource(long id, long resource, @Context Request request) {
        PrepareViews.SiteResourceView item = PrepareViews.item(resources.one(id, resource));
        return Tagged.of(item, item.version(), request);
    }

    @PUT
    @Path("bring-ups/{id}/site-resources")
    @RolesAllowed("engineer")
    public long saveResource(
            long id, @RestHeader("If-Match") String ifMatch, SiteResources.SiteResourceStatement statement) {
        SiteResources.SiteResourceStatement typed = Refusal.required(statement);
        return resources.state(
                id,
                new SiteResources.SiteResourceStatement(
                        typed.id(), typed.sort(), typed.name(), typed.values(), IfMatch.of(ifMatch, typed.version())),
                who.person());
    }

    @DELETE
    @Path("bring-ups/{id}/site-resources/{resource}")
    @RolesAllowed("engineer")
    public void removeResource(long id, long resource, @RestHeader("If-Match") String ifMatch) {
        resources.remove(id, resource, IfMatch.of(ifMatch, null), who.person());
    }

    @POST
    @Path("bring-ups/{id}/measure")
    @RolesAllowed("engineer")
    public void measure(long id) {
        measures.ask(id);
    }
}
