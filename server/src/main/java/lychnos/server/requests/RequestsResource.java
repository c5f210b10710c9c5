package lychnos.server.requests;

import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.Consumes;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.PUT;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.Produces;
import jakarta.ws.rs.core.MediaType;
import jakarta.ws.rs.core.Response;
import java.io.IOException;
import lychnos.server.identity.caller.Who;

/** What other teams are asked for. */
@Path("/api")
@RolesAllowed("viewer")
public class RequestsResource {

    private final Requests requests;
    private final Who who;

    RequestsResource(Requests requests, Who who) {
        this.requests = requests;
        this.who = who;
    }

    @GET
    @Path("bring-ups/{id}/requests")
    public RequestsView requests(long id) {
        return requests.of(id);
    }

    @PUT
    @Path("bring-ups/{id}/requests")
    @Consumes(MediaType.APPLICATION_JSON)
    @RolesAllowed("engineer")
    public void change(long id, RequestChange change) {
        requests.change(id, change, who.person());
    }

    @POST
    @Path("bring-ups/{id}/requests")
    @Consumes(MediaType.APPLICATION_JSON)
    @RolesAllowed("engineer")
    public void add(long id, RequestChange.OwnRequest request) {
        requests.add(id, request, who.person());
    }

    /** All of them with every machine, to send to other teams. */
    @GET
    @Path("bring-ups/{id}/requests.csv")
    @Produces("text/csv; charset=UTF-8")
    public Response file(long id) throws IOException {
        StringBuilder text = new StringBuilder();
        RequestsCsv.write(text, requests.known(id));
        return Response.ok(text.toString(), "text/csv; charset=UTF-8")
                .header("Content-Disposition", "attachment; filename=\"requests.csv\"")
                .build();
    }
}
