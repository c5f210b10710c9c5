package lychnos.server.identity;

import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.DELETE;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.core.Response;
import java.util.List;
import lychnos.server.LychnosConfig;
import lychnos.server.identity.caller.Who;

/** One's own sessions: who is signed in, where, and signing out. */
@Path("/api")
@RolesAllowed("viewer")
public class SessionResource {

    private final Sessions sessions;
    private final Who who;
    private final SessionCookie cookie;
    private final LychnosConfig config;

    SessionResource(Sessions sessions, Who who, SessionCookie cookie, LychnosConfig config) {
        this.sessions = sessions;
        this.who = who;
        this.cookie = cookie;
        this.config = config;
    }

    /** The person and where checks run from. */
    record SignedInView(String login, String name, String role, String vantage) {}

    @GET
    @Path("session")
    @RolesAllowed("viewer")
    public SignedInView me() {
        Who.Person person = who.person();
        return new SignedInView(
                person.login(), person.name(), person.role(), config.vantage().name());
    }

    @GET
    @Path("sessions")
    @RolesAllowed("viewer")
    public List<Sessions.SessionView> sessions() {
        return sessions.of(who.person(), who.credential());
    }

    @DELETE
    @Path("sessions/{id}")
    @RolesAllowed("viewer")
    public void end(long id) {
        who.requireSession();
        sessions.end(id, who.person());
    }

    /** Signs out everywhere, here too. */
    @DELETE
    @Path("sessions")
    @RolesAllowed("viewer")
    public Response signOutEverywhere() {
        who.requireSession();
        sessions.signOutEverywhere(who.person());
        return signedOut();
    }

    @DELETE
    @Path("session")
    @RolesAllowed("viewer")
    public Response signOut() {
        who.requireSession();
        sessions.end(who.credential().id(), who.person());
        return signedOut();
    }

    private Response signedOut() {
        return Response.noContent().cookie(cookie.none()).build();
    }
}
