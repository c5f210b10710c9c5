package lychnos.server.identity;

import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.DELETE;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.Path;
import java.util.List;
import lychnos.server.identity.caller.Credential;
import lychnos.server.identity.caller.Who;
import org.jboss.resteasy.reactive.RestResponse;

/** Tokens of the person who asks. */
@Path("/api/tokens")
@RolesAllowed("viewer")
public class ApiTokenResource {

    private final ApiTokens tokens;
    private final Who who;

    ApiTokenResource(ApiTokens tokens, Who who) {
        this.tokens = tokens;
        this.who = who;
    }

    @GET
    public List<ApiTokens.TokenView> all() {
        return tokens.of(who.person());
    }

    @POST
    public RestResponse<ApiTokens.NewToken> make(ApiTokens.TokenWanted wanted) {
        who.requireSession();
        return RestResponse.ResponseBuilder.ok(tokens.make(wanted, who.person()))
                .header("Cache-Control", "no-store")
                .build();
    }

    @DELETE
    @Path("{id}")
    public void revoke(long id) {
        // a program may put its own token away, and no other
        if (who.credential().sort() != Credential.Sort.TOKEN || who.credential().id() != id) {
            who.requireSession();
        }
        tokens.revoke(id, who.person());
    }
}
