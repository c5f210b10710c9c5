package lychnos.server.prove;

import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.DefaultValue;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.PUT;
import jakarta.ws.rs.Path;
import java.util.Set;
import lychnos.server.account.Who;
import lychnos.server.problem.Refusal;
import lychnos.wire.Vantage;
import org.jboss.resteasy.reactive.RestQuery;

/** Stage 4: how far up every endpoint answers. */
@Path("/api")
@RolesAllowed("viewer")
public class ProveResource {

    private final Checks checks;
    private final Paces paces;
    private final Vantage vantage;
    private final Who who;

    ProveResource(Checks checks, Paces paces, Vantage vantage, Who who) {
        this.checks = checks;
        this.paces = paces;
        this.vantage = vantage;
        this.who = who;
    }

    /** @param units which units, or null for all */
    public record Ask(Set<Long> units) {}

    /** How many checks were asked for. */
    public record Asked(int count) {}

    @GET
    @Path("bring-ups/{id}/prove")
    public Checks.View view(long id) {
        return checks.view(id, vantage.name(), paces.of(id));
    }

    @GET
    @Path("units/{id}/proof")
    public Checks.Detail detail(long id, @RestQuery @DefaultValue("0") long claim) {
        return checks.detail(id, claim);
    }

    /** @param fingerprint of the certificate that is accepted, as it was looked at */
    public record Accept(String fingerprint) {}

    @POST
    @Path("endpoints/{claim}/certificate")
    @RolesAllowed("engineer")
    public void accept(long claim, Accept accept) {
        if (accept == null || accept.fingerprint == null) {
            throw Refusal.bad("Which certificate?");
        }
        checks.accept(claim, accept.fingerprint, who.person());
    }

    @POST
    @Path("bring-ups/{id}/checks")
    @RolesAllowed("engineer")
    public Asked ask(long id, Ask ask) {
        return new Asked(checks.ask(id, ask == null ? null : ask.units, who.person()));
    }

    /** @param minutes after how many everything is checked again; 0 for never */
    public record Pace(int minutes) {}

    @PUT
    @Path("bring-ups/{id}/checks/pace")
    @RolesAllowed("engineer")
    public void pace(long id, Pace pace) {
        if (pace == null) {
            throw Refusal.bad("How often?");
        }
        paces.set(id, pace.minutes, who.person());
    }

    @POST
    @Path("bring-ups/{id}/checks/cancel")
    @RolesAllowed("engineer")
    public void cancel(long id) {
        checks.cancel(id, who.person());
    }
}
