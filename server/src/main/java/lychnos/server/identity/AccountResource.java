package lychnos.server.identity;

import io.smallrye.common.annotation.Blocking;
import io.smallrye.mutiny.Uni;
import io.vertx.core.http.HttpServerRequest;
import jakarta.annotation.security.PermitAll;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.Consumes;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.core.Context;
import jakarta.ws.rs.core.MediaType;
import jakarta.ws.rs.core.Response;
import java.util.List;
import lychnos.server.LychnosConfig;
import lychnos.server.api.problem.Refusal;
import lychnos.server.api.problem.Refusal.FieldFault;
import lychnos.server.api.problem.Shapes;
import lychnos.server.identity.caller.Who;
import lychnos.server.text.IdentityText;

/**
 * Signing in and out, one's own sessions and password, and the links by which a person sets a first one. A worker only
 * begins what hashes a password; it does not wait for it.
 */
@Path("/api")
@Blocking
@Consumes(MediaType.APPLICATION_JSON)
public class AccountResource {

    private static final int LONGEST_LOGIN = 64;
    private static final int LONGEST_TOKEN = 100;

    private final Accounts accounts;
    private final SignIns signIns;
    private final Sessions sessions;
    private final People people;
    private final Shapes shapes;
    private final Who who;
    private final LychnosConfig config;
    private final SessionCookie cookie;

    AccountResource(
            Accounts accounts,
            SignIns signIns,
            Sessions sessions,
            People people,
            Shapes shapes,
            Who who,
            LychnosConfig config,
            SessionCookie cookie) {
        this.accounts = accounts;
        this.signIns = signIns;
        this.sessions = sessions;
        this.people = people;
        this.shapes = shapes;
        this.who = who;
        this.config = config;
        this.cookie = cookie;
    }

    record SignIn(String login, String password) {}

    record FirstLeadWanted(String code, String login, String name, String password) {}

    /** A link that was followed, and the password that the person has chosen. */
    record InvitationAnswer(String token, String password) {}

    /** What a link stands for. */
    record InvitationLink(String token) {}

    /** Whose link it is. */
    record Invitation(String login, String name) {}

    record PasswordConfirmation(String password) {}

    record NewPassword(String old, String password) {}

    /** What the page must know before anybody is signed in. */
    record DoorView(boolean firstLeadWanted, boolean lab) {}

    @GET
    @Path("door")
    @PermitAll
    public DoorView door() {
        return new DoorView(accounts.firstLeadWanted(), config.lab());
    }

    @POST
    @Path("first-lead")
    @PermitAll
    public Uni<Response> firstLead(FirstLeadWanted request, @Context HttpServerRequest http) {
        if (request == null || request.code == null || request.code.length() > LONGEST_TOKEN) {
            throw Refusal.bad(IdentityText.ENTER_CODE_LOGIN.said());
        }
        shapes.refuse(new People.PersonWanted(request.login, request.name, "lead"));
        PasswordRequests.refuse(request.password, request.login, request.name);
        SignIns.Origin origin = PasswordRequests.origin(http);
        return signIns.hashed(request.login, origin, hashes -> {
                    accounts.firstLead(request.code, request.login, request.name, hashes.hash(request.password));
                    return request;
                })
                .chain(made -> signIns.signIn(request.login, request.password, origin))
                .map(this::signedIn);
    }

    @POST
    @Path("session")
    @PermitAll
    public Uni<Response> signIn(SignIn request, @Context HttpServerRequest http) {
        if (request == null
                || request.login == null
                || request.password == null
                || request.password.length() > PasswordRequests.LONGEST_PASSWORD
                || request.login.length() > LONGEST_LOGIN) {
            throw Refusal.bad(IdentityText.ENTER_LOGIN_AND_PASSWORD.said());
        }
        return signIns.signIn(request.login, request.password, PasswordRequests.origin(http))
                .map(this::signedIn);
    }

    private Response signedIn(String token) {
        return Response.noContent().cookie(cookie.of(token)).build();
    }

    /** Whose link this is, before a password is chosen. */
    @POST
    @Path("invitation")
    @PermitAll
    public Uni<Invitation> invitation(InvitationLink link) {
        if (link == null || link.token == null || link.token.length() > LONGEST_TOKEN) {
            throw People.usedUp();
        }
        return PasswordRequests.blocking(() -> people.invited(link.token)
                .map(account -> new Invitation(account.login, account.name))
                .orElseThrow(People::usedUp));
    }

    /** Sets the password of the person whom the link is for, and signs in. The link works once. */
    @POST
    @Path("invitation/password")
    @PermitAll
    public Uni<Response> accept(InvitationAnswer accepted, @Context HttpServerRequest http) {
        if (accepted == null
                || accepted.token == null
                || accepted.token.length() > LONGEST_TOKEN
                || accepted.password == null) {
            throw People.usedUp();
        }
        SignIns.Origin origin = PasswordRequests.origin(http);
        return signIns.hashed("", origin, hashes -> {
                    var account = people.invited(accepted.token).orElseThrow(People::usedUp);
                    PasswordRequests.refuse(accepted.password, account.login, account.name);
                    people.accepted(accepted.token, hashes.hash(accepted.password));
                    return account.login;
                })
                .chain(login -> signIns.signIn(login, accepted.password, origin))
                .map(this::signedIn);
    }

    /** The password is typed once more, for what wants that; it counts for ten minutes. */
    @POST
    @Path("session/confirm")
    @RolesAllowed("viewer")
    public Uni<Void> confirm(PasswordConfirmation confirm, @Context HttpServerRequest http) {
        who.requireSession();
        if (confirm == null
                || confirm.password == null
                || confirm.password.length() > PasswordRequests.LONGEST_PASSWORD) {
            throw Refusal.bad(IdentityText.ENTER_YOUR_PASSWORD.said());
        }
        long session = who.credential().id();
        return signIns.confirm(who.person().login(), confirm.password, PasswordRequests.origin(http))
                .onFailure(Refusal.class)
                .transform(PasswordRequests::wrongPassword)
                .chain(right -> PasswordRequests.blocking(() -> {
                    sessions.confirmed(session);
                    return null;
                }));
    }

    /** Changes one's own password; every other session ends. */
    @POST
    @Path("session/password")
    @RolesAllowed("viewer")
    public Uni<Void> password(NewPassword wanted, @Context HttpServerRequest http) {
        who.requireSession();
        if (wanted == null || wanted.old == null || wanted.old.length() > PasswordRequests.LONGEST_PASSWORD) {
            throw Refusal.fields(List.of(new FieldFault("old", IdentityText.ENTER_YOUR_CURRENT_PASSWORD.said())));
        }
        Who.Person person = who.person();
        long session = who.credential().id();
        PasswordRequests.refuse(wanted.password, person.login(), person.name());
        SignIns.Origin origin = PasswordRequests.origin(http);
        return signIns.confirm(person.login(), wanted.old, origin)
                .onFailure(Refusal.class)
                .transform(PasswordRequests::wrongPassword)
                .chain(right -> signIns.hashed(person.login(), origin, hashes -> hashes.hash(wanted.password)))
                .chain(hash -> PasswordRequests.blocking(() -> {
                    people.changed(person, hash, session);
                    return null;
                }));
    }
}
