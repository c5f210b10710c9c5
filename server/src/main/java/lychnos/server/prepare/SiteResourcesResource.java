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
import lychnos.server.caller.Who;
import lychnos.server.problem.IfMatch;
import lychnos.server.problem.Refusal;
import lychnos.server.problem.Tagged;
import org.jboss.resteasy.reactive.RestHeader;

/** Services, hosts, policies and other resources of a site, and their measurement. */
@Path("/api")
@RolesAllowed("viewer")
public class SiteResourcesResource {

    private final SiteResources things;
    private final Measures measures;
    private final Who who;

    SiteResourcesResource(SiteResources things, Measures measures, Who who) {
        this.things = things;
        this.measures = measures;
        this.who = who;
    }

    @GET
    @Path("things/sorts")
    public List<PrepareViews.Sort> sorts() {
        return Stream.of(SiteResourceSort.values()).map(PrepareViews.Sort::of).toList();
    }

    /** One thing; its tag goes into If-Match of whoever changes it. */
    @GET
    @Path("bring-ups/{id}/things/{thing}")
    @Transactional
    public Response oneThing(long id, long thing, @Context Request request) {
        PrepareViews.Item item = PrepareViews.item(things.one(id, thing));
        return Tagged.of(item, item.version(), request);
    }

    @PUT
    @Path("bring-ups/{id}/things")
    @RolesAllowed("engineer")
    public long stateThing(long id, @RestHeader("If-Match") String ifMatch, SiteResources.Statement statement) {
        SiteResources.Statement typed = Refusal.required(statement);
        return things.state(
                id,
                new SiteResources.Statement(
                        typed.id(), typed.sort(), typed.name(), typed.values(), IfMatch.of(ifMatch, typed.version())),
                who.person());
    }

    @DELETE
    @Path("bring-ups/{id}/things/{thing}")
    @RolesAllowed("engineer")
    public void removeThing(long id, long thing, @RestHeader("If-Match") String ifMatch) {
        things.remove(id, thing, IfMatch.of(ifMatch, null), who.person());
    }

    @POST
    @Path("bring-ups/{id}/measure")
    @RolesAllowed("engineer")
    public void measure(long id) {
        measures.ask(id);
    }
}
