package lychnos.server.site;

import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.PUT;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.core.Context;
import jakarta.ws.rs.core.Request;
import jakarta.ws.rs.core.Response;
import lychnos.server.api.problem.IfMatch;
import lychnos.server.api.problem.Refusal;
import lychnos.server.api.problem.Tagged;
import lychnos.server.identity.caller.Who;
import org.jboss.resteasy.reactive.RestHeader;

/** Networks of a bring-up: read, defined and chosen. */
@Path("/api")
@RolesAllowed("viewer")
public class NetworksResource {

    private final NetworkDefinitions networkDefinitions;
    private final Who who;

    NetworksResource(NetworkDefinitions networkDefinitions, Who who) {
        this.networkDefinitions = networkDefinitions;
        this.who = who;
    }

    /** The network that is chosen. */
    record ChosenNetwork(long networkId) {}

    /** One network; its tag goes into the If-Match of a change. */
    @GET
    @Path("bring-ups/{id}/networks/{network}")
    public Response oneNetwork(long id, long network, @Context Request request) {
        NetworkDefinitions.NetworkStatement statement = networkDefinitions.one(id, network);
        return Tagged.of(statement, statement.version(), request);
    }

    @PUT
    @Path("bring-ups/{id}/networks")
    @RolesAllowed("engineer")
    public void stateAnyNetwork(
            long id, @RestHeader("If-Match") String ifMatch, NetworkDefinitions.NetworkStatement statement) {
        networkDefinitions.stateAny(id, seen(ifMatch, statement), who.person());
    }

    @PUT
    @Path("bring-ups/{id}/network")
    @RolesAllowed("engineer")
    public void stateNetwork(
            long id, @RestHeader("If-Match") String ifMatch, NetworkDefinitions.NetworkStatement statement) {
        networkDefinitions.state(id, seen(ifMatch, statement), who.person());
    }

    @POST
    @Path("bring-ups/{id}/network/choice")
    @RolesAllowed("engineer")
    public void chooseNetwork(long id, ChosenNetwork chosen) {
        networkDefinitions.choose(id, Refusal.required(chosen).networkId, who.person());
    }

    private static NetworkDefinitions.NetworkStatement seen(String ifMatch, NetworkDefinitions.NetworkStatement typed) {
        NetworkDefinitions.NetworkStatement s = Refusal.required(typed);
        return s.seen(IfMatch.of(ifMatch, s.version()));
    }
}
