package lychnos.server.identity;

import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.DELETE;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.PUT;
import jakarta.ws.rs.Path;
import java.util.List;
import lychnos.server.identity.caller.Who;
import org.jboss.resteasy.reactive.RestResponse;

/** Accounts, for leads who are signed in; no token looks after accounts. */
@Path("/api/people")
@RolesAllowed("lead")
public class PeopleResource {

    private final People people;
    private final Who who;

    PeopleResource(People people, Who who) {
        this.people = people;
        this.who = who;
    }

    @GET
    public List<People.PersonView> all() {
        return people.all();
    }

    @POST
    public RestResponse<People.NewInvitation> invite(People.PersonWanted wanted) {
        who.requireSession();
        return shownOnce(people.invite(wanted, who.person()));
    }

    @POST
    @Path("{id}/invitation")
    public RestResponse<People.NewInvitation> inviteAgain(long id) {
        who.requireSession();
        return shownOnce(people.inviteAgain(id, who.person()));
    }

    private static RestResponse<People.NewInvitation> shownOnce(People.NewInvitation invited) {
        return RestResponse.ResponseBuilder.ok(invited)
                .header("Cache-Control", "no-store")
                .build();
    }

    @PUT
    @Path("{id}")
    public void change(long id, People.PersonChange change) {
        who.requireSession();
        people.change(id, change, who.person());
    }

    @DELETE
    @Path("{id}/sessions")
    public void endSessions(long id) {
        who.requireSession();
        people.endSessions(id, who.person());
    }
}
