package lychnos.server.account;

import jakarta.annotation.security.PermitAll;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.Consumes;
import jakarta.ws.rs.CookieParam;
import jakarta.ws.rs.DELETE;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.core.MediaType;
import jakarta.ws.rs.core.NewCookie;
import jakarta.ws.rs.core.Response;
import lychnos.server.LychnosConfig;
import lychnos.server.problem.Refusal;

/** Signing in and out. */
@Path("/api")
@Consumes(MediaType.APPLICATION_JSON)
public class AccountResource {

    private final Accounts accounts;
    private final Who who;
    private final LychnosConfig config;

    AccountResource(Accounts accounts, Who who, LychnosConfig config) {
        this.accounts = accounts;
        this.who = who;
        this.config = config;
    }

    record SignIn(String login, String password) {}

    record FirstLead(String code, String login, String name, String password) {}

    /** What the page must know before anybody is signed in. */
    record Door(boolean firstLeadWanted, boolean lab) {}

    /** The person and where checks run from. */
    record Me(String login, String name, String role, String vantage) {}

    @GET
    @Path("door")
    @PermitAll
    public Door door() {
        return new Door(accounts.firstLeadWanted(), config.lab());
    }

    @POST
    @Path("first-lead")
    @PermitAll
    public Response firstLead(FirstLead request) {
        if (request == null || request.code == null || request.login == null || request.name == null || request.password == null) {
            throw Refusal.bad("Code, login, name and password are wanted.");
        }
        accounts.firstLead(request.code, request.login, request.name, request.password);
        return signIn(new SignIn(request.login, request.password));
    }

    @POST
    @Path("session")
    @PermitAll
    public Response signIn(SignIn request) {
        if (request == null || request.login == null || request.password == null || request.password.length() > 200 || request.login.length() > 64) {
            throw Refusal.bad("Login and password are wanted.");
        }
        return Response.noContent().cookie(cookie(accounts.signIn(request.login, request.password), (int) Accounts.SIGN_IN.toSeconds())).build();
    }

    @GET
    @Path("session")
    @RolesAllowed("viewer")
    public Me me() {
        Who.Person person = who.person();
        return new Me(person.login(), person.name(), person.role(), config.vantage().name());
    }

    @DELETE
    @Path("session")
    @RolesAllowed("viewer")
    public Response signOut(@CookieParam(SignInMechanism.COOKIE) String token) {
        accounts.signOut(token);
        return Response.noContent().cookie(cookie("", 0)).build();
    }

    private NewCookie cookie(String value, int seconds) {
        return new NewCookie.Builder(SignInMechanism.COOKIE)
                .value(value)
                .path("/")
                .httpOnly(true)
                .secure(config.cookieSecure())
                .sameSite(NewCookie.SameSite.STRICT)
                .maxAge(seconds)
                .build();
    }
}
