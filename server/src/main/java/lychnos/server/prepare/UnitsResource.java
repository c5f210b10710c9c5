package lychnos.server.prepare;

import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.Consumes;
import jakarta.ws.rs.DELETE;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.PUT;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.core.MediaType;
import java.util.List;
import lychnos.server.api.problem.Refusal;
import lychnos.server.identity.caller.Who;
import lychnos.server.units.Units;

/** Units: announced, withdrawn, and given a host name by hand. */
@Path("/api")
@RolesAllowed("viewer")
public class UnitsResource {

    private final Units units;
    private final Who who;

    UnitsResource(Units units, Who who) {
        this.units = units;
        this.who = who;
    }

    /** A host name for one unit. */
    record UnitName(String name) {}

    @POST
    @Path("bring-ups/{id}/units")
    @RolesAllowed("engineer")
    public List<Long> announce(long id, Units.Announcement request) {
        return units.announce(id, Refusal.required(request), who.person());
    }

    @DELETE
    @Path("units/{id}")
    @RolesAllowed("engineer")
    public void withdraw(long id) {
        units.withdraw(id, who.person());
    }

    /** Gives one unit a host name typed by hand, in place of the one by the pattern. */
    @PUT
    @Path("units/{id}/name")
    @Consumes(MediaType.APPLICATION_JSON)
    @RolesAllowed("engineer")
    public void rename(long id, UnitName name) {
        units.rename(id, Refusal.required(name).name, who.person());
    }
}
