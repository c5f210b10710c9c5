package lychnos.server.vantage;

import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.DELETE;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.PUT;
import jakarta.ws.rs.Path;
import java.util.List;
import java.util.Set;
import lychnos.server.api.problem.Refusal;
import lychnos.server.identity.caller.Who;
import lychnos.server.text.VantageText;

/** Vantages, for people. */
@Path("/api/vantages")
@RolesAllowed("viewer")
public class VantageResource {

    private final Vantages vantages;
    private final VantageSocket socket;
    private final Who who;

    VantageResource(Vantages vantages, VantageSocket socket, Who who) {
        this.vantages = vantages;
        this.socket = socket;
        this.who = who;
    }

    @GET
    public List<Vantages.VantageView> all() {
        return vantages.all();
    }

    @GET
    @Path("networks")
    public List<Vantages.ReachableNetwork> networks() {
        return vantages.networks();
    }

    /** @param name what it is to be called */
    public record VantageWanted(String name) {}

    @POST
    @RolesAllowed("lead")
    public Vantages.NewVantage make(VantageWanted make) {
        return vantages.make(make == null ? null : make.name, who.person());
    }

    /** @param networks by id, those that it is to reach */
    public record VantageNetworks(Set<Long> networks) {}

    @PUT
    @Path("{id}/networks")
    @RolesAllowed("lead")
    public void give(long id, VantageNetworks give) {
        if (give == null || give.networks == null) {
            throw Refusal.bad(VantageText.WHICH_NETWORKS.said());
        }
        socket.changed(vantages.give(id, give.networks, who.person()));
    }

    @DELETE
    @Path("{id}")
    @RolesAllowed("lead")
    public void revoke(long id) {
        socket.changed(vantages.revoke(id, who.person()));
    }
}
